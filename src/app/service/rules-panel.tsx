"use client";

import { useEffect, useState } from "react";
import { KINDS } from "@/core/catalogue/kinds";
import { placesOf, SERVICE_TASKS, taskRow } from "@/core/fleet/service/tasks";
import { machineSchema } from "@/core/machine";
import type { RuleRecord } from "@/data/service/service-rules";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { sayRule, taskLabel } from "@/ui/words/service";

const numberIn = (text: string) => {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) && value > 0 ? value : undefined;
};

/** The shop's rules of service: for all, for a kind, for one machine; a later one of the same scope rules. */
export function RulesPanel({
  rules,
  machines,
}: {
  rules: readonly RuleRecord[];
  machines: readonly { id: string; fleetNumber: string }[];
}) {
  const { post, isBusy, trouble, troubleAt } = usePost();
  const { value, set, clear, ticket } = useDraft("service-rule", {
    what: "sharpen",
    scope: "fleet",
    kind: "zero-turn",
    machineId: "",
    place: "",
    hours: "",
    days: "",
    isOff: false,
    reason: "",
  });
  const [hours, days] = [numberIn(value.hours), numberIn(value.days)];
  const isBad = (value.hours.trim() !== "" && hours === undefined) || (value.days.trim() !== "" && days === undefined);
  const isSaid = value.isOff || hours !== undefined || days !== undefined;
  const isOfMachine = value.scope === "machine" || value.scope === "place";
  const isNamed = (!isOfMachine || value.machineId !== "") && (value.scope !== "place" || value.place !== "");
  const save = async () => {
    const sent = await post(
      "/api/v1/service/rules",
      {
        what: value.what,
        scope: value.scope,
        isOff: value.isOff,
        reason: value.reason,
        ...(value.scope === "kind" ? { kind: value.kind } : {}),
        ...(isOfMachine ? { machineId: value.machineId } : {}),
        ...(value.scope === "place" ? { place: value.place } : {}),
        ...(value.isOff || hours === undefined ? {} : { everyHours: hours }),
        ...(value.isOff || days === undefined ? {} : { everyDays: days }),
      },
      { ticket },
    );
    if (sent) clear();
  };
  const nameOf = (rule: RuleRecord) =>
    rule.scope === "fleet"
      ? "all machines"
      : rule.scope === "kind"
        ? (KINDS.find(({ id }) => id === rule.kind)?.label ?? rule.kind)
        : `${machines.find(({ id }) => id === rule.machineId)?.fleetNumber ?? rule.machineId}${rule.place === undefined ? "" : `, ${rule.place}`}`;
  return (
    <details className="border-t-2 border-ink">
      <summary className="min-h-11 cursor-pointer py-2 text-xl font-semibold">Rules</summary>
      <p className="max-w-[50rem] text-sm text-soft">
        The rule of one place goes before that of its machine, that before its kind's, that before the rule of the whole fleet, and that
        before what its own sheet or common practice says.
      </p>
      <div className="grid gap-x-6 md:grid-cols-2">
        <div>
          <Choice
            label="What"
            value={value.what}
            options={SERVICE_TASKS.map(({ id, label }) => [id, label])}
            onChange={(what) => set({ ...value, what })}
          />
          <Choice
            label="For"
            value={value.scope}
            options={[
              ["fleet", "All machines"],
              ["kind", "A kind"],
              ["machine", "One machine"],
              ["place", "One place of a machine"],
            ]}
            onChange={(scope) => set({ ...value, scope })}
          />
          {value.scope === "kind" && (
            <select
              aria-label="Kind"
              className="input"
              value={value.kind}
              onChange={(event) => set({ ...value, kind: event.target.value })}
            >
              {KINDS.map(({ id, label }) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </select>
          )}
          {isOfMachine && (
            <select
              aria-label="Machine"
              className="input"
              value={value.machineId}
              onChange={(event) => set({ ...value, machineId: event.target.value, place: "" })}
            >
              <option value="">which machine</option>
              {machines.map(({ id, fleetNumber }) => (
                <option key={id} value={id}>
                  {fleetNumber}
                </option>
              ))}
            </select>
          )}
          {value.scope === "place" && value.machineId !== "" && (
            <PlacePick
              key={`${value.machineId} ${value.what}`}
              machineId={value.machineId}
              what={value.what}
              place={value.place}
              onPick={(place) => set({ ...value, place })}
            />
          )}
        </div>
        <div>
          <label className="flex min-h-11 items-center gap-3">
            <input
              type="checkbox"
              className="size-6 accent-ink"
              checked={value.isOff}
              onChange={(event) => set({ ...value, isOff: event.target.checked })}
            />
            Not done here at all
          </label>
          {!value.isOff && (
            <div className="grid grid-cols-2 gap-2">
              <label>
                <span className="caps">Every, h</span>
                <input
                  className="input num text-right"
                  inputMode="decimal"
                  value={value.hours}
                  onChange={(event) => set({ ...value, hours: event.target.value })}
                />
              </label>
              <label>
                <span className="caps">Or every, days</span>
                <input
                  className="input num text-right"
                  inputMode="decimal"
                  value={value.days}
                  onChange={(event) => set({ ...value, days: event.target.value })}
                />
              </label>
            </div>
          )}
          {isBad && <p className="trouble">A number like 10 or 7.5, more than nothing.</p>}
          <label className="block py-1">
            <span className="caps">Why</span>
            <input
              className="input"
              value={value.reason}
              maxLength={300}
              onChange={(event) => set({ ...value, reason: event.target.value })}
            />
          </label>
          {(troubleAt("everyHours") ?? trouble) && (
            <p className="trouble" role="alert">
              {troubleAt("everyHours") ?? trouble}
            </p>
          )}
          <button
            type="button"
            className="btn btn-go"
            disabled={isBusy || isBad || !isSaid || !isNamed || value.reason.trim() === ""}
            onClick={save}
          >
            Set the rule
          </button>
          {value.reason.trim() === "" && (isSaid || isBad) && <p className="text-sm text-soft">“Why” is wanted before it can be set.</p>}
        </div>
      </div>
      <ul className="ruled mt-2">
        {[...rules].reverse().map((rule) => (
          <li key={rule.id} className="flex flex-wrap gap-x-3 py-1">
            <span className="grow">
              <b>{taskLabel(rule.what)}</b>, {nameOf(rule)}: {rule.isOff ? "not done here" : sayRule(rule).split(",")[0]} ({rule.reason})
            </span>
            <span className="text-sm text-soft">
              {dateOnly(rule.at)}, {rule.who}
            </span>
          </li>
        ))}
        {rules.length === 0 && <li className="py-1 text-soft">The shop has set none of its own yet.</li>}
      </ul>
    </details>
  );
}

/** Where a task is done on a machine, one of them; its sheet is fetched when it was picked. */
function PlacePick(args: { machineId: string; what: string; place: string; onPick: (place: string) => void }) {
  const [places, setPlaces] = useState<readonly { id: string; label: string }[] | "none" | "unread" | undefined>();
  const { machineId, what } = args;
  useEffect(() => {
    let isGone = false;
    fetch(`/api/v1/machines/${machineId}/intake`)
      .then((answer) => answer.json())
      .then((read: { machine?: unknown }) => {
        const machine = machineSchema.parse(read.machine);
        const ids = placesOf(taskRow(what) ?? {}, machine).flatMap((id) => id ?? []);
        const named = [...machine.spindles, ...machine.units, ...machine.wheels].filter(({ id }) => ids.includes(id));
        if (!isGone) setPlaces(named.length === 0 ? "none" : named.map(({ id, label }) => ({ id, label })));
      })
      .catch(() => !isGone && setPlaces("unread"));
    return () => {
      isGone = true;
    };
  }, [machineId, what]);
  if (places === "unread")
    return (
      <p className="trouble" role="alert">
        Its places could not be read. Pick the machine again.
      </p>
    );
  if (places === "none") return <p className="text-sm text-soft">This is done to the machine as a whole, or not on this one at all.</p>;
  return (
    <select aria-label="Place" className="input" value={args.place} onChange={(event) => args.onPick(event.target.value)}>
      <option value="">which place</option>
      {(places ?? []).map(({ id, label }) => (
        <option key={id} value={id}>
          {label}
        </option>
      ))}
    </select>
  );
}
