import { type MachineState, mayRun } from "@/core/job/status";
import type { Machine } from "@/core/machine";
import { placeIn } from "@/ui/checks/shared";
import { dateOnly } from "@/ui/time";
import { STATE_WORDS } from "@/ui/words/issues";
import { sayReason, sayUnsafe } from "@/ui/words/state";
import { SetBack } from "./set-back";

/** How the machine stands and by whose word, and every reason why it may not run. */
export function Standing({ state, machine, machineId }: { state: MachineState; machine: Machine; machineId: string }) {
  const { stands, released, locks, notAsBuilt } = state;
  const held = mayRun(state, { to: "prove" }).reasons;
  const isQuiet = !stands && held.length === 0 && released.length === 0 && locks.length === 0 && notAsBuilt.length === 0;
  if (isQuiet) return null;
  return (
    <section aria-label="How it stands" className={`mt-3 border-l-4 pl-3 ${held.length > 0 ? "border-mark" : "border-dye"}`}>
      {stands && (
        <p className="text-lg font-semibold">
          Stands {STATE_WORDS[stands.state] ?? stands.state}, by {stands.who}, {dateOnly(stands.at)}
          {locks.length > 0 ? `; locked on: ${locks.map(({ who }) => who).join(", ")}` : ""}.
        </p>
      )}
      {held.length > 0 && <p className="text-lg font-bold text-mark">May not run:</p>}
      <ul>
        {held.map((reason) => (
          <li key={JSON.stringify(reason)} className="leading-snug">
            {sayReason(reason, machine, (iso) => dateOnly(iso))}.
          </li>
        ))}
        {released.map(({ cause, by, at, reason }) => (
          <li key={cause.key} className="leading-snug font-semibold text-mark">
            Owed: {sayUnsafe(cause, machine)}. Released without reading by {by}, {dateOnly(at)}: “{reason}”
          </li>
        ))}
        {notAsBuilt.map(({ place, words, who, at, seq }) => (
          <li key={seq} className="leading-snug font-semibold">
            Not as built{place ? `: ${placeIn({}, machine, place)}` : ""}
            {words ? `. ${words}` : ""}. {who}, {dateOnly(at)}. <SetBack machineId={machineId} place={place} />
          </li>
        ))}
      </ul>
    </section>
  );
}
