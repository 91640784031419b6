"use client";

import { type ReactNode, useState } from "react";

/** Something that wants its reason said before it is done, in one line. */
export function ReasonForm(args: {
  label: string;
  button: string;
  isBusy: boolean;
  isGrave?: boolean;
  most?: number;
  children?: ReactNode;
  onSend: (reason: string) => unknown;
}) {
  const [reason, setReason] = useState("");
  return (
    <form
      className="flex flex-wrap items-end gap-2 py-1"
      onSubmit={(event) => {
        event.preventDefault();
        args.onSend(reason);
      }}
    >
      {args.children}
      <label className="grow">
        <span className="caps">{args.label}</span>
        <input className="input" value={reason} maxLength={args.most ?? 300} onChange={(event) => setReason(event.target.value)} />
      </label>
      <button type="submit" className={`btn ${args.isGrave ? "btn-stop" : "btn-go"}`} disabled={args.isBusy || reason.trim() === ""}>
        {args.button}
      </button>
    </form>
  );
}
