"use client";

import { checkRow, type Form, worksheetById } from "@/core/checks";
import type { Standpoint } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { faceOf } from "@/ui/checks/faces";
import { useSeat } from "@/ui/person";
import { PlanBoard } from "@/ui/sheet/board";
import { formFor } from "@/ui/sheet/evaluate";
import { Standpoints } from "@/ui/standpoints";

const NO_FORM: Form = { groups: [], fields: [] };

/** While no worksheet is in hand: the machine, with what was read on it last. */
export function MachineView(args: {
  view: JobView;
  standpoint: Standpoint;
  onStandpoint: (standpoint: Standpoint) => void;
  timeOf: (iso: string) => string;
}) {
  const { view, standpoint, timeOf } = args;
  const { system } = useSeat();
  const { machine } = view.machine;
  const take = view.takes.findLast(({ checkId, result }) => result.ruleVersion > 0 && isDrawn(checkId));
  const check = take && worksheetById(take.checkId);
  const form = check ? formFor({ check, machine, input: take.input }) : NO_FORM;
  return (
    <section aria-label="Drawing" className="dye flex min-h-0 flex-col overflow-hidden">
      <Standpoints standpoint={standpoint} onStandpoint={args.onStandpoint} />
      <PlanBoard
        check={take?.checkId ?? ""}
        machine={machine}
        system={system}
        form={form}
        readings={take?.input ?? {}}
        assessment={take?.result}
        standpoint={standpoint}
        isAlone
        plan={take ? "deck" : "machine"}
        group={undefined}
        onGroup={undefined}
      />
      {take && (
        <p className="px-3 pb-1.5 text-center text-sm text-[var(--chalk)]">
          As read last: {checkRow(take.checkId)?.label.toLowerCase()}, {timeOf(take.at)}, {take.who}
        </p>
      )}
    </section>
  );
}

/** Whether a check marks places on the plan. */
const isDrawn = (check: string): boolean => worksheetById(check) !== undefined && faceOf(check).isPlanless !== true;
