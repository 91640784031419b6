"use client";

import { plusMinus95 } from "@/core/basics/findings";
import type { ReelSpeedDetail } from "@/core/checks";
import type { RippleCandidate } from "@/core/physics/reel";
import { ClipWindow } from "@/drawings/clip-window";
import type { PictureArgs } from "../face";
import { Framed, Waiting } from "../framed";
import { length, show } from "../shared";

const SOURCE_WORDS: Record<RippleCandidate["source"], string> = {
  clip: "the clip itself",
  "clip-twice": "every second reel blade",
  "reel-turn": "one turn of the reel: a high or bent blade, or its bearing",
  "front-roller": "the front roller: packed or out of round",
  "half-front-roller": "half the front roller",
  "rear-roller": "the rear roller: packed or out of round",
  "half-rear-roller": "half the rear roller",
  tyre: "a tyre's turn",
  "tyre-lug": "a tyre's lugs",
  bounce: "bouncing on the tyres",
  other: "something else",
};

/** Less likely ones are not worth a line. */
const LEAST = 0.02;

export function Picture({ machine, assessment, system }: PictureArgs) {
  const detail = assessment?.detail as ReelSpeedDetail | undefined;
  const { clips = [], metresPerSecond, heightMetres, ripples } = detail ?? {};
  const nameOf = (id: string) => machine.units.find((unit) => unit.id === id)?.label ?? id;
  if (clips.length === 0 || metresPerSecond === undefined || heightMetres === undefined)
    return (
      <Waiting words="A timed run, each reel by tachometer and the height of cut: the clip appears here, between browning and ripples" />
    );
  const limits = {
    least: Math.max(...clips.map(({ slowestMetresPerSecond }) => slowestMetresPerSecond)),
    most: Math.min(...clips.map(({ fastestMetresPerSecond }) => fastestMetresPerSecond)),
  };
  return (
    <div className="flex min-h-0 flex-1 flex-col">
      <Framed>
        <ClipWindow
          metresPerSecond={metresPerSecond}
          heightMetres={heightMetres}
          points={clips.map(({ unit, clipMetres }) => ({ id: unit, label: nameOf(unit), clipMetres }))}
          limits={limits}
          sayLength={(metres) => length(metres, system)}
          saySpeed={(speed) => show(speed, "speed", system, "gauge")}
          label={`Clip against speed. ${clips.map(({ unit, clipMetres }) => `${nameOf(unit)} ${length(clipMetres, system)}`).join("; ")}`}
        />
      </Framed>
      {ripples && (
        <table className="m-2 text-sm text-[var(--chalk)]">
          <caption className="text-left font-bold">
            Ripples every {length(ripples.spacingMetres, system, "gauge")}; as a clip, the reel would turn{" "}
            {Math.round(ripples.turns.revolutionsPerMinute)} ± {Math.round(plusMinus95(ripples.turns.plusMinus))} r/min
          </caption>
          <tbody>
            {ripples.sources
              .filter(({ probability }) => probability >= LEAST)
              .map(({ source, spacing, probability }) => (
                <tr key={source}>
                  <th scope="row" className="text-left font-normal">
                    {SOURCE_WORDS[source]}
                  </th>
                  <td className="num text-right">
                    {typeof spacing === "number"
                      ? length(spacing, system, "gauge")
                      : `${length(spacing.least, system, "gauge")} to ${length(spacing.most, system, "gauge")}`}
                  </td>
                  <td className="num text-right">{Math.round(probability * 100)} %</td>
                </tr>
              ))}
          </tbody>
        </table>
      )}
    </div>
  );
}
