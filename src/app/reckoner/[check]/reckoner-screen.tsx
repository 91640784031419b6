"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useEffect, useState } from "react";
import type { CheckRow } from "@/core/catalogue";
import type { ReckonerView } from "@/data/checks/reckoner";
import { isLike, useKeeping } from "@/ui/draft";
import { SeatProvider, useSeat } from "@/ui/person";
import { queryOf, type ReckonerState } from "../state";
import type { ReckonerArgs, Typed } from "./attach";

const FormReckoner = dynamic(() => import("./form-reckoner").then((module) => module.FormReckoner));

const EMPTY: Typed = { text: {}, sure: {} };

/** What stands in the job's form already, where it is a form's. */
const typedThere = (kept: unknown): Partial<Typed> | undefined => (isLike(kept, EMPTY) ? (kept as Typed) : undefined);

/** A worksheet without a job: what is typed stands in the address, so that it can be sent to someone as it is. */
export function ReckonerScreen(args: {
  row: CheckRow;
  view: ReckonerView;
  machines: readonly { id: string; fleetNumber: string; name: string }[];
  initial: ReckonerState;
}) {
  const { row, view, machines } = args;
  const seat = useSeat();
  const router = useRouter();
  const keeping = useKeeping();
  const [state, setState] = useState<ReckonerState>(() => ({
    ...args.initial,
    machineId: view.machine.id,
    system: args.initial.system ?? seat.system,
  }));
  useEffect(() => {
    window.history.replaceState(null, "", `/reckoner/${row.id}?${queryOf(state)}`);
  }, [row.id, state]);
  const attach = <D extends Typed>(jobId: number, key: string, draft: D) => {
    const job = view.jobs.find(({ id }) => id === jobId);
    const there = typedThere(keeping.kept(key));
    keeping.keep(
      key,
      { ...there, ...draft, text: { ...there?.text, ...draft.text }, sure: { ...there?.sure, ...draft.sure } },
      seat.system,
    );
    keeping.keep(`job:${jobId}:panel`, { panel: `check:${row.id}`, atStep: job?.lastStepId ?? 0 }, seat.system);
    router.push(`/jobs/${jobId}`);
  };
  const sheet: ReckonerArgs = { row, view, state, change: setState, homeSystem: seat.system, attach };
  return (
    <SeatProvider seat={{ ...seat, system: state.system ?? seat.system }}>
      <main className="grid grid-cols-1 lg:h-[calc(100dvh-3.25rem-var(--notes,0px))] lg:grid-cols-[minmax(0,1fr)_27rem] lg:grid-rows-[auto_minmax(0,1fr)]">
        <div className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-rule px-3 py-2 lg:col-span-2">
          <h1 className="text-2xl leading-none">{row.label}</h1>
          <label className="flex items-center gap-2">
            <span className="caps">Machine</span>
            <select
              className="input"
              value={view.machine.id}
              onChange={(event) => router.push(`/reckoner/${row.id}?machine=${event.target.value}`)}
            >
              {machines.map(({ id, fleetNumber, name }) => (
                <option key={id} value={id}>
                  {fleetNumber} · {name}
                </option>
              ))}
            </select>
          </label>
          <span className="text-sm text-soft">
            {state.system === seat.system ? "" : `Read in ${state.system === "us" ? "inches" : "millimetres"}, as it was sent. `}
            The address holds what is typed.
          </span>
          <div className="ml-auto flex items-center gap-2">
            <CopyLink />
            <Link className="btn" href={`/reckoner?machine=${view.machine.id}`}>
              Other worksheets
            </Link>
          </div>
        </div>
        <FormReckoner {...sheet} />
      </main>
    </SeatProvider>
  );
}

function CopyLink() {
  const [said, setSaid] = useState("");
  const copy = async () => {
    try {
      await navigator.clipboard.writeText(window.location.href);
      setSaid("Copied");
    } catch {
      setSaid("Copy it from the address bar");
    }
  };
  return (
    <button type="button" className="btn" onClick={copy}>
      <span aria-live="polite">{said || "Copy the link"}</span>
    </button>
  );
}
