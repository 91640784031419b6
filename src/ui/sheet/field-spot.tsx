"use client";

import { useEffect, useRef } from "react";

type Args = {
  label: string;
  order: number;
  box: { left: string; top: string };
  text: string;
  isActive: boolean;
  isWrong: boolean;
  onActive: () => void;
  onText: (text: string) => void;
  onStep: (by: 1 | -1) => void;
};

/** A place on the drawing where a reading goes in: the same field as in the table. */
export function FieldSpot(args: Args) {
  return args.isActive ? <SpotInput {...args} /> : <SpotButton {...args} />;
}

/** Whether the next place in hand is to take the keyboard: only where it was the drawing that was typed on. */
const onDrawing = { current: false };

function SpotInput({ label, box, text, isWrong, onText, onStep }: Args) {
  const input = useRef<HTMLInputElement>(null);
  useEffect(() => {
    if (onDrawing.current) input.current?.focus();
  }, []);
  return (
    <input
      ref={input}
      aria-label={`${label}, on the drawing`}
      className={`num pointer-events-auto absolute z-10 h-11 w-24 -translate-x-1/2 -translate-y-1/2 rounded-[3px] border-2 bg-[var(--chalk)] text-center text-lg text-[#141a2b] ${isWrong ? "border-[#bd2a10]" : "border-[#e06a00]"}`}
      style={box}
      value={text}
      autoComplete="off"
      enterKeyHint="next"
      onFocus={() => {
        onDrawing.current = true;
      }}
      onBlur={(event) => {
        if (event.relatedTarget) onDrawing.current = false;
      }}
      onChange={(event) => onText(event.target.value)}
      onKeyDown={(event) => {
        if (event.key !== "Enter" || event.ctrlKey) return;
        event.preventDefault();
        onDrawing.current = true;
        onStep(event.shiftKey ? -1 : 1);
      }}
    />
  );
}

function SpotButton({ label, order, box, text, isWrong, onActive }: Args) {
  const look = isWrong
    ? "border-[var(--out-chalk)] bg-[var(--out-wash)] text-white"
    : text
      ? "border-[var(--chalk)] bg-[var(--chalk)] text-[#141a2b]"
      : "border-dashed border-[var(--chalk)] bg-[var(--dye-deep)] text-[var(--chalk)]";
  return (
    <button
      type="button"
      tabIndex={-1}
      aria-label={`${text || order}: read ${label}`}
      className="num pointer-events-auto absolute grid h-11 min-w-11 -translate-x-1/2 -translate-y-1/2 place-items-center"
      style={box}
      onClick={() => {
        onDrawing.current = true;
        onActive();
      }}
    >
      <span className={`rounded-[3px] border px-1.5 py-0.5 text-base font-semibold ${look}`}>{text || order}</span>
    </button>
  );
}
