"use client";

import { Pause, Play } from "lucide-react";
import { useEffect, useMemo, useState } from "react";
import { asFitted, type TimingDetail, timedPair } from "@/core/checks";
import { LEAST_TIMED_GAP_METRES } from "@/core/checks/limits";
import { type Machine, pointOf, spindlesAcross } from "@/core/machine";
import { gapAt } from "@/core/physics/blades/timing";
import type { PairStudied, PairStudy } from "@/core/physics/blades/timing-study";
import { TimingDrawing, type TurnedBlade } from "@/drawings/timing";
import { GapOverTurn, PhaseBar } from "@/drawings/timing/profile";
import { studyInWorker } from "@/workers/timing/client";
import { useSeat } from "../../person";
import { placeIn, show } from "../shared";

const DEGREE = Math.PI / 180;
/** Geared blades stand square to each other unless they were measured. */
const SQUARE_DEGREES = 90;
/** As fast as an eye follows: six turns a minute. */
const DEGREES_A_MILLISECOND = (6 * 360) / 60_000;

type Pair = PairStudied & { isMeasured: boolean };

/** Neighbours as they were measured, square to each other where they were not. */
function pairsOf(machine: Machine, detail: TimingDetail | undefined): Pair[] {
  const across = spindlesAcross(machine);
  const teeth = machine.sheet.gearboxes?.find(({ splineTeeth }) => splineTeeth !== undefined)?.splineTeeth;
  return across.slice(1).flatMap((other, k): Pair[] => {
    const one = across[k];
    if (!one) return [];
    const id = `${one.id}:${other.id}`;
    const read = detail?.pairs.find((pair) => pair.id === id);
    return [
      {
        id,
        pair: timedPair(machine, { one, other }),
        phaseDegrees: read?.phaseDegrees ?? SQUARE_DEGREES,
        lashDegrees: read?.lashDegrees ?? 0,
        wantedMetres: LEAST_TIMED_GAP_METRES,
        isMeasured: read?.phaseDegrees !== undefined,
        ...(teeth === undefined ? {} : { teeth }),
      },
    ];
  });
}

/** What hangs on the phase, reckoned off the page whenever a size or a phase changes. */
function useStudies(pairs: readonly Pair[]): PairStudy[] {
  const [studies, setStudies] = useState<PairStudy[]>([]);
  const key = JSON.stringify(pairs);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key stands for the pairs
  useEffect(() => {
    let isWanted = true;
    studyInWorker(pairs.map(({ isMeasured: _, ...pair }) => pair)).then((found) => {
      if (isWanted) setStudies(found);
    });
    return () => {
      isWanted = false;
    };
  }, [key]);
  return studies;
}

/** Turned by itself while it runs, from frame to frame. */
function useCrank() {
  const [crank, setCrank] = useState(0);
  const [isTurning, setTurning] = useState(false);
  useEffect(() => {
    if (!isTurning) return;
    let last: number | undefined;
    let frame = 0;
    const turn = (now: number) => {
      const by = last === undefined ? 0 : (now - last) * DEGREES_A_MILLISECOND;
      last = now;
      setCrank((at) => (at + by) % 360);
      frame = requestAnimationFrame(turn);
    };
    frame = requestAnimationFrame(turn);
    return () => cancelAnimationFrame(frame);
  }, [isTurning]);
  return { crank, setCrank, isTurning, setTurning };
}

/** The geared blades under a hand crank: what lies between neighbours now, over a full turn, and what a tooth of the spline does to it. */
export function TimingPicture({ machine: sheetMachine, detail }: { machine: Machine; detail: TimingDetail | undefined }) {
  const { system } = useSeat();
  const machine = useMemo(() => asFitted(sheetMachine, detail?.fitted), [sheetMachine, detail]);
  const { crank, setCrank, isTurning, setTurning } = useCrank();
  const [looked, setLooked] = useState<string>();
  const pairs = useMemo(() => pairsOf(machine, detail), [machine, detail]);
  const studies = useStudies(pairs);
  const across = spindlesAcross(machine);
  const angles = anglesOf(machine, pairs, crank * DEGREE);
  const blades: TurnedBlade[] = across.map((spindle, k) => {
    const pair = timedPair(machine, { one: spindle, other: across[k === 0 ? 1 : k - 1] ?? spindle });
    return { id: spindle.id, centre: pointOf(spindle), ...pair.one, angle: angles[k] ?? 0 };
  });
  const gaps = pairs.map(({ id, pair }, k) => ({ id, gapMetres: gapAt(pair, ...phaseAndAngle(machine, angles, k, pair.sense)) }));
  const least = [...gaps].sort((p, q) => p.gapMetres - q.gapMetres)[0];
  const struck = gaps.filter(({ gapMetres }) => gapMetres < 0).flatMap(({ id }) => id.split(":"));
  const say = (metres: number) => show(metres, "length", system, "fine");
  const said = least === undefined ? "" : least.gapMetres < 0 ? "they strike here" : `${say(least.gapMetres)} between the nearest two`;
  const worst = [...studies].sort((a, b) => a.worstWithinLashMetres - b.worstWithinLashMetres)[0];
  const shown = studies.find(({ id }) => id === looked) ?? worst;
  const pair = pairs.find(({ id }) => id === shown?.id);
  // The first blade of a pair stands by its line of centres where the crank has turned it to.
  const own = pair ? (phaseAndAngle(machine, angles, pairs.indexOf(pair), pair.pair.sense)[1] / DEGREE + 720) % 360 : 0;
  // Where the blades turn opposite to each other, so does what the crank does to every other one.
  const way = pair && across[pairs.indexOf(pair)]?.turns === across[0]?.turns ? 1 : -1;
  const toClosest = shown ? (((crank + way * (shown.closest.atDegrees - own)) % 360) + 360) % 360 : 0;
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <p className="px-3 pt-2 text-lg font-bold" aria-live={isTurning ? "off" : "polite"}>
        Crank at {Math.round(crank)}°: {said}
      </p>
      <div className="grid min-h-0 flex-1 place-items-center">
        <TimingDrawing blades={blades} struck={struck} label={`Geared blades, crank at ${Math.round(crank)}°: ${said}`} />
      </div>
      {shown && pair && (
        <div className="px-3 text-sm text-[var(--chalk)]">
          {studies.length > 1 && (
            <div className="flex flex-wrap gap-1">
              {studies.map(({ id }) => (
                <button
                  key={id}
                  type="button"
                  className={`btn text-sm ${id === shown.id ? "btn-on" : ""}`}
                  aria-pressed={id === shown.id}
                  onClick={() => setLooked(id)}
                >
                  {placeIn({}, machine, id)}
                </button>
              ))}
            </div>
          )}
          <p className="leading-snug">
            {pair.isMeasured ? `As measured, ${Math.round(pair.phaseDegrees)}°` : "Taken as square to each other"}:{" "}
            <strong>{shown.worstWithinLashMetres < 0 ? "they strike" : `${say(shown.worstWithinLashMetres)} at their closest`}</strong>
            {pair.lashDegrees > 0 ? " within the gears' play" : ""}.{" "}
            {shown.clearDegrees.length === 0
              ? "No phase keeps them clear."
              : `Clear ${shown.clearDegrees.map(([from, to]) => `${Math.ceil(from)} to ${Math.floor(to)}°`).join(", ")}.`}{" "}
            {shown.oneTooth &&
              `One tooth is ${shown.oneTooth.degrees.toFixed(1)}°: ${sayTeeth(
                shown.oneTooth.gaps.map(({ gapMetres }) => gapMetres),
                shown.worstWithinLashMetres >= pair.wantedMetres,
                say,
              )}.`}
          </p>
          <GapOverTurn
            profileMetres={shown.profileMetres}
            wantedMetres={pair.wantedMetres}
            closest={shown.closest}
            crankDegrees={own}
            say={say}
            label={`Gap over a full turn: ${say(shown.closest.gapMetres)} at ${Math.round(shown.closest.atDegrees)}°`}
          />
          <PhaseBar
            clearDegrees={shown.clearDegrees}
            phaseDegrees={pair.phaseDegrees}
            lashDegrees={pair.lashDegrees}
            teeth={(shown.oneTooth?.gaps ?? []).map(({ phaseDegrees, gapMetres }) => ({
              phaseDegrees,
              isClear: gapMetres >= pair.wantedMetres,
            }))}
            label={`Phases from 0 to 180°, where they are clear, and ${Math.round(pair.phaseDegrees)}° where they stand`}
          />
        </div>
      )}
      <div className="flex items-center gap-3 px-3 pb-2">
        <button
          type="button"
          className="btn px-3"
          onClick={() => setTurning(!isTurning)}
          aria-label={isTurning ? "Stop turning" : "Turn slowly"}
        >
          {isTurning ? <Pause size={20} aria-hidden="true" /> : <Play size={20} aria-hidden="true" />}
        </button>
        <label className="grow text-sm text-[var(--chalk)]">
          <strong>Crank</strong>
          <input
            type="range"
            className="h-11 w-full accent-[var(--chalk)]"
            min={0}
            max={360}
            step={0.5}
            value={crank}
            aria-label="Crank"
            aria-valuetext={said}
            onChange={(event) => {
              setTurning(false);
              setCrank(Number(event.target.value));
            }}
          />
        </label>
        {shown && (
          <button
            type="button"
            className="btn"
            onClick={() => {
              setTurning(false);
              setCrank(toClosest);
            }}
          >
            To the closest
          </button>
        )}
      </div>
    </div>
  );
}

/** In time: what one tooth out would leave at the worst. Out of time: what one the right way would bring. */
function sayTeeth(gaps: readonly number[], isInTime: boolean, say: (metres: number) => string): string {
  const [least, most] = [Math.min(...gaps), Math.max(...gaps)];
  if (isInTime) return least < 0 ? "refitted one out, they strike" : `refitted one out, ${say(least)} is left`;
  return most < 0 ? "one either way they still strike" : `one the right way, ${say(most)} is left`;
}

/** A pair's phase, and its first blade's angle from the line of centres, radians. */
function phaseAndAngle(machine: Machine, angles: readonly number[], k: number, sense: "same" | "opposite"): [number, number] {
  const across = spindlesAcross(machine);
  const [one, other] = [across[k], across[k + 1]];
  const line = one && other ? Math.atan2(other.yMetres - one.yMetres, other.xMetres - one.xMetres) : 0;
  const [a, b] = [(angles[k] ?? 0) - line, (angles[k + 1] ?? 0) - line];
  return [sense === "same" ? b - a : a + b, a];
}

/** Every blade's angle from the x axis, the first at the crank's, each next one by its phase to its neighbour. */
function anglesOf(machine: Machine, pairs: readonly { phaseDegrees: number }[], crank: number): number[] {
  const across = spindlesAcross(machine);
  const angles = [crank];
  for (const [k, spindle] of across.entries()) {
    const before = across[k - 1];
    if (!before) continue;
    const line = Math.atan2(spindle.yMetres - before.yMetres, spindle.xMetres - before.xMetres);
    const own = (angles[k - 1] ?? 0) - line;
    const phase = (pairs[k - 1]?.phaseDegrees ?? SQUARE_DEGREES) * DEGREE;
    angles.push((before.turns === spindle.turns ? own + phase : phase - own) + line);
  }
  return angles;
}
