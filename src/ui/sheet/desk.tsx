"use client";

import { type ReactNode, useEffect, useMemo, useRef, useState } from "react";
import type { Assessment, Check, Form } from "@/core/checks";
import type { StaleReason } from "@/core/events";
import type { Machine, Standpoint } from "@/core/machine";
import type { UnitSystem } from "@/core/units";
import { AnswerActions, AnswerDetails, AnswerHead } from "../answer";
import { Standpoints } from "../standpoints";
import { FORM_WORDS } from "../words/sheets";
import { PlanBoard } from "./board";
import { type Evaluated, evaluate, type Typed } from "./evaluate";
import { goOn, SheetFields } from "./fields";
import { PICTURES } from "./pictures";

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
};

/** A worksheet with a form: the machine and the check's own picture in the middle, the fields and the answer at the right. */
export function SheetDesk(args: Args) {
  const { check, machine, system, standpoint, typed, change, taken, isOpen } = args;
  const [group, setGroup] = useState<string>();
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
  const hasPlaces = evaluated.form.groups.some(({ at }) => at !== undefined) && !PLANLESS.includes(check.id);
  const canType = args.canEnter || onPaper(evaluated.form).groups.length > 0;
  const Picture = PICTURES[check.id];
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
            machine={machine}
            form={evaluated.form}
            assessment={assessment}
            standpoint={standpoint}
            group={isOpen ? group : undefined}
            onGroup={isOpen && args.canEnter ? openGroup : undefined}
          />
        )}
        {Picture && (
          <div
            className={`flex min-h-0 flex-col ${hasPlaces ? "h-[44%] max-lg:h-72 flex-none border-t border-[var(--chalk-faint)]" : "flex-1 max-lg:min-h-80"}`}
          >
            <Picture machine={machine} readings={readings ?? {}} assessment={assessment} standpoint={standpoint} system={system} />
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
        {assessment && (
          <AnswerHead assessment={assessment} machine={machine} words={FORM_WORDS} stale={isOpen ? [] : (taken?.stale ?? [])} />
        )}
        {assessment && <AnswerActions assessment={assessment} machine={machine} standpoint={standpoint} words={FORM_WORDS} />}
        {args.children}
        {!isOpen && taken && (
          <AnswerDetails
            assessment={taken.assessment}
            stale={taken.stale}
            machine={machine}
            standpoint={standpoint}
            timeOf={args.timeOf}
            words={FORM_WORDS}
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
              onGroup={setGroup}
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
          <AnswerDetails
            assessment={assessment}
            machine={machine}
            standpoint={standpoint}
            timeOf={args.timeOf}
            words={FORM_WORDS}
            isWithoutActions
          />
        )}
      </section>
    </>
  );
}

/** What may be worked out before the machine is in the state its readings need. */
function onPaper({ groups, fields }: Form): Form {
  const own = groups.filter(({ isOnPaper }) => isOnPaper).map((group) => ({ ...group, isFolded: false }));
  return { groups: own, fields: fields.filter(({ group }) => own.some(({ id }) => id === group)) };
}

/** Checks whose own picture is the plan. */
const PLANLESS: readonly string[] = ["blade-overlap", "blade-timing"];
