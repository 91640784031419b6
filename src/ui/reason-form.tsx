"use client";

import type { ReactNode } from "react";
import { useDraft } from "./draft";

/**
 * Something that wants its reason said before it is done, in one line. `keep`: what it is the reason of; typed and not sent it is there again after a
 * reload. `onSend` answers what came back, or nothing where it was refused: then it stays.
 */
export function ReasonForm(args: {
  keep: string;
  label: string;
  button: string;
  isBusy: boolean;
  isGrave?: boolean;
  most?: number;
  children?: ReactNode;
  onSend: (reason: string) => Promise<unknown>;
}) {
  const { value, set, clear } = useDraft(`reason:${args.keep}`, { reason: "" });
  return (
    <form
      className="flex flex-wrap items-end gap-2 py-1"
      onSubmit={async (event) => {
        event.preventDefault();
        if (await args.onSend(value.reason)) clear();
      }}
    >
      {args.children}
      <label className="grow">
        <span className="caps">{args.label}</span>
        <input
          className="input"
          value={value.reason}
          maxLength={args.most ?? 300}
          onChange={(event) => set({ reason: event.target.value })}
        />
      </label>
      <button type="submit" className={`btn ${args.isGrave ? "btn-stop" : "btn-go"}`} disabled={args.isBusy || value.reason.trim() === ""}>
        {args.button}
      </button>
    </form>
  );
}
