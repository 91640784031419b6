import { spoiltMachines } from "@/data/machine/machines";
import { toFold } from "@/data/open";
import type { Db } from "@/data/store/db";

/** While states are folded anew after an upgrade, or after what was kept was damaged: who is held may be missing where only the kept is shown. */
function FoldingNote({ left }: { left: number }) {
  return (
    <p className="mb-3 border-2 border-watch p-2 text-lg" role="status">
      The state of {left} {left === 1 ? "machine is" : "machines are"} being worked out anew from the log. Until that is done a machine that
      is held may be missing from this list; its own page has it right, and nothing runs that may not.
    </p>
  );
}

/** Machines whose sheet cannot be read: said where they would be looked for, so that none is missing without a word. */
export function SpoiltNote({ db }: { db: Db }) {
  const spoilt = spoiltMachines(db);
  const left = toFold(db).size;
  return (
    <>
      {left > 0 && <FoldingNote left={left} />}
      {spoilt.length > 0 && <Spoilt spoilt={spoilt} />}
    </>
  );
}

function Spoilt({ spoilt }: { spoilt: ReturnType<typeof spoiltMachines> }) {
  return (
    <p className="mb-3 border-2 border-mark p-2 text-lg" role="alert">
      The sheet of {spoilt.map(({ fleetNumber }) => fleetNumber).join(", ")} cannot be read. Nothing can be measured on{" "}
      {spoilt.length === 1 ? "it" : "them"} before that is mended; everything else works.
    </p>
  );
}
