"use client";

/** What to bring and how it is done. */
import { type CheckId, WAYS } from "@/core/catalogue";
export function WayOf({ checkId }: { checkId: string }) {
  const { bring, how } = WAYS[checkId as CheckId];
  return (
    <div className="my-2 leading-snug">
      <p>
        <span className="caps">Bring</span> {bring.join(", ")}
      </p>
      <p className="mt-1">
        <span className="caps">How</span> {how}
      </p>
    </div>
  );
}
