"use client";

import type { UnitSystem } from "@/core/basics/units";
import type { FitDetail, FitReadings } from "@/core/checks";
import { STANDPOINT_LABELS, turnSeenFrom } from "@/core/machine";
import { judgeGrade } from "@/core/physics/blades/fit";
import { BoltHead, HoleDrawing, StackDrawing, WayRound } from "@/drawings/fit-card";
import type { PictureArgs } from "../face";
import { Waiting } from "../framed";
import { show } from "../shared";

export function Picture({ machine, assessment, readings, standpoint, system }: PictureArgs) {
  const sheet = machine.sheet.blade;
  const { part, blades = {} } = readings as Partial<FitReadings>;
  const detail = assessment?.detail as FitDetail | undefined;
  const all = Object.values(blades);
  const looked = all.find(({ sail, leads }) => sail === "to-ground" || leads === "back") ?? all[0];
  const turns = machine.spindles[0]?.turns ?? "clockwise";
  const seen = turnSeenFrom(standpoint, turns);
  const found = all.find(({ bolt }) => bolt !== undefined)?.bolt;
  const wanted = sheet?.bolt?.grade;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="grid min-h-0 flex-1 grid-cols-[1.15fr_1fr] grid-rows-2 gap-1 p-2">
        <WayRound
          turns={seen}
          sailUp={looked?.sail !== "to-ground"}
          leads={looked?.leads ?? "edge"}
          view={STANDPOINT_LABELS[standpoint].toLowerCase()}
        />
        <HoleDrawing
          wanted={sheet?.hole}
          found={part?.hole ? { shape: part.hole, acrossMetres: part.holeMetres ?? sheet?.hole?.acrossMetres ?? 0.02 } : undefined}
        />
        {sheet?.stack ? (
          <StackDrawing stack={sheet.stack} isReversed={all.some(({ stack }) => stack === "washer-reversed")} />
        ) : (
          <Waiting words="The sheet holds no stack: sketch or photograph it before it comes apart" />
        )}
        <div className="flex min-h-0">
          {wanted && <BoltHead grade={wanted} label="the sheet" />}
          {found && wanted && <BoltHead grade={found} label="found" isWrong={judgeGrade(found, wanted) !== "right"} />}
        </div>
      </div>
      {detail && detail.sockets.length > 0 && <Sockets detail={detail} system={system} />}
    </div>
  );
}

/** Sockets about the bolt's head: which go on, and with how much play. */
function Sockets({ detail, system }: { detail: FitDetail; system: UnitSystem }) {
  const named = ({ system: kind, stamped }: FitDetail["sockets"][number]) =>
    kind === "inch" ? `${sixteenths(stamped)} in` : `${stamped} mm`;
  const of = (fit: FitDetail["sockets"][number]["fit"]) => detail.sockets.filter((one) => one.fit === fit);
  const good = of("good").map(named).join(" or ");
  const loose = of("loose").map((one) => `${named(one)} has ${show(one.playMetres, "length", system, "fine")} of play`);
  const small = of("too-small").map(named);
  return (
    <p className="px-3 pb-1.5 text-center text-sm text-[var(--chalk)]">
      Socket: <strong className="text-base">{good || "none fits"}</strong>
      {[...loose, ...(small.length > 0 ? [`${small.join(", ")} does not go on`] : [])].map((words) => `; ${words}`).join("")}
    </p>
  );
}

function sixteenths(count: number): string {
  const divisor = [16, 8, 4, 2, 1].find((one) => count % one === 0 && 16 % one === 0) ?? 1;
  const [top, bottom] = [count / divisor, 16 / divisor];
  const whole = Math.floor(top / bottom);
  const rest = top % bottom;
  return rest === 0 ? String(whole) : `${whole > 0 ? `${whole} ` : ""}${rest}/${bottom}`;
}
