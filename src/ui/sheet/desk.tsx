"use client";

import { type ReactNode, Suspense, useEffect, useMemo, useRef, useState } from "react";
import type { UnitSystem } from "@/core/basics/units";
import { type Assessment, type Check, type Form, keyOf } from "@/core/checks";
import type { StaleReason } from "@/core/job/staleness";
import type { Machine, Standpoint } from "@/core/machine";
import { AnswerActions, AnswerDetails, AnswerHead } from "../answer";
import { faceOf } from "../checks/faces";
import { isWrong } from "../entry";
import { Standpoints } from "../standpoints";
import { PlanBoard } from "./board";
import { type Evaluated, evaluate, formFor, type Typed } from "./evaluate";
import { goOn, SheetFields } from "./fields";

type Args = {
  check: Check;
  title: string;
  machine: Machine;
  system: UnitSystem;
  standpoint: Standpoint;
  onStandpoint: (one: Standpoint) => void;
  context?: object | undefined;
  typed: Typed;
  change: (change: (before: Typed) => Typed) => void;
  /** A take that stands, shown while nothing is entered. */
  taken?: { assessment: Assessment; input: unknown; stale: readonly StaleReason[] } | undefined;
  /** Whether fields stand open. */
  isOpen: boolean;
  canEnter: boolean;
  timeOf: (iso: string) => string;
  /** Above the fields: why, how, cautions. */
  children?: ReactNode;
  /** In place of the fields while nothing may be entered. */
  gate?: ReactNode;
  /** Beneath the fields: what is done with them. */
  foot: (evaluated: Evaluated) => ReactNode;
  /** Beneath a take that stands. */
  takenFoot?: ReactNode;
  onEvaluated?: (evaluated: Evaluated) => void;
  /** By field: what it read last, and what it should read now. */
  expected?: Readonly<Record<string, { was: number; should?: number }>> | undefined;
  /** What of this machine's last readings stays true. */
  lastTime?: object | undefined;
};

/** A worksheet with a form: the machine and the check's own picture in the middle, the fields and the answer at the right. */
export function SheetDesk(args: Args) {
  const { check, machine, system, standpoint, typed, change, taken, isOpen } = args;
  const [group, setGroup] = useState<string>();
  const [active, setActive] = useState<string>();
  const fields = useRef<HTMLDivElement>(null);
  const { context } = args;
  const { text, sure } = typed;
  const evaluated = useMemo(
    () => evaluate({ check, machine, typed: { text, sure }, system, context }),
    [check, machine, text, sure, system, context],
  );
  const { onEvaluated } = args;
  const stamp = JSON.stringify(evaluated.readings);
  // biome-ignore lint/correctness/useExhaustiveDependencies: told anew when the readings change, not with each rendering
  useEffect(() => onEvaluated?.(evaluated), [stamp]);
  const assessment = isOpen ? evaluated.assessment : taken?.assessment;
  const readings = isOpen ? evaluated.readings : taken?.input;
  const takenForm = useMemo(() => formFor({ check, machine, input: taken?.input }), [check, machine, taken?.input]);

  const { groups, fields: asked } = evaluated.form;
  const { picture: Picture, isPlanless = false } = faceOf(check.id);
  const hasPlaces = !isPlanless && [...groups, ...asked].some(({ at }) => at !== undefined);
  const canType = args.canEnter || onPaper(evaluated.form).groups.length > 0;
  const onText = (key: string, text: string) => change((before) => ({ ...before, text: { ...before.text, [key]: text } }));
  const openGroup = (id: string) => {
    setGroup(id);
    const section = fields.current?.querySelector<HTMLElement>(`[id="group-${id}"]`);
    section?.scrollIntoView({ block: "start" });
    const first = section?.querySelector<HTMLElement>("input, textarea, [data-stop] button");
    first?.focus({ preventScroll: true });
  };
  return (
    <>
      <section aria-label="Drawing" className="dye flex min-h-0 flex-col overflow-hidden">
        {hasPlaces && <Standpoints standpoint={standpoint} onStandpoint={args.onStandpoint} />}
        {hasPlaces && (
          <PlanBoard
            check={check.id}
            machine={machine}
            system={system}
            form={isOpen ? evaluated.form : takenForm}
            readings={readings ?? {}}
            assessment={assessment}
            standpoint={standpoint}
            isAlone={Picture === undefined}
            group={isOpen ? group : undefined}
            onGroup={isOpen && args.canEnter ? openGroup : undefined}
            {...(isOpen && args.canEnter
              ? {
                  entry: {
                    active,
                    onActive: setActive,
                    onStep: (from, by) => setActive(nextPlaced(evaluated.form, from, by)),
                    text: typed.text,
                    onText,
                    isWrong: (key) => isWrongAt(evaluated, key),
                  },
                }
              : {})}
          />
        )}
        {Picture && (
          <div
            className={`flex min-h-0 flex-col ${hasPlaces ? "h-[44%] max-lg:h-72 flex-none border-t border-[var(--chalk-faint)]" : "flex-1 max-lg:min-h-80"}`}
          >
            <Suspense fallback={null}>
              <Picture machine={machine} readings={readings ?? {}} assessment={assessment} standpoint={standpoint} system={system} />
            </Suspense>
          </div>
        )}
      </section>
      <section
        id="in-hand"
        aria-label="In hand"
        className="relative min-h-0 overflow-y-auto bg-sheet p-4 lg:border-l lg:border-rule"
        tabIndex={0}
      >
        <h2 className="text-xl">{args.title}</h2>
        {assessment && <AnswerHead assessment={assessment} machine={machine} stale={isOpen ? [] : (taken?.stale ?? [])} />}
        {assessment && <AnswerActions assessment={assessment} machine={machine} standpoint={standpoint} />}
        {args.children}
        {!isOpen && taken && (
          <AnswerDetails
            assessment={taken.assessment}
            stale={taken.stale}
            machine={machine}
            standpoint={standpoint}
            timeOf={args.timeOf}
            isWithoutActions
          />
        )}
        {!isOpen && args.takenFoot}
        {isOpen && !args.canEnter && args.gate}
        {isOpen && canType && (
          <form
            onSubmit={(event) => event.preventDefault()}
            onKeyDown={(event) => {
              if (event.key === "Enter" && event.target instanceof HTMLElement && event.target.tagName === "FORM")
                goOn(fields.current, event.target, 1);
            }}
          >
            <SheetFields
              evaluated={args.canEnter ? evaluated : { ...evaluated, form: onPaper(evaluated.form) }}
              typed={typed}
              system={system}
              onText={onText}
              onSure={(key, text) => change((before) => ({ ...before, sure: { ...before.sure, [key]: text } }))}
              onField={(field) => {
                setGroup(field.group);
                setActive(keyOf(field.path));
              }}
              expected={args.expected}
              lastTime={args.lastTime}
              fields={fields}
            />
          </form>
        )}
        {isOpen && canType && (
          <>
            {evaluated.troubles.general.map((sentence) => (
              <p key={sentence} className="trouble" role="alert">
                {sentence}
              </p>
            ))}
            {args.foot(evaluated)}
          </>
        )}
        {isOpen && assessment && (
          <AnswerDetails assessment={assessment} machine={machine} standpoint={standpoint} timeOf={args.timeOf} isWithoutActions />
        )}
      </section>
    </>
  );
}

/** The place on the drawing after this one, or before it; at an end it stays. */
function nextPlaced({ fields }: Form, from: string, by: 1 | -1): string {
  const keys = fields.filter(({ kind, at }) => kind === "quantity" && at !== undefined).map(({ path }) => keyOf(path));
  return keys[Math.min(keys.length - 1, Math.max(0, keys.indexOf(from) + by))] ?? from;
}

function isWrongAt({ entries, troubles }: Evaluated, key: string): boolean {
  const entry = entries[key];
  return (entry !== undefined && isWrong(entry)) || troubles.byField[key] !== undefined;
}

/** What may be worked out before the machine is in the state its readings need. */
function onPaper({ groups, fields }: Form): Form {
  const own = groups.filter(({ isOnPaper }) => isOnPaper).map((group) => ({ ...group, isFolded: false }));
  return { groups: own, fields: fields.filter(({ group }) => own.some(({ id }) => id === group)) };
}
