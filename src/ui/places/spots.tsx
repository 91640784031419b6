"use client";

import { useEffect, useRef } from "react";
import type { DeckDetail, TyreDetail } from "@/core/checks";
import type { Point } from "@/core/geometry";
import { pointOf, seenFrom } from "@/core/machine";
import { useSeat } from "@/ui/person";
import { show } from "@/ui/words/checks";
import type { DrawingArgs } from "./drawing-panel";

/** The places themselves: touch one and type there; it is the same field as in the table. */
export function Spots(args: DrawingArgs & { toShare: (p: Point) => { left: number; top: number } }) {
  const { worksheet, active, standpoint, canEnter } = args;
  const { system } = useSeat();
  const input = useRef<HTMLInputElement>(null);
  const wantsFocus = useRef(false);
  useEffect(() => {
    if (active !== undefined && wantsFocus.current) input.current?.focus();
  }, [active]);
  if (!canEnter) return <TakenSpots {...args} system={system} />;
  return (
    <>
      {worksheet.places.map((place, order) => {
        const { left, top } = args.toShare(seenFrom(standpoint, place.at));
        const text = worksheet.draft.text[place.key] ?? "";
        const entry = worksheet.entries[place.key];
        const isWrong = entry?.kind === "refused" || entry?.kind === "unread" || worksheet.troubles.byPlace[place.key] !== undefined;
        const box = { left: `${left * 100}%`, top: `${top * 100}%` };
        if (place.key === active) {
          return (
            <input
              key={place.key}
              ref={input}
              aria-label={`${place.label}, on the drawing`}
              className={`num pointer-events-auto absolute z-10 h-11 w-24 -translate-x-1/2 -translate-y-1/2 rounded-[3px] border-2 bg-[var(--chalk)] text-center text-lg text-[#141a2b] ${isWrong ? "border-[#bd2a10]" : "border-[#e06a00]"}`}
              style={box}
              value={text}
              autoComplete="off"
              enterKeyHint="next"
              onFocus={() => {
                wantsFocus.current = true;
              }}
              onBlur={(event) => {
                if (event.relatedTarget) wantsFocus.current = false;
              }}
              onChange={(event) => worksheet.change((draft) => ({ ...draft, text: { ...draft.text, [place.key]: event.target.value } }))}
              onKeyDown={(event) => {
                if (event.key !== "Enter" || event.ctrlKey) return;
                event.preventDefault();
                wantsFocus.current = true;
                args.onStep(event.shiftKey ? -1 : 1);
              }}
            />
          );
        }
        return (
          <button
            key={place.key}
            type="button"
            tabIndex={-1}
            aria-label={`${text || order + 1}: read ${place.label}`}
            className={`num pointer-events-auto absolute grid h-11 min-w-11 -translate-x-1/2 -translate-y-1/2 place-items-center`}
            style={box}
            onClick={() => {
              wantsFocus.current = true;
              args.onActive(place.key);
            }}
          >
            <span
              className={`rounded-[3px] border px-1.5 py-0.5 text-base font-semibold ${isWrong ? "border-[var(--out-chalk)] bg-[var(--out-wash)] text-white" : text ? "border-[var(--chalk)] bg-[var(--chalk)] text-[#141a2b]" : "border-dashed border-[var(--chalk)] bg-[var(--dye-deep)] text-[var(--chalk)]"}`}
            >
              {text || order + 1}
            </span>
          </button>
        );
      })}
      <p className="sr-only" aria-live="polite">
        {active ? worksheet.places.find(({ key }) => key === active)?.label : ""}
      </p>
    </>
  );
}

/** The readings of a take that stands, shown where they were taken. */
function TakenSpots(args: DrawingArgs & { toShare: (p: Point) => { left: number; top: number }; system: "us" | "metric" }) {
  const { assessment, machine, standpoint, system } = args;
  if (!assessment || args.worksheet.checkId !== assessment.check) return null;
  const spots =
    assessment.check === "deck-level"
      ? (assessment.detail as DeckDetail).tips.map((tip) => ({
          key: tip.key,
          at: { x: tip.xMetres, y: tip.yMetres },
          text: show(tip.readMetres, "length", system).replace(/ (in|mm)$/, ""),
        }))
      : (assessment.detail as TyreDetail).wheels?.map(({ wheelId, coldPressurePascals }) => {
          const wheel = machine.wheels.find(({ id }) => id === wheelId);
          return {
            key: wheelId,
            at: wheel ? pointOf(wheel) : { x: 0, y: 0 },
            text: show(coldPressurePascals, "pressure", system, "gauge").replace(/ (psi|kPa)$/, ""),
          };
        });
  return (
    <>
      {(spots ?? []).map(({ key, at, text }) => {
        const { left, top } = args.toShare(seenFrom(standpoint, at));
        return (
          <span
            key={key}
            className="num absolute -translate-x-1/2 -translate-y-1/2 rounded-[3px] bg-[var(--chalk)] px-1.5 text-sm font-semibold text-[#141a2b]"
            style={{ left: `${left * 100}%`, top: `${top * 100}%` }}
          >
            {text}
          </span>
        );
      })}
    </>
  );
}
