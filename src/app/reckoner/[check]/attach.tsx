import Link from "next/link";
import type { UnitSystem } from "@/core/basics/units";
import type { CheckRow } from "@/core/catalogue";
import type { ReckonerView } from "@/data/checks/reckoner";
import type { ReckonerState } from "../state";

export type ReckonerArgs = {
  row: CheckRow;
  view: ReckonerView;
  state: ReckonerState;
  change: (change: (before: ReckonerState) => ReckonerState) => void;
  /** The units of whoever sits here: a job reads bare numbers in them, whatever the link was typed in. */
  homeSystem: UnitSystem;
  /** Hands what was typed to a job of this machine, over what was typed there. */
  attach: <D extends Typed>(jobId: number, key: string, draft: D) => void;
};

export type Typed = { text: Record<string, string>; sure: Record<string, string> };

/** To which open job what was reckoned can be taken. */
export function Attach({ view, canAttach, onAttach }: { view: ReckonerView; canAttach: boolean; onAttach: (jobId: number) => void }) {
  if (view.jobs.length === 0)
    return (
      <p className="mt-2 text-sm text-soft">
        {view.machine.fleetNumber} has no open job.{" "}
        <Link href="/complaint" className="underline">
          Take a complaint
        </Link>{" "}
        and it can be written down.
      </p>
    );
  return (
    <div className="sticky -bottom-4 -mx-4 mt-2 grid gap-1 border-t border-rule bg-sheet px-4 py-2">
      {view.jobs.map(({ id, words }) => (
        <button key={id} type="button" className="btn btn-go w-full" disabled={!canAttach} onClick={() => onAttach(id)}>
          Take it to job {id}
          {words ? `: “${words.length > 22 ? `${words.slice(0, 22)} …` : words}”` : ""}
        </button>
      ))}
    </div>
  );
}
