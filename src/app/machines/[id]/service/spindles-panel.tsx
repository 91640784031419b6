"use client";

import { useState } from "react";
import type { SpindleStanding } from "@/core/fleet/service/spindle-standings";
import { type GreaseRule, isRotation } from "@/core/fleet/service/spindles";
import type { Machine } from "@/core/machine";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { sayIssue } from "@/ui/words/issues";
import { SAY_AHEAD } from "@/ui/words/service";
import { GreaseRuleForm } from "./grease-rule";

type Named = { id: string; label: string };
export type SpindleLine = { id: number; words: string; at: string; who: string };

const hours = (value: number | undefined) => (value === undefined ? "not known" : `${Math.round(value)} h`);

function sayState({ state, next, isAhead, sinceGreaseHours }: SpindleStanding): string {
  if (state === "sealed") return "sealed: left alone";
  if (!next) return sinceGreaseHours === undefined ? "never logged" : "no rule says when next";
  const what = next.what === "purge" ? "Purge" : "Top up";
  if (isAhead) return `${what}: ${SAY_AHEAD}`;
  if (next.inHours <= 0) return `${what} now, ${Math.round(-next.inHours)} h over`;
  return `${what} in ${Math.round(next.inHours)} h${next.on ? `, about ${dateOnly(next.on)}` : ""}`;
}

const SCHOOL: Record<GreaseRule["school"], (rule: GreaseRule) => string> = {
  "by-hours": (rule) =>
    rule.school === "by-hours"
      ? `By hours: packed over the old grease every ${rule.topUpHours} h, purged until it runs clean every ${rule.purgeHours} h. Not packed solid: warm grease needs room.`
      : "",
  "leave-sealed": () => "Sealed bearings: left alone until they are changed. A fitting on them fills only the cavity.",
};

/** Each spindle's grease by the hour meter, where it came from, and what was done to it; logged in a touch. */
export function SpindlesPanel(args: {
  machineId: string;
  standings: readonly SpindleStanding[];
  rule: GreaseRule;
  places: readonly Named[];
  isRotated: boolean;
  sheet: { machine: Machine; version: number };
  log: readonly SpindleLine[];
}) {
  const { machineId, standings, rule, places, log } = args;
  const { timeZone } = useSeat();
  const { post, isBusy, trouble } = usePost();
  const [isMoving, setMoving] = useState(false);
  const path = `/api/v1/machines/${machineId}`;
  const labelOf = (id: string) => places.find((one) => one.id === id)?.label ?? id;
  const all = standings.map(({ place }) => place);
  return (
    <section id="spindles" aria-label="Spindles" className="mt-4">
      <h2 className="border-b-2 border-ink text-xl">Spindles</h2>
      <p className="py-1 text-sm leading-snug text-soft">
        {SCHOOL[rule.school](rule)}{" "}
        {args.isRotated ? "Spindles are moved round to even their wear." : "Each spindle goes back to its own place."}
      </p>
      <ul className="ruled">
        {standings.map((one) => (
          <SpindleRow
            key={one.place}
            path={path}
            standing={one}
            label={labelOf(one.place)}
            cameFrom={one.from === one.place ? undefined : labelOf(one.from)}
            isGreased={rule.school === "by-hours"}
          />
        ))}
      </ul>
      <div className="mt-1 flex flex-wrap gap-1">
        {rule.school === "by-hours" && (
          <button
            type="button"
            className="btn"
            disabled={isBusy}
            onClick={() => post(`${path}/spindles`, { kind: "topped-up", places: all })}
          >
            All greased
          </button>
        )}
        {standings.length > 1 && (
          <button type="button" className={`btn ${isMoving ? "btn-on" : ""}`} aria-pressed={isMoving} onClick={() => setMoving(!isMoving)}>
            Moved to other places
          </button>
        )}
      </div>
      {isMoving && (
        <Moves
          places={all.map((id) => ({ id, label: labelOf(id) }))}
          isBusy={isBusy}
          onMove={async (moves) => {
            if (await post(`${path}/spindles`, { kind: "moved", moves })) setMoving(false);
          }}
        />
      )}
      <GreaseRuleForm
        key={args.sheet.version}
        draftKey={`machine:${machineId}:grease:${args.sheet.version}`}
        machine={args.sheet.machine}
        rule={rule}
        isRotated={args.isRotated}
        isBusy={isBusy}
        onSave={(machine, reason) => post(`${path}/sheet`, { basedOnVersion: args.sheet.version, machine, reason }, { method: "PUT" })}
      />
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      {log.length > 0 && (
        <details className="mt-1">
          <summary className="min-h-11 cursor-pointer py-2">Spindle log, {log.length}</summary>
          <ul className="ruled max-h-64 overflow-y-auto" tabIndex={0}>
            {log.map(({ id, words, at, who: by }) => (
              <li key={id} className="flex items-center gap-2 py-1">
                <span className="grow leading-tight">
                  {words}
                  <span className="block text-sm text-soft">
                    {dateOnly(at, timeZone)}, {by}
                  </span>
                </span>
                <button
                  type="button"
                  className="btn btn-quiet"
                  disabled={isBusy}
                  aria-label={`Take back: ${words}`}
                  onClick={() => post(`${path}/spindles/${id}/take-back`, {})}
                >
                  Take back
                </button>
              </li>
            ))}
          </ul>
        </details>
      )}
    </section>
  );
}

/** One spindle: busy by itself, so that the next can be logged while this one is being written down. */
function SpindleRow(args: { path: string; standing: SpindleStanding; label: string; cameFrom: string | undefined; isGreased: boolean }) {
  const { standing, label, cameFrom, isGreased } = args;
  const { post, isBusy, trouble } = usePost();
  const log = (kind: "topped-up" | "purged" | "bearings-new") => post(`${args.path}/spindles`, { kind, places: [standing.place] });
  return (
    <li className="py-2">
      <span
        className={`block text-lg leading-tight font-bold ${standing.state === "due" || standing.state === "overdue" ? "text-mark" : ""}`}
      >
        {label}: {sayState(standing)}
      </span>
      <span className="block text-sm text-soft">
        Since grease {hours(standing.sinceGreaseHours)}, since purge {hours(standing.sincePurgeHours)}, bearings{" "}
        {hours(standing.sinceBearingsHours)}
        {cameFrom ? `; this spindle came from the ${cameFrom.toLowerCase()}` : ""}
      </span>
      <span className="mt-1 flex flex-wrap gap-1">
        {isGreased && (
          <>
            <LogButton label={label} words="Greased" isBusy={isBusy} onLog={() => log("topped-up")} />
            <LogButton label={label} words="Purged" isBusy={isBusy} onLog={() => log("purged")} />
          </>
        )}
        <LogButton label={label} words="New bearings" isBusy={isBusy} onLog={() => log("bearings-new")} />
      </span>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </li>
  );
}

function LogButton({ label, words, isBusy, onLog }: { label: string; words: string; isBusy: boolean; onLog: () => void }) {
  return (
    <button type="button" className="btn text-sm" aria-label={`${label}: ${words.toLowerCase()}`} disabled={isBusy} onClick={onLog}>
      {words}
    </button>
  );
}

/** Where each spindle went; only a turning round that leaves none without a place can be logged. */
function Moves({ places, isBusy, onMove }: { places: readonly Named[]; isBusy: boolean; onMove: (moves: Record<string, string>) => void }) {
  const [moves, setMoves] = useState<Record<string, string>>(() =>
    Object.fromEntries(places.map(({ id }, k) => [id, places[(k + 1) % places.length]?.id ?? id])),
  );
  const changed = Object.fromEntries(Object.entries(moves).filter(([from, to]) => from !== to));
  const isGood = isRotation(
    changed,
    places.map(({ id }) => id),
  );
  return (
    <fieldset className="mt-1 border-l-4 border-ink pl-2">
      <legend className="caps">Where each one went</legend>
      {places.map(({ id, label }) => (
        <label key={id} className="flex min-h-11 items-center gap-2">
          <span className="grow">The one at the {label.toLowerCase()} went to the</span>
          <select
            className="input w-44"
            aria-label={`${label} went to`}
            value={moves[id]}
            onChange={(event) => setMoves({ ...moves, [id]: event.target.value })}
          >
            {places.map((place) => (
              <option key={place.id} value={place.id}>
                {place.label}
              </option>
            ))}
          </select>
        </label>
      ))}
      {!isGood && <p className="trouble">{sayIssue({ code: "not-a-rotation" }, "us")}</p>}
      <button type="button" className="btn btn-go mt-1" disabled={isBusy || !isGood} onClick={() => onMove(changed)}>
        Log the move
      </button>
    </fieldset>
  );
}
