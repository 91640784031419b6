"use client";

import type { ReactNode } from "react";
import { judgeGrade } from "@/core/blades/fit";
import { bladesOf } from "@/core/blades/overlap";
import type {
  Assessment,
  EdgeDetail,
  EdgeReadings,
  FitDetail,
  FitReadings,
  GroundSpeedDetail,
  HeightDetail,
  OverlapDetail,
  PassDetail,
  SpeedDetail,
  TimingDetail,
  TurfDetail,
} from "@/core/checks";
import { tipSpeedCheck } from "@/core/checks";
import { HEIGHT_TOLERANCE, SHARP_EDGE_METRES, STOCK_PER_GRIND_METRES } from "@/core/checks/limits";
import { TEARS_BELOW, TIP_SPEED_LIMIT, WORKING_RANGE } from "@/core/drive/tip-speed";
import { kindById } from "@/core/kinds";
import { type Machine, STANDPOINT_LABELS, type Standpoint, spindlesAcross, turnSeenFrom } from "@/core/machine";
import type { UnitSystem } from "@/core/units";
import { BiteDrawing } from "@/drawings/bite";
import { EdgeDrawing } from "@/drawings/edge";
import { BoltHead, HoleDrawing, StackDrawing, WayRound } from "@/drawings/fit-card";
import { LeafDrawing } from "@/drawings/leaf";
import { PassDrawing } from "@/drawings/passes";
import { SpeedDrawing, type SpeedRow } from "@/drawings/speeds";
import { StubbleDrawing } from "@/drawings/stubble";
import { placeName, show, showTipSpeed } from "../words/checks";
import { BeltPicture } from "./belt-picture";
import { OverlapPicture } from "./overlap-picture";
import { TimingPicture } from "./timing-picture";

export type PictureArgs = {
  machine: Machine;
  readings: unknown;
  assessment: Assessment | undefined;
  standpoint: Standpoint;
  system: UnitSystem;
};

const say =
  (system: UnitSystem, instrument: "tape" | "gauge" | "fine" = "gauge") =>
  (metres: number) =>
    show(metres, "length", system, instrument);

/** What a check draws of its own beneath the plan, or in its place. */
export const PICTURES: Record<string, ((args: PictureArgs) => ReactNode) | undefined> = {
  "blade-overlap": ({ machine, assessment }) => (
    <OverlapPicture blades={(assessment?.detail as OverlapDetail | undefined)?.blades ?? bladesOf(machine)} />
  ),
  "cutting-height": ({ machine, assessment, readings, system }) => {
    const { settingMetres, heightsMetres = [] } = readings as { settingMetres?: number; heightsMetres?: number[] };
    const detail = assessment?.detail as HeightDetail | undefined;
    const { cutsWith } = kindById(machine.kind);
    return (
      <Framed>
        <StubbleDrawing
          heightsMetres={detail?.heightsMetres ?? heightsMetres}
          settingMetres={detail?.settingMetres ?? settingMetres}
          meanMetres={detail?.stubble?.meanMetres}
          plusMinusMetres={detail?.stubble?.plusMinusMetres}
          toleranceMetres={HEIGHT_TOLERANCE[cutsWith].metres}
          say={say(system, cutsWith === "reel" ? "fine" : "gauge")}
        />
      </Framed>
    );
  },
  "turf-condition": ({ assessment, system }) => {
    const detail = assessment?.detail as TurfDetail | undefined;
    if (detail?.beforeMetres === undefined)
      return <Waiting words="Prick the leaf before it is cut: it appears here, with the third it may lose" />;
    return (
      <Framed>
        <LeafDrawing
          beforeMetres={detail.beforeMetres}
          cutMetres={detail.cutMetres}
          firstCutMetres={detail.firstCutMetres}
          say={say(system, "tape")}
        />
      </Framed>
    );
  },
  "belt-inspection": ({ machine, standpoint }) => <BeltPicture machine={machine} standpoint={standpoint} />,
  "tip-speed": (args) => <SpeedPicture {...args} />,
  "ground-speed": ({ assessment, system }) => {
    const bite = (assessment?.detail as GroundSpeedDetail | undefined)?.biteMetres;
    if (bite === undefined) return <Waiting words="Time it over a distance: what each edge takes appears here" />;
    return (
      <Framed>
        <BiteDrawing biteMetres={bite} sharpMetres={SHARP_EDGE_METRES} say={say(system)} />
      </Framed>
    );
  },
  "pass-overlap": ({ assessment, system }) => {
    const detail = assessment?.detail as PassDetail | undefined;
    if (detail?.spacingMetres === undefined)
      return <Waiting words="Measure from join to join over several passes: they appear here, to scale" />;
    return (
      <Framed>
        <PassDrawing widthMetres={detail.widthMetres} spacingMetres={detail.spacingMetres} say={say(system, "tape")} />
      </Framed>
    );
  },
  "blade-timing": ({ machine, assessment }) => <TimingPicture machine={machine} detail={assessment?.detail as TimingDetail | undefined} />,
  "blade-edge": (args) => <EdgePicture {...args} />,
  "blade-fit": (args) => <FitPicture {...args} />,
};

function Framed({ children }: { children: ReactNode }) {
  return <div className="grid min-h-0 flex-1 place-items-center p-2">{children}</div>;
}

function Waiting({ words }: { words: string }) {
  return <p className="grid flex-1 place-items-center p-4 text-center text-[var(--chalk-soft)]">{words}</p>;
}

/** What the sheet alone works out to stands there before anything is read. */
function SpeedPicture({ machine, assessment, system }: PictureArgs) {
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

function EdgePicture({ machine, assessment, readings, system }: PictureArgs) {
  const detail = assessment?.detail as EdgeDetail | undefined;
  const { blades } = readings as Partial<EdgeReadings>;
  const bars = (detail?.blades ?? []).flatMap((worth) => {
    const widthMetres = blades?.[worth.spindleId]?.widthMetres;
    return widthMetres === undefined
      ? []
      : [
          {
            id: worth.spindleId,
            label: placeName(machine, worth.spindleId),
            widthMetres,
            leastMetres: machine.sheet.blade?.leastWidthMetres,
            stockMetres: worth.stockMetres,
            stockPerGrindMetres: STOCK_PER_GRIND_METRES,
            isScrap: worth.scrap.length > 0,
          },
        ];
  });
  if (bars.length === 0) return <Waiting words="Width at the tips: what this sharpening takes, and how many are left, appears here" />;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <div className="grid min-h-0 flex-1 place-items-center px-2">
        <EdgeDrawing bars={bars} say={say(system, "fine")} />
      </div>
      {detail?.cost && (
        <p className="num px-3 pb-2 text-center text-lg text-[var(--chalk)]">
          An hour of edge: sharpened {detail.cost.sharpenedPerHour.toFixed(2)}, replaced {detail.cost.replacedPerHour.toFixed(2)}
        </p>
      )}
    </div>
  );
}

function FitPicture({ machine, assessment, readings, standpoint, system }: PictureArgs) {
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
