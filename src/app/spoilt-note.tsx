import type { Db } from "@/data/connection";
import { spoiltMachines } from "@/data/machines";

/** Machines whose sheet cannot be read: said where they would be looked for, so that none is missing without a word. */
export function SpoiltNote({ db }: { db: Db }) {
  const spoilt = spoiltMachines(db);
  if (spoilt.length === 0) return null;
  return (
    <p className="mb-3 border-2 border-mark p-2 text-lg" role="alert">
      The sheet of {spoilt.map(({ fleetNumber }) => fleetNumber).join(", ")} cannot be read. Nothing can be measured on{" "}
      {spoilt.length === 1 ? "it" : "them"} before that is mended; everything else works.
    </p>
  );
}
