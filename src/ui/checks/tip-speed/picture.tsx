"use client";

import { type SpeedDetail, tipSpeedCheck } from "@/core/checks";
import { spindlesAcross } from "@/core/machine";
import { TEARS_BELOW, TIP_SPEED_LIMIT, WORKING_RANGE } from "@/core/physics/drive/tip-speed";
import { SpeedDrawing, type SpeedRow } from "@/drawings/speeds";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { showTipSpeed } from "../shared";

/** What the sheet alone works out to stands there before anything is read. */
export function Picture({ machine, assessment, system }: PictureArgs) {
  const known = (assessment?.detail as SpeedDetail | undefined)?.known ?? tipSpeedCheck.assess(machine, NO_SPEEDS).detail.known ?? [];
  const rows = spindlesAcross(machine).map(({ id, label }): SpeedRow => {
    const own = known.find(({ spindleId }) => spindleId === id);
    const marks = [
      { kind: "paper", speed: own?.paper },
      { kind: "no-load", speed: own?.noLoad },
      { kind: "loaded", speed: own?.loaded },
      { kind: "low-charge", speed: own?.lowCharge },
    ] as const;
    return {
      id,
      label,
      marks: marks.flatMap(({ kind, speed }) => (speed ? [{ kind, metresPerSecond: speed.metresPerSecond }] : [])),
    };
  });
  const say = (speed: number) => showTipSpeed(speed, system);
  const said = rows.flatMap(({ label, marks }) => marks.map(({ kind, metresPerSecond }) => `${label}, ${kind}: ${say(metresPerSecond)}`));
  if (said.length === 0)
    return <Waiting words="Pulleys on paper, or every spindle by tachometer, covers on, from outside: tip speeds appear here" />;
  const zones = { tears: TEARS_BELOW, ...WORKING_RANGE, limit: TIP_SPEED_LIMIT };
  return (
    <Framed>
      <SpeedDrawing rows={rows} zones={zones} say={say} label={`Tip speeds. ${said.join("; ")}`} />
    </Framed>
  );
}

const NO_SPEEDS = { spindles: {}, paper: {}, charge: {} };
