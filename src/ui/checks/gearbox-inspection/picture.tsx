"use client";

import type { GearboxReadings } from "@/core/checks";
import { gearboxes } from "@/core/machine";
import { GearboxDrawing } from "@/drawings/gearbox";
import { type BoxPart, gearboxScene } from "@/drawings/gearbox/scene";
import type { PictureArgs } from "../face";
import { Framed } from "../framed";
import { length, stateIn } from "../shared";
import { states } from "./states";

const SAID = ["teeth", "pin", "bearings", "seal"] as const satisfies readonly BoxPart[];

/** The part with what it is; words that say the part already stand by themselves. */
const named = (part: BoxPart, words: string): string => (SAYS_PART.test(words) ? words : `${part} ${words}`);
const SAYS_PART = /^(teeth|tooth|pin|bearing|seal|shaft)/;

/** Every box of the deck cut open, with what was found in it. */
export function Picture({ machine, readings, assessment, system }: PictureArgs) {
  const { boxes = {} } = readings as Partial<GearboxReadings>;
  const isOff = (place: string, code: string) =>
    assessment?.findings.some((one) => one.place === place && one.code === code && one.verdict !== "in-tolerance") === true;
  const read = gearboxes(machine).map(({ id, label, coverToOilMetres }) => {
    const own = boxes[id];
    const oil = own?.depthMetres;
    return {
      id,
      label,
      wantedMetres: coverToOilMetres,
      readMetres: oil,
      parts: [
        ...SAID.flatMap((part) => {
          const code = own?.[part];
          return code === undefined ? [] : [{ part, words: named(part, stateIn({ states }, code)), isOff: isOff(id, code) }];
        }),
        ...(oil === undefined
          ? []
          : [{ part: "oil" as const, words: length(oil, system, "gauge"), isOff: isOff(id, "oil-low") || isOff(id, "oil-high") }]),
      ],
    };
  });
  const said = read.flatMap(({ label, parts }) => parts.map(({ part, words }) => `${label}, ${part}: ${words}`));
  return (
    <Framed>
      <GearboxDrawing boxes={gearboxScene(read)} label={said.length > 0 ? said.join("; ") : "Gearboxes cut open: nothing looked at yet"} />
    </Framed>
  );
}
