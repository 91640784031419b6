"use client";

import { useState } from "react";
import { WayOf } from "@/app/jobs/[id]/way";
import { worksheetById } from "@/core/checks";
import type { Standpoint } from "@/core/machine";
import { useSeat } from "@/ui/person";
import { SheetDesk } from "@/ui/sheet/desk";
import { Attach, type ReckonerArgs } from "./reckoner-screen";

/** A worksheet with a form, by itself. */
export function FormReckoner({ row, view, state, change, attach }: ReckonerArgs) {
  const seat = useSeat();
  const [standpoint, setStandpoint] = useState<Standpoint>(seat.standsAt);
  const [sure, setSure] = useState<Record<string, string>>({});
  const check = worksheetById(row.id);
  if (!check) return null;
  const contexts: Partial<Record<string, object>> = view.contexts;
  const typed = { text: state.text, sure };
  return (
    <SheetDesk
      check={check}
      title="What was read"
      machine={view.machine.machine}
      system={seat.system}
      standpoint={standpoint}
      onStandpoint={setStandpoint}
      context={contexts[row.id]}
      typed={typed}
      change={(next) => {
        const after = next(typed);
        setSure(after.sure);
        change((before) => ({ ...before, text: next({ text: before.text, sure }).text }));
      }}
      isOpen
      canEnter
      timeOf={(iso) => iso}
      foot={({ assessment, wrongCount }) => (
        <Attach
          view={view}
          canAttach={assessment !== undefined && wrongCount === 0}
          onAttach={(jobId) => attach(jobId, `job:${jobId}:form:${row.id}`, { ...typed, isOpen: true })}
        />
      )}
    >
      <WayOf checkId={row.id} />
    </SheetDesk>
  );
}
