"use client";

import Link from "next/link";
import type { JobView } from "@/data/job/job-view";
import { LineLost } from "@/ui/line-lost";
import { useSeat } from "@/ui/person";
import { sinceWords } from "@/ui/time";
import { STATE_WORDS } from "@/ui/words/issues";
import type { PanelId } from "./panel-id";
import { type NextThing, Stages } from "./stages";
import type { Stage } from "./steps";

/** Who, what, where, and how the machine stands as something that cannot be overlooked: whoever made it so, in whichever job. */
export function HeadRoom({
  view,
  now,
  open,
  isLive,
  stages,
  next,
}: {
  view: JobView;
  now: string;
  open: (panel: PanelId) => void;
  isLive: boolean;
  stages: readonly Stage[];
  next: NextThing;
}) {
  const { machine, machineState } = view;
  return (
    <div className="border-b border-rule lg:col-span-3">
      {!isLive && <LineLost />}
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 px-3 py-2">
        <h1 className="text-2xl leading-none">
          <Link href={`/machines/${machine.id}`} className="num underline decoration-1 underline-offset-4">
            {machine.fleetNumber}
          </Link>{" "}
          <span className="text-lg font-medium">{machine.name}</span>
        </h1>
        <span className="text-soft">
          {machine.site} · job {view.id} · open {sinceWords(view.openedAt, view.closedAt ?? now)}
        </span>
        {view.cameBack[0] && (
          <Link href={`/jobs/${view.cameBack[0].jobId}`} className="font-semibold text-mark underline">
            Came back: job {view.cameBack[0].jobId}
          </Link>
        )}
        <div className="ml-auto flex flex-wrap items-center gap-2">
          {view.state !== "closed" && <NotMine locks={machineState.locks} open={open} />}
          {(view.state !== "closed" || machineState.unsafe.length > 0) && (
            <HeldButton unsafe={machineState.unsafe.length} owed={machineState.released.length} open={open} />
          )}
          {view.state !== "closed" && <StandsButton state={machineState} open={open} />}
          <Link href={`/jobs/${view.id}/card`} className="btn" prefetch={false}>
            Card
          </Link>
          {view.state === "closed" && <span className="border-2 border-ink px-4 py-1.5 text-lg font-bold">Closed</span>}
        </div>
      </div>
      <Stages stages={stages} next={next} open={open} />
    </div>
  );
}

/** Another's lock-out keeps it still only as long as the other wants: whoever puts a hand in locks on as well. */
function NotMine({ locks, open }: { locks: JobView["machineState"]["locks"]; open: (panel: PanelId) => void }) {
  const { who } = useSeat();
  if (!who || locks.length === 0 || locks.some((lock) => lock.who === who)) return null;
  return (
    <button type="button" className="btn btn-stop !font-bold" onClick={() => open("safe")}>
      {locks.map((lock) => lock.who).join(", ")} {locks.length === 1 ? "is" : "are"} locked on, you are not: lock on too
    </button>
  );
}

function HeldButton({ unsafe, owed, open }: { unsafe: number; owed: number; open: (panel: PanelId) => void }) {
  const words =
    unsafe > 0 ? `Held: ${unsafe} ${unsafe === 1 ? "reason" : "reasons"}` : owed > 0 ? "Released unread" : "Hold out of service";
  return (
    <button
      type="button"
      className={`btn ${unsafe > 0 ? "border-2 border-mark bg-mark text-lg font-bold text-paper" : "btn-stop"}`}
      onClick={() => open("held")}
    >
      {words}
    </button>
  );
}

/** How it stands, by whose word, and who is locked on besides. */
function StandsButton({ state, open }: { state: JobView["machineState"]; open: (panel: PanelId) => void }) {
  const { stands, locks, lapsed, stopped } = state;
  const others = locks.filter(({ who }) => who !== stands?.who).map(({ who }) => who);
  const words = stands
    ? `${capital(STATE_WORDS[stands.state] ?? stands.state)} · ${stands.who}${others.length > 0 ? `, ${others.join(", ")} locked on` : ""}`
    : stopped
      ? `Stopped by ${stopped.who}`
      : lapsed
        ? "Not safe: it was run since"
        : others.length > 0
          ? `Locked on: ${others.join(", ")}`
          : "Not made safe";
  return (
    <button
      type="button"
      onClick={() => open("safe")}
      className={`min-h-11 border-2 px-4 text-lg font-bold ${stands ? "border-good text-good" : "border-mark bg-mark text-paper"}`}
    >
      {words}
    </button>
  );
}

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
