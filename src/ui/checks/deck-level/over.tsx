"use client";

import { formatTurns } from "@/core/basics/units";
import type { DeckDetail } from "@/core/checks";
import { pointOf, seenFrom } from "@/core/machine";
import type { OverlayArgs } from "../face";
import { showSize } from "../shared";
import { DeckTilt } from "../tilt";
import { surfaceOf } from "./surface";

/** The deck's tilt, how far off each tip is, and what each hanger wants. */
export function Over(args: OverlayArgs) {
  return (
    <>
      <DeckTilt {...args} surface={surfaceOf(args.assessment)} />
      <Tips {...args} />
      <HangerTurns {...args} />
    </>
  );
}

/** A tip further off than this is drawn as off (common practice, 1/16 in); nearer than the other it is simply right. */
const NOTICED_METRES = 0.0016;
const NOT_WORTH_METRES = 0.0008;

/** At each tip read: how far off its target, and what the ruler will read when it is right. */
function Tips({ machine, standpoint, toPage, assessment, system }: OverlayArgs) {
  const { tips = [] } = (assessment?.detail ?? {}) as Partial<DeckDetail>;
  const isCrowded = tips.length > 8;
  return (
    <g fontFamily="var(--font-mono)" fontSize={13} textAnchor="middle">
      {tips.map((tip) => {
        const at = toPage(seenFrom(standpoint, { x: tip.xMetres, y: tip.yMetres }));
        const off = tip.heightMetres - tip.targetMetres;
        const spindle = machine.spindles.find(({ id }) => id === tip.spindleId);
        const centre = spindle ? toPage(seenFrom(standpoint, pointOf(spindle))) : at;
        return (
          <g key={tip.key}>
            <line x1={centre.x} y1={centre.y} x2={at.x} y2={at.y} stroke="var(--chalk)" strokeWidth={3} strokeOpacity={0.8} />
            {!isCrowded && (
              <text
                x={at.x}
                y={at.y + 32}
                fill={Math.abs(off) > NOTICED_METRES ? "var(--out-chalk)" : "var(--good-chalk)"}
                stroke="var(--dye-deep)"
                strokeWidth={4}
                paintOrder="stroke"
                fontWeight={600}
              >
                {Math.abs(off) < NOT_WORTH_METRES ? "right" : `${off > 0 ? "+" : "−"}${showSize(off, system).replace(/ (in|mm)$/, "")}`}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** Every hanger; how many turns, and up or down, beside one that is to be turned. */
function HangerTurns({ machine, standpoint, toPage, assessment, system }: OverlayArgs) {
  const turns = (assessment?.detail as DeckDetail | undefined)?.plan?.hangers ?? [];
  return (
    <g fontFamily="var(--font-sans)" textAnchor="middle">
      {(machine.deck?.hangers ?? []).map((hanger) => {
        const at = toPage(seenFrom(standpoint, pointOf(hanger)));
        const turn = turns.find(({ id }) => id === hanger.id);
        const isMoved = turn !== undefined && turn.turns !== 0;
        return (
          <g key={hanger.id} transform={`translate(${at.x} ${at.y})`}>
            <path
              d="M-6 -6h12v12h-12z"
              fill={isMoved ? "var(--out-chalk)" : "var(--dye-deep)"}
              stroke="var(--chalk)"
              strokeWidth={1.6}
              transform="rotate(45)"
            />
            {isMoved && (
              <text
                y={-14}
                fontSize={20}
                fontWeight={700}
                fill="var(--out-chalk)"
                stroke="var(--dye-deep)"
                strokeWidth={4}
                paintOrder="stroke"
              >
                {turn.turns > 0 ? "↑" : "↓"}
                {hanger.liftPerTurnMetres === undefined ? showSize(turn.liftMetres, system) : formatTurns(turn.turns)}
              </text>
            )}
          </g>
        );
      })}
    </g>
  );
}
