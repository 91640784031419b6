"use client";

import { usePost } from "@/ui/use-post";

export function OwedDone({ owedId }: { owedId: number }) {
  const { post, isBusy, trouble } = usePost();
  return (
    <>
      <button type="button" className="btn" disabled={isBusy} onClick={() => post(`/api/v1/owed/${owedId}/done`, {})}>
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
