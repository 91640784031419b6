"use client";

import { usePost } from "@/ui/use-post";

/** The address a calendar programme fetches what is due by; another key makes the old address worthless. */
export function CalendarAddress({ address }: { address: string }) {
  const { post, isBusy, trouble } = usePost();
  return (
    <details className="py-2 text-sm">
      <summary className="min-h-11 cursor-pointer py-2">A calendar programme keeps up by itself</summary>
      <p>
        Give it this address: <span className="num break-all select-all">{address}</span>
      </p>
      <p className="text-soft">Whoever has the address reads what is due. Given to the wrong one? Another key makes it worthless.</p>
      <button type="button" className="btn" disabled={isBusy} onClick={() => post("/api/v1/due/calendar/key", {})}>
        Give it another key
      </button>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </details>
  );
}
