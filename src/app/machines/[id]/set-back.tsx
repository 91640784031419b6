"use client";

import { useState } from "react";
import { useSeat } from "@/ui/person";
import { useWriting } from "@/ui/reread";
import { sayError } from "@/ui/words/issues";

/** Says of one place that it is as built again; it goes on the log, from which it can be taken back. */
export function SetBack({ machineId, place }: { machineId: string; place: string | undefined }) {
  const { who } = useSeat();
  const { submit, reread, isBusy } = useWriting();
  const [error, setError] = useState<string>();
  const post = async () => {
    const body = { who: who ?? "", event: "as-built", ...(place ? { place } : {}) };
    const sent = await submit(`/api/v1/machines/${machineId}/events`, body);
    if (!sent) return;
    setError(sent.ok ? undefined : who ? sent.error : "unknown-person");
    if (sent.ok) reread();
  };
  return (
    <>
      <button type="button" className="btn mt-1" disabled={isBusy} onClick={post}>
        Set as built again
      </button>
      {error && (
        <span className="trouble block" role="alert">
          {sayError(error)}
        </span>
      )}
    </>
  );
}
