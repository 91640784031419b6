"use client";

import { useMemo } from "react";
import type { Assessment, Form } from "@/core/checks";
import type { Verdict } from "@/core/findings";
import { type Machine, STANDPOINT_LABELS, type Standpoint, seenFrom } from "@/core/machine";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";
import { VerdictMark } from "../verdict";
import { sayState } from "../words/sheets";

const WIDTH = 620;
const HEIGHT = 330;

/** The machine's deck to scale with a spot for each group that has a place; touch one to read there. */
export function PlanBoard(args: {
  machine: Machine;
  form: Form;
  assessment: Assessment | undefined;
  standpoint: Standpoint;
  group: string | undefined;
  onGroup: ((group: string) => void) | undefined;
}) {
  const { machine, form, assessment, standpoint } = args;
  const scene = useMemo(() => planScene(machine, standpoint), [machine, standpoint]);
  const fit = useMemo(() => fitInto({ bounds: scene.deckBounds, width: WIDTH, height: HEIGHT, margin: 34 }), [scene]);
  const placed = form.groups.filter(({ at }) => at !== undefined);
  return (
    <div className="grid min-h-0 flex-1 place-items-center [container-type:size] max-lg:aspect-[620/330] max-lg:flex-none">
      <div className="relative" style={{ width: `min(100cqw, 100cqh * ${WIDTH / HEIGHT})`, aspectRatio: `${WIDTH} / ${HEIGHT}` }}>
        <svg
          viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
          className="h-full w-full"
          role="img"
          aria-label={`${STANDPOINT_LABELS[standpoint]}: the deck to scale, with the places to look at.`}
        >
          <MachinePlan scene={scene} fit={fit} />
        </svg>
        {placed.map(({ id, label, at }, order) => {
          const { x, y } = fit.toPage(seenFrom(standpoint, at ?? { x: 0, y: 0 }));
          const marks = (assessment?.marks ?? []).filter(({ place }) => place === id);
          return (
            <Spot
              key={id}
              label={label}
              order={order + 1}
              verdict={marks[0]?.verdict}
              code={marks[0]?.code}
              isHere={id === args.group}
              left={x / WIDTH}
              top={y / HEIGHT}
              onOpen={args.onGroup && (() => args.onGroup?.(id))}
            />
          );
        })}
      </div>
    </div>
  );
}

const INK: Record<Verdict, string> = {
  "in-tolerance": "border-[var(--good-chalk)]",
  watch: "border-[var(--chalk)]",
  out: "border-[var(--out-chalk)]",
  stop: "border-[var(--out-chalk)]",
  "not-enough-readings": "border-dashed border-[var(--chalk)]",
};

function Spot(args: {
  label: string;
  order: number;
  verdict: Verdict | undefined;
  code: string | undefined;
  isHere: boolean;
  left: number;
  top: number;
  onOpen: (() => void) | undefined;
}) {
  const { label, order, verdict, code, isHere } = args;
  const said = verdict && code ? sayState(code) : "";
  const body = (
    <span
      className={`num flex items-center gap-1.5 rounded-[3px] border-2 px-1.5 py-0.5 text-sm font-semibold whitespace-nowrap ${verdict ? INK[verdict] : "border-dashed border-[var(--chalk)]"} ${isHere ? "bg-[var(--chalk)] text-[#141a2b]" : "bg-[var(--dye-deep)] text-[var(--chalk)]"}`}
    >
      {verdict ? (
        <VerdictMark
          verdict={verdict}
          size={14}
          ink={isHere ? "#141a2b" : verdict === "out" || verdict === "stop" ? "var(--out-chalk)" : "var(--chalk)"}
        />
      ) : (
        order
      )}
      {said}
    </span>
  );
  const place = { left: `${args.left * 100}%`, top: `${args.top * 100}%` };
  const shape = "absolute grid min-h-11 min-w-11 -translate-x-1/2 -translate-y-1/2 place-items-center";
  return args.onOpen ? (
    <button
      type="button"
      tabIndex={-1}
      className={shape}
      style={place}
      aria-label={said ? `${label}: ${said}` : verdict ? label : `${order}. ${label}`}
      onClick={args.onOpen}
    >
      {body}
    </button>
  ) : (
    <span className={shape} style={place}>
      <span className="sr-only">{label}</span>
      {body}
    </span>
  );
}
