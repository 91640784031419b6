"use client";

import { usePost } from "@/ui/use-post";

/** Says of one place that it is as built again; it goes on the log, from which it can be taken back. */
export function SetBack({ machineId, place }: { machineId: string; place: string | undefined }) {
  const { post, isBusy, trouble } = usePost();
  const setBack = () => post(`/api/v1/machines/${machineId}/events`, { event: "as-built", ...(place ? { place } : {}) });
  return (
    <>
      <button type="button" className="btn mt-1" disabled={isBusy} onClick={setBack}>
        Set as built again
      </button>
      {trouble && (
        <span className="trouble block" role="alert">
          {trouble}
        </span>
      )}
    </>
  );
}
