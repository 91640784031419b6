"use client";

import { Redo2, Undo2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { useMemo, useRef, useState } from "react";
import type { UnitSystem } from "@/core/basics/units";
import { kindById } from "@/core/catalogue/kinds";
import { checkRow } from "@/core/checks";
import { usualDeckOff } from "@/core/job/sequences/deck-off";
import { cuttingWidth, type Machine, machineSchema, SHEET_WORDS, STACK_PARTS, type StackPart, sheetProblems, wordOf } from "@/core/machine";
import {
  fieldsOf,
  isSameValue,
  missingOf,
  outlineAround,
  placeKey,
  type SheetField,
  type SheetPart,
  sheetPlaces,
  valueAt,
  withValue,
} from "@/core/machine/specification";
import type { MachineRecord } from "@/data/machine/machines";
import { StackDrawing } from "@/drawings/fit-card";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { askWho, useSeat } from "@/ui/person";
import { type Problem, useSubmission } from "@/ui/send";
import { FieldRow, fieldId } from "@/ui/sheet-field/field-row";
import { linesOf, rowsIn, writeValue } from "@/ui/sheet-field/read-text";
import { sayError, sayIssue } from "@/ui/words/issues";
import { show } from "@/ui/words/quantities";
import { MISSING_WORDS, PART_TITLES, WORD_LABELS } from "@/ui/words/sheet";
import {
  draftOf,
  inUnits,
  isDrawnAround,
  moved,
  readSheet,
  type SheetDraft,
  textOf,
  toSend,
  withAnother,
  without,
  withText,
} from "./draft";
import { Meanwhile } from "./meanwhile";
import { PlanBoard } from "./plan-board";
import { Features, OwnParts, Part, PlaceList } from "./sheet-parts";
import { type Sister, TemplatePicker } from "./template-picker";

const MOST_BACK = 60;
/** A draft to go back to, in the units it was typed in. */
type Step = { draft: SheetDraft; system: UnitSystem };

/** A machine's own sheet, drawn and typed: a new one from a template or a sister, or a new version of one that stands. */
export function SheetDesk(args: { record?: MachineRecord; start: Machine; sites: readonly string[]; sisters: readonly Sister[] }) {
  const key = `sheet:${args.record?.id ?? "new"}`;
  return <Desk key={key} draftKey={key} {...args} />;
}

type DeskArgs = Parameters<typeof SheetDesk>[0] & { draftKey: string };

function Desk({ record, start, sites, sisters, draftKey }: DeskArgs) {
  const { who, system } = useSeat();
  const router = useRouter();
  const { submit, isBusy } = useSubmission();
  const first = useMemo(() => draftOf(start, { version: record?.sheetVersion ?? 0, site: record?.site ?? "" }), [start, record]);
  const { value: typed, set, clear, wasKept, ticket, left } = useDraft<SheetDraft>(draftKey, first, { retype: inUnits });
  // Where nothing is typed yet, what is typed next is of the sheet as it is now.
  const isUntouched = typed.machineText === typed.baseText && Object.keys(typed.texts).length === 0;
  const draft = isUntouched && record ? { ...typed, ...pick(first) } : typed;
  const [back, setBack] = useState<Step[]>([]);
  const [forth, setForth] = useState<Step[]>([]);
  const [here, setHere] = useState<string>();
  const [issues, setIssues] = useState<Problem[]>([]);
  const [failed, setFailed] = useState("");
  const read = readSheet(draft, system);
  const lastGood = useRef(start);
  if (read.machine) lastGood.current = read.machine;
  const machine = read.machine ?? lastGood.current;
  // What a part is unless it says otherwise is shown as it is.
  const shown = read.machine ?? read.loose;
  const base = useMemo(() => machineSchema.safeParse(safeJson(draft.baseText)).data, [draft.baseText]);
  const isOld = record !== undefined && draft.version !== record.sheetVersion;

  const change = (next: SheetDraft) => {
    setBack((all) => [...all.slice(-MOST_BACK), { draft, system }]);
    setForth([]);
    setFailed("");
    set(next);
  };
  /** A word is typed letter by letter: one step back takes the field as it was when it was entered. */
  const typing = useRef("");
  const type = (field: SheetField, text: string, sure?: string) => {
    const next = withText({ draft, field, text, system, ...(sure === undefined ? {} : { sure }) });
    const isOneStep = typing.current === field.key && !isMovedAbout(field, textOf(draft, shown, field, system), text);
    if (isOneStep) set(next);
    else change(next);
    typing.current = field.key;
  };
  const redraw = (next: Machine, more: Partial<SheetDraft> = {}) => {
    typing.current = "";
    change({ ...draft, ...more, machineText: JSON.stringify(next), texts: stillTyped(more.texts ?? draft.texts, machine, next) });
  };
  const step = (from: Step[], setFrom: typeof setBack, setTo: typeof setForth) => {
    const last = from.at(-1);
    if (!last) return;
    typing.current = "";
    setFrom(from.slice(0, -1));
    setTo((all) => [...all, { draft, system }]);
    set(inUnits(last.draft, last.system, system));
  };
  const copy = async (id: string) => {
    const answer = await fetch(`/api/v1/machines/${id}`).then((response) => response.json() as Promise<{ machine?: Machine }>);
    if (answer.machine) redraw(answer.machine);
  };

  const problems = read.machine ? sheetProblems(read.machine) : [];
  const troubleCount = Object.keys(read.troubles).length;
  const meter = draft.meter.trim() === "" ? undefined : Number(draft.meter.trim().replace(",", "."));
  const isMeterBad = meter !== undefined && !(Number.isFinite(meter) && meter >= 0 && meter <= 200_000);
  const isNamed = record !== undefined || (draft.fleetNumber.trim() !== "" && draft.name.trim() !== "" && draft.site.trim() !== "");
  const isChanged = record === undefined || draft.machineText !== draft.baseText;
  const isReasoned = record === undefined || draft.reason.trim() !== "";
  const canSave =
    read.machine !== undefined &&
    troubleCount === 0 &&
    problems.length === 0 &&
    !isMeterBad &&
    isNamed &&
    isChanged &&
    isReasoned &&
    !isOld &&
    !isBusy;

  const save = async () => {
    if (!read.machine) return;
    if (!who) askWho();
    const body = { who: who ?? "", machine: toSend(read.machine) };
    const sent = record
      ? await submit<{ sheetVersion: number }>(
          `/api/v1/machines/${record.id}/sheet`,
          { ...body, basedOnVersion: draft.version, reason: draft.reason.trim() },
          { method: "PUT", ticket },
        )
      : await submit<{ machineId: string }>(
          "/api/v1/machines",
          {
            ...body,
            fleetNumber: draft.fleetNumber.trim(),
            name: draft.name.trim(),
            site: draft.site.trim(),
            ...(meter === undefined ? {} : { meterHours: meter }),
          },
          { ticket },
        );
    if (!sent) return;
    if (sent.ok) {
      clear();
      const id = record?.id ?? (sent.answer as { machineId: string }).machineId;
      router.push(`/machines/${id}`);
      router.refresh();
      return;
    }
    if (sent.error === "changed-since") router.refresh();
    setIssues(sent.issues);
    setFailed(
      sent.issues[0]
        ? ""
        : sent.error === "changed-since"
          ? "Somebody else changed this sheet meanwhile. Both are kept: see above."
          : sayError(who ? sent.error : "unknown-person"),
    );
  };

  const places = sheetPlaces(machine);
  const chosen = places.find(({ id }) => id === here);
  const fields = fieldsOf(machine);
  const missing = missingOf(machine);
  const kind = kindById(machine.kind);
  const cutters = machine.spindles.length + machine.units.length;
  const row = (field: SheetField) => (
    <FieldRow
      key={field.key}
      field={field}
      text={textOf(draft, shown, field, system)}
      sure={draft.sure[field.key]}
      word={wordOf(machine, field.key)}
      trouble={read.troubles[field.key]}
      onText={(text, sure) => type(field, text, sure)}
      picture={field.key === STACK ? <StackPicture text={textOf(draft, shown, field, system)} /> : undefined}
      usual={field.kind === "table" && field.table === "deck-off" ? writeValue(usualDeckOff(machine), field, system) : undefined}
    />
  );
  const goTo = (key: string) => {
    const field = fields.find((one) => one.key === key);
    if (!field) return;
    if (places.some(({ id }) => id === field.at)) setHere(field.at);
    const folded = document.getElementById(field.own ? `own-${field.at}` : `part-${field.at}`);
    folded?.setAttribute("open", "");
    requestAnimationFrame(() => document.getElementById(fieldId(key))?.focus());
  };

  return (
    <main className="grid grid-cols-1 lg:h-[calc(100dvh-3.25rem-var(--notes,0px))] lg:grid-cols-[minmax(0,1fr)_29rem]">
      <section aria-label="Drawing" className="dye flex min-h-0 flex-col p-2">
        <PlanBoard
          machine={machine}
          here={here}
          system={system}
          label={`${kind.label} from above, to scale. ${chosen ? `In hand: ${chosen.label}; arrow keys move it.` : "Touch a place to take it in hand."}`}
          onHere={setHere}
          onMove={(place, at, isFirst) => {
            const next = {
              ...draft,
              machineText: JSON.stringify(moved(machine, place, at)),
              texts: withoutPlaceTexts(draft.texts, placeKey(place)),
            };
            if (isFirst) change(next);
            else set(next);
            typing.current = "";
          }}
        />
        <p className="text-sm text-[color:var(--chalk-soft)]">
          From behind: right is right, forward is up. Places snap to the middle, across from each other, and into rows; arrow keys move the
          one in hand.
        </p>
      </section>
      <section aria-label="Sheet" className="min-h-0 overflow-y-auto bg-sheet p-3 lg:border-l lg:border-rule">
        <div id="sheet-top" className="flex items-start gap-2">
          <h1 className="grow text-xl">
            {record ? (
              <>
                <Link href={`/machines/${record.id}`} className="underline">
                  {record.fleetNumber}
                </Link>
                , its sheet
              </>
            ) : (
              "A machine of our own"
            )}
          </h1>
          <button
            type="button"
            className="btn px-3"
            aria-label="Undo"
            disabled={back.length === 0}
            onClick={() => step(back, setBack, setForth)}
          >
            <Undo2 size={20} aria-hidden="true" />
          </button>
          <button
            type="button"
            className="btn px-3"
            aria-label="Redo"
            disabled={forth.length === 0}
            onClick={() => step(forth, setForth, setBack)}
          >
            <Redo2 size={20} aria-hidden="true" />
          </button>
        </div>
        <p className="mt-1 text-2xl leading-tight font-bold" aria-live="polite">
          {sayWhole({
            kind: kind.label,
            cutters,
            isReel: kind.cutsWith === "reel",
            width: show(cuttingWidth(machine), "length", system),
            missing: missing.length,
          })}
        </p>
        {left && (
          <p className="flex flex-wrap items-center gap-2 py-1">
            <span className="grow">{left.by} has begun one here and not saved it.</span>
            <button type="button" className="btn" onClick={left.take}>
              Take it up
            </button>
          </p>
        )}
        {isOld && record && base && (
          <Meanwhile
            base={base}
            mine={machine}
            theirs={record.machine}
            by={record.sheetBy}
            reason={record.sheetReason}
            onTake={(next) => redraw(next, { baseText: JSON.stringify(record.machine), version: record.sheetVersion })}
          />
        )}
        {problems.map((problem) => (
          <p key={`${problem.code} ${problem.path.join(".")}`} className="trouble border-l-4 border-mark pl-2 text-base" role="alert">
            {sayIssue(problem, system)}
          </p>
        ))}
        {!record && (
          <>
            <div className="grid grid-cols-2 gap-x-2">
              <TextField
                id="fleet-number"
                label="Its number"
                value={draft.fleetNumber}
                onChange={(fleetNumber) => set({ ...draft, fleetNumber })}
              />
              <TextField
                id="meter"
                label="Hour meter, h"
                value={draft.meter}
                trouble={isMeterBad ? "Hours like 412.5." : undefined}
                onChange={(text) => set({ ...draft, meter: text })}
              />
              <TextField id="machine-name" label="What it is called" value={draft.name} onChange={(name) => set({ ...draft, name })} />
              <TextField
                id="machine-site"
                label="Where it mows"
                value={draft.site}
                list="sites"
                onChange={(site) => set({ ...draft, site })}
              />
            </div>
            <datalist id="sites">
              {sites.map((site) => (
                <option key={site} value={site} />
              ))}
            </datalist>
            <TemplatePicker sisters={sisters} onTake={(next) => redraw(next)} onCopy={copy} />
          </>
        )}
        <label className="flex flex-wrap items-center gap-2 py-1">
          <span className="caps">Whose word is what I type now</span>
          <select className="input w-auto grow" value={draft.word} onChange={(event) => set({ ...draft, word: event.target.value })}>
            {SHEET_WORDS.filter((word) => word !== "estimated").map((word) => (
              <option key={word} value={word}>
                {WORD_LABELS[word]}
              </option>
            ))}
          </select>
        </label>
        {chosen && (
          <div className="my-1 border-l-4 border-ink pl-2">
            <div className="flex items-center gap-2">
              <h2 className="grow text-lg">{chosen.label}</h2>
              <button
                type="button"
                className="btn"
                onClick={() => {
                  redraw(without(machine, chosen));
                  setHere(undefined);
                }}
              >
                Take it away
              </button>
            </div>
            {fields.filter(({ at, own }) => at === chosen.id && !own).map(row)}
            {chosen.sort === "units" && (
              <OwnParts
                key={chosen.id}
                machine={machine}
                loose={read.loose}
                unit={chosen}
                fields={fields.filter(({ at, own }) => at === chosen.id && own)}
                row={row}
                isTroubled={({ key }) => read.troubles[key] !== undefined}
                onOwn={(key, value) => redraw(withValue(machine, key, value), { texts: withoutTexts(draft.texts, key) })}
              />
            )}
          </div>
        )}
        <PlaceList
          machine={machine}
          here={here}
          onHere={setHere}
          onAdd={(sort) => {
            const added = withAnother(machine, sort);
            redraw(added.machine);
            setHere(added.id);
          }}
        />
        {machine.deck && !isDrawnAround(machine) && (
          <button type="button" className="btn my-1 w-full" onClick={() => redraw(shellAround(machine))}>
            Draw the shell around its blades anew
          </button>
        )}
        {(Object.keys(PART_TITLES) as SheetPart[]).map((part) => {
          const own = fields.filter(({ at }) => at === part);
          if (own.length === 0) return null;
          return (
            <Part key={part} id={`part-${part}`} title={PART_TITLES[part]} isBad={own.some(({ key }) => read.troubles[key])}>
              {own.map(row)}
            </Part>
          );
        })}
        <Features machine={machine} onChange={(features) => redraw({ ...machine, features } as Machine)} />
        <section aria-label="Still missing" className="border-t-2 border-ink pt-1">
          <h2 className="text-lg">What it would still miss: {missing.length}</h2>
          <ul className="ruled">
            {missing.map(({ code, keys, checks }) => (
              <li key={code} className="flex items-center gap-2 py-1">
                <span className="grow leading-snug">
                  {MISSING_WORDS[code]}
                  {checks.length > 0 && (
                    <span className="block text-sm text-soft">{checks.map((check) => checkRow(check)?.label ?? check).join(", ")}</span>
                  )}
                </span>
                {keys[0] && (
                  <button type="button" className="btn shrink-0" onClick={() => goTo(keys[0] as string)}>
                    Fill in{keys.length > 1 ? `, ${keys.length}` : ""}
                  </button>
                )}
              </li>
            ))}
          </ul>
        </section>
        {issues.map((issue) => (
          <p key={`${issue.code} ${issue.path.join(".")}`} className="trouble" role="alert">
            {sayIssue(issue, system)}
          </p>
        ))}
        {failed && (
          <p className="trouble" role="alert">
            {failed}
          </p>
        )}
        <div className="sticky -bottom-3 -mx-3 mt-2 border-t border-rule bg-sheet px-3 py-2">
          {record && (
            <TextField
              id="sheet-reason"
              label="Why the sheet changes"
              value={draft.reason}
              onChange={(reason) => set({ ...draft, reason })}
            />
          )}
          {(isOld || problems.length > 0) && (
            <p className="trouble pb-1">
              {isOld ? "Somebody else changed this sheet meanwhile; both are kept." : "It contradicts itself."}{" "}
              <button
                type="button"
                className="underline"
                onClick={() => document.getElementById("sheet-top")?.scrollIntoView({ block: "start" })}
              >
                See above
              </button>
            </p>
          )}
          {troubleCount > 0 && (
            <p className="trouble pb-1">
              {troubleCount} {troubleCount === 1 ? "field is" : "fields are"} missing or cannot be read yet.{" "}
              <button type="button" className="underline" onClick={() => goTo(Object.keys(read.troubles)[0] as string)}>
                Show
              </button>
            </p>
          )}
          <div className="flex gap-2">
            <button type="button" className="btn btn-go grow" disabled={!canSave} onClick={save}>
              {isBusy ? "Saving …" : record ? "Keep it as a new version" : isNamed ? "Put it in the fleet" : "Number, name and site first"}
            </button>
            {wasKept && record && (
              <button
                type="button"
                className="btn"
                onClick={() => {
                  clear();
                  setBack([]);
                  setForth([]);
                }}
              >
                Back to what stands
              </button>
            )}
          </div>
        </div>
      </section>
    </main>
  );
}

const pick = ({ machineText, baseText, version }: SheetDraft) => ({ machineText, baseText, version });

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}

function sayWhole(args: { kind: string; cutters: number; isReel: boolean; width: string; missing: number }): string {
  const what = args.isReel ? (args.cutters === 1 ? "unit" : "units") : args.cutters === 1 ? "blade" : "blades";
  const lacks = args.missing === 0 ? "Nothing is missing." : `${args.missing} ${args.missing === 1 ? "thing" : "things"} still to be told.`;
  return `${args.kind}, ${args.cutters} ${what}, cuts ${args.width}. ${lacks}`;
}

/** Texts of a place that was moved by hand would hide where it stands now. */
const withoutPlaceTexts = (texts: Readonly<Record<string, string>>, key: string) =>
  Object.fromEntries(Object.entries(texts).filter(([at]) => at !== `${key}.xMetres` && at !== `${key}.yMetres`));

const withoutTexts = (texts: Readonly<Record<string, string>>, under: string) =>
  Object.fromEntries(Object.entries(texts).filter(([key]) => key !== under && !key.startsWith(`${under}.`)));

/** What was typed stays in its field as long as what stands there is the same. */
function stillTyped(texts: Readonly<Record<string, string>>, before: Machine, next: Machine): Record<string, string> {
  const known = new Set(fieldsOf(next).map(({ key }) => key));
  return Object.fromEntries(
    Object.entries(texts).filter(([key]) => known.has(key) && isSameValue(valueAt(before, key), valueAt(next, key))),
  );
}

const STACK = "sheet.blade.stack";
const isStackPart = (text: string): text is StackPart => (STACK_PARTS as readonly string[]).includes(text);
/** As it is put together, also while something else of the blade is still missing. */
const StackPicture = ({ text }: { text: string }) => (
  <div className="dye h-56 p-2">
    <StackDrawing stack={linesOf(text).filter(isStackPart)} isReversed={false} />
  </div>
);

/** A letter more in one row is typing; a row more, fewer or moved is a step of its own to take back. */
function isMovedAbout(field: SheetField, before: string, after: string): boolean {
  if (field.kind === "order") return true;
  if (field.kind !== "table") return false;
  const [a, b] = [rowsIn(before), rowsIn(after)];
  return a.length !== b.length || a.filter((row, k) => JSON.stringify(row) !== JSON.stringify(b[k])).length > 1;
}

const shellAround = (machine: Machine): Machine =>
  machine.deck ? ({ ...machine, deck: { ...machine.deck, outline: outlineAround(machine.spindles) } } as Machine) : machine;
