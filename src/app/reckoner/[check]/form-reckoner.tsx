"use client";

import { useState } from "react";
import { worksheetById } from "@/core/checks";
import type { Standpoint } from "@/core/machine";
import { useSeat } from "@/ui/person";
import { SheetDesk } from "@/ui/sheet/desk";
import { formKey } from "@/ui/sheet/draft-key";
import { typedAgain } from "@/ui/sheet/evaluate";
import { WayOf } from "@/ui/way";
import { Attach, type ReckonerArgs } from "./attach";

/** A worksheet with a form, by itself. */
export function FormReckoner({ row, view, state, change, homeSystem, attach }: ReckonerArgs) {
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
      lastTime={view.lastKept[row.id as keyof typeof view.lastKept]}
      timeOf={(iso) => iso}
      foot={({ assessment, wrongCount, readings }) => (
        <Attach
          view={view}
          canAttach={assessment !== undefined && wrongCount === 0}
          onAttach={(jobId) => {
            const own =
              homeSystem === seat.system
                ? typed
                : typedAgain({ check, machine: view.machine.machine, input: readings, system: homeSystem });
            attach(jobId, formKey(jobId, row.id), { ...own, isOpen: true });
          }}
        />
      )}
    >
      <WayOf checkId={row.id} />
    </SheetDesk>
  );
}
