"use client";

import { useState } from "react";
import { useSeat } from "@/ui/person";
import { useWriting } from "@/ui/reread";
import { sayError } from "@/ui/words/issues";

export function OwedDone({ owedId }: { owedId: number }) {
  const { who } = useSeat();
  const { submit, reread, isBusy } = useWriting();
  const [trouble, setTrouble] = useState("");
  const done = async () => {
    const sent = await submit(`/api/v1/owed/${owedId}/done`, { who: who ?? "" });
    if (sent?.ok) reread();
    else if (sent) setTrouble(sayError(who ? sent.error : "unknown-person"));
  };
  return (
    <>
      <button type="button" className="btn" disabled={isBusy} onClick={done}>
        Done
      </button>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </>
  );
}
