"use client";

import { Activity, AudioWaveform, CircleStop, Droplet, Flame, Thermometer, TrendingDown } from "lucide-react";
import { useEffect, useRef } from "react";
import type { UnitSystem } from "@/core/basics/units";
import type { SymptomId } from "@/core/catalogue";
import { LOOKS, PATCH } from "@/core/physics/turf";
import { turfPixels } from "./scene";

const WIDTH = 240;
const HEIGHT = Math.round((WIDTH * PATCH.lengthMetres) / PATCH.widthMetres);

/** What is felt, heard or smelt has no look on turf: a sign instead. */
const SIGNS: Partial<Record<SymptomId, typeof Activity>> = {
  vibration: Activity,
  "grinding-noise": AudioWaveform,
  "belt-smell-or-squeal": Flame,
  "engine-labours": TrendingDown,
  "hot-hub": Thermometer,
  "blade-stopped": CircleStop,
  "oil-at-drive": Droplet,
};

/** What a picture is measured by, in each system's own round length. */
const BARS: Record<UnitSystem, { label: string; metres: number }> = {
  metric: { label: "1 m", metres: 1 },
  us: { label: "3 ft", metres: 3 * 0.3048 },
};

/** The look of a symptom from above, worked out from heights over a patch of turf, with a bar to measure it by. */
export function TurfPicture({ symptom, system }: { symptom: string; system: UnitSystem }) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const look = LOOKS[symptom as SymptomId];
  useEffect(() => {
    const context = canvas.current?.getContext("2d");
    if (!context || !look) return;
    context.putImageData(new ImageData(turfPixels(look, WIDTH, HEIGHT), WIDTH, HEIGHT), 0, 0);
  }, [look]);
  const Sign = SIGNS[symptom as SymptomId];
  if (!look) {
    return (
      <div className="dye grid aspect-[8/5] w-full place-items-center">
        {Sign && <Sign size={56} strokeWidth={1.6} aria-hidden="true" />}
      </div>
    );
  }
  return (
    <div className="relative">
      <canvas ref={canvas} width={WIDTH} height={HEIGHT} className="block aspect-[8/5] w-full" />
      <span
        className="num absolute bottom-1 left-1 border-b-2 border-l-2 border-r-2 border-white bg-black/55 px-1 text-center text-[11px] leading-none text-white"
        style={{ width: `${(100 * BARS[system].metres) / PATCH.widthMetres}%` }}
        aria-hidden="true"
      >
        {BARS[system].label}
      </span>
    </div>
  );
}
