"use client";

import { ArrowDown, ArrowUp, Trash2 } from "lucide-react";
import Link from "next/link";
import { useRouter } from "next/navigation";
import { type PointerEvent, useMemo, useRef, useState } from "react";
import { type Pulley, withSheet } from "@/core/machine";
import { machineBelt } from "@/core/physics/drive/machine-belt";
import type { MachineRecord } from "@/data/machine/machines";
import { BeltPath } from "@/drawings/belt-path";
import { beltScene } from "@/drawings/belt-path/scene";
import { fitInto } from "@/drawings/fit";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { useSubmission } from "@/ui/send";
import { sayBelt, sayRouteProblem } from "@/ui/words/belt";
import { sayError, sayIssue } from "@/ui/words/issues";
import { firstSketch, movedTo, nearestRun, readSketch, type Sketch, type SketchedPulley, withBelt, withIdler } from "./sketch";

const WIDTH = 760;
const HEIGHT = 560;
const ROOM_METRES = 0.12;
/** A finger is no finer than this. */
const TOUCH_PIXELS = 26;

/** The belt's path of one machine, sketched: pulleys moved about on the deck, their order and side told, the belt laid with each change. */
export function BeltSketch({ record }: { record: MachineRecord }) {
  const { system } = useSeat();
  const key = `belt:${record.id}:${record.sheetVersion}:${system}`;
  return <SketchBoard key={key} record={record} draftKey={key} />;
}

function SketchBoard({ record, draftKey }: { record: MachineRecord; draftKey: string }) {
  const { who, system } = useSeat();
  const router = useRouter();
  const { submit, isBusy } = useSubmission();
  const { machine } = record;
  const first = useMemo(() => firstSketch(machine, system), [machine, system]);
  const { value: sketch, set, clear, wasKept, ticket } = useDraft<Sketch>(draftKey, first);
  const [sure, setSure] = useState<Record<string, string>>({});
  const [here, setHere] = useState<string>();
  const [isAdding, setAdding] = useState(false);
  const [failed, setFailed] = useState("");
  const [before, setBefore] = useState<Sketch[]>([]);
  const read = readSketch(sketch, system, sure);
  const laid = withLaid(machine, read.pulleys, read.isReadable ? read.lengthMetres : undefined);
  const found = read.isReadable ? machineBelt(laid) : undefined;
  const said = !found
    ? ["A size cannot be read yet."]
    : found.ok
      ? sayBelt(found.belt, machine, sketch.pulleys, system)
      : [sayRouteProblem(found.problem, sketch.pulleys)];
  const isGood = found?.ok === true && found.belt.wrongWay.length === 0 && found.belt.route.fouled.length === 0;
  const change = (next: Sketch) => {
    setBefore((all) => [...all.slice(-40), sketch]);
    set(next);
  };
  const changePulley = (id: string, make: (one: SketchedPulley) => SketchedPulley) =>
    change({ ...sketch, pulleys: sketch.pulleys.map((one) => (one.id === id ? make(one) : one)) });
  const save = async () => {
    const sent = await submit(
      `/api/v1/machines/${record.id}/sheet`,
      { who: who ?? "", basedOnVersion: record.sheetVersion, machine: withBelt(machine, read), reason: "Belt path sketched" },
      { method: "PUT", ticket },
    );
    if (!sent) return;
    if (sent.ok) {
      clear();
      router.push(`/machines/${record.id}`);
      router.refresh();
      return;
    }
    const first = sent.issues[0];
    setFailed(first && sent.error === "invalid" ? sayIssue(first, system) : sayError(who ? sent.error : "unknown-person"));
  };
  return (
    <main className="grid grid-cols-1 lg:h-[calc(100dvh-3.25rem-var(--notes,0px))] lg:grid-cols-[minmax(0,1fr)_27rem]">
      <section aria-label="Drawing" className="dye flex min-h-0 flex-col p-2">
        <SketchDrawing
          machine={laid}
          start={machine}
          here={here}
          isAdding={isAdding}
          weak={found?.ok ? found.belt.slipsFirst?.id : undefined}
          label={said.join(" ")}
          onHere={setHere}
          onDrag={(id, at, isFirst) => {
            if (isFirst) setBefore((all) => [...all.slice(-40), sketch]);
            set((now) => ({ ...now, pulleys: now.pulleys.map((one) => (one.id === id ? movedTo(one, at, system) : one)) }));
          }}
          onAdd={(at) => {
            setAdding(false);
            const next = withIdler(sketch, at, nearestRun(read.pulleys, at), system);
            change(next);
            setHere(next.pulleys.find(({ id }) => !sketch.pulleys.some((one) => one.id === id))?.id);
          }}
        />
      </section>
      <section aria-label="Belt path" className="min-h-0 overflow-y-auto bg-sheet p-4 lg:border-l lg:border-rule">
        <h1 className="text-xl">
          <Link href={`/machines/${record.id}`} className="underline">
            {record.fleetNumber}
          </Link>
          , belt path
        </h1>
        <p className={`mt-1 text-2xl leading-tight font-bold ${isGood ? "" : "text-mark"}`} aria-live="polite">
          {said[0]}
        </p>
        {said.slice(1).map((sentence) => (
          <p key={sentence} className="leading-snug">
            {sentence}
          </p>
        ))}
        <div className="mt-2 flex flex-wrap gap-1">
          <button
            type="button"
            className={`btn grow ${isAdding ? "btn-on" : ""}`}
            aria-pressed={isAdding}
            onClick={() => setAdding(!isAdding)}
          >
            {isAdding ? "Touch where it sits" : "Add an idler"}
          </button>
          <button
            type="button"
            className="btn"
            disabled={before.length === 0}
            onClick={() => {
              const last = before.at(-1);
              if (last) set(last);
              setBefore(before.slice(0, -1));
            }}
          >
            Undo
          </button>
          {wasKept && (
            <button type="button" className="btn" onClick={clear}>
              Back to the sheet
            </button>
          )}
        </div>
        <p className="mt-2 text-sm leading-snug text-soft">
          From above, in the belt's own order. Right is plus across, forward is plus along, from the middle of the fixed axle. Diameters are
          pitch diameters: where the cord runs, not the rim.
        </p>
        <ol className="ruled mt-1">
          {sketch.pulleys.map((pulley, k) => (
            <PulleyRow
              key={pulley.id}
              pulley={pulley}
              order={k + 1}
              isHere={pulley.id === here}
              entries={read.entries}
              sure={(field, text) => setSure((all) => ({ ...all, [`${pulley.id}.${field}`]: text }))}
              onHere={() => setHere(pulley.id)}
              onChange={(make) => changePulley(pulley.id, make)}
              onMove={(by) => change({ ...sketch, pulleys: swapped(sketch.pulleys, k, k + by) })}
              onRemove={
                pulley.role === "idler"
                  ? () => change({ ...sketch, pulleys: sketch.pulleys.filter(({ id }) => id !== pulley.id) })
                  : undefined
              }
              isLast={k === sketch.pulleys.length - 1}
            />
          ))}
        </ol>
        <QuantityField
          id="belt-length"
          label="Length on the belt"
          hint="if known"
          text={sketch.length}
          entry={read.entries.length ?? { kind: "empty" }}
          dimension="length"
          instrument="gauge"
          system={system}
          onText={(length) => change({ ...sketch, length })}
          onSure={(text) => setSure((all) => ({ ...all, length: text }))}
        />
        {failed && (
          <p className="trouble" role="alert">
            {failed}
          </p>
        )}
        <div className="sticky -bottom-4 -mx-4 mt-2 border-t border-rule bg-sheet px-4 py-2">
          <button type="button" className="btn btn-go w-full" disabled={isBusy || !found?.ok} onClick={save}>
            {isBusy ? "Saving …" : "Put it on the sheet"}
          </button>
        </div>
      </section>
    </main>
  );
}

function swapped<T>(all: readonly T[], from: number, to: number): T[] {
  const next = [...all];
  const [one] = next.splice(from, 1);
  if (one !== undefined) next.splice(to, 0, one);
  return next;
}

function withLaid(machine: MachineRecord["machine"], pulleys: Pulley[], lengthMetres: number | undefined): MachineRecord["machine"] {
  return withSheet(machine, { belt: { pulleys, ...(lengthMetres === undefined ? {} : { lengthMetres }) } });
}

const SIDES = [
  ["inside", "Belt's inside"],
  ["outside", "Belt's back"],
] as const;

function PulleyRow(args: {
  pulley: SketchedPulley;
  order: number;
  isHere: boolean;
  isLast: boolean;
  entries: ReturnType<typeof readSketch>["entries"];
  sure: (field: string, text: string) => void;
  onHere: () => void;
  onChange: (make: (one: SketchedPulley) => SketchedPulley) => void;
  onMove: (by: 1 | -1) => void;
  onRemove: (() => void) | undefined;
}) {
  const { pulley, order, isHere, entries, onChange } = args;
  const { system } = useSeat();
  const field = (key: "x" | "y" | "diameter", label: string) => (
    <QuantityField
      id={`${pulley.id}-${key}`}
      label={label}
      text={pulley[key]}
      entry={entries[`${pulley.id}.${key}`] ?? { kind: "empty" }}
      dimension="length"
      instrument="gauge"
      system={system}
      onFocus={args.onHere}
      onText={(text) => onChange((one) => ({ ...one, [key]: text }))}
      onSure={(text) => args.sure(key, text)}
    />
  );
  return (
    <li className={`py-2 ${isHere ? "border-l-4 border-ink pl-2" : ""}`} aria-label={pulley.label}>
      <div className="flex items-center gap-1">
        <span className="num w-6 text-lg font-bold">{order}</span>
        <button type="button" className="grow text-left text-lg font-bold" aria-expanded={isHere} onClick={args.onHere}>
          {pulley.label}
          <span className="block text-sm font-normal text-soft">
            {pulley.side === "inside" ? "belt's inside" : "belt's back"}, {pulley.diameter} {system === "us" ? "in" : "mm"}
          </span>
        </button>
        <button
          type="button"
          className="btn px-2"
          aria-label={`${pulley.label}: earlier`}
          disabled={order === 1}
          onClick={() => args.onMove(-1)}
        >
          <ArrowUp size={18} aria-hidden="true" />
        </button>
        <button
          type="button"
          className="btn px-2"
          aria-label={`${pulley.label}: later`}
          disabled={args.isLast}
          onClick={() => args.onMove(1)}
        >
          <ArrowDown size={18} aria-hidden="true" />
        </button>
        {args.onRemove && (
          <button type="button" className="btn px-2" aria-label={`${pulley.label}: take away`} onClick={args.onRemove}>
            <Trash2 size={18} aria-hidden="true" />
          </button>
        )}
      </div>
      {isHere && (
        <div className="mt-1">
          {field("diameter", "Pitch diameter")}
          {field("x", "Across, right is plus")}
          {field("y", "Along, forward is plus")}
          <Choice
            label="Runs on it"
            value={pulley.side}
            options={SIDES.map(([id, label]) => [id, label])}
            onChange={(side) => onChange((one) => ({ ...one, side: side as SketchedPulley["side"] }))}
          />
        </div>
      )}
    </li>
  );
}

function SketchDrawing(args: {
  machine: MachineRecord["machine"];
  start: MachineRecord["machine"];
  here: string | undefined;
  isAdding: boolean;
  weak: string | undefined;
  label: string;
  onHere: (id: string) => void;
  onDrag: (id: string, at: { x: number; y: number }, isFirst: boolean) => void;
  onAdd: (at: { x: number; y: number }) => void;
}) {
  const { machine, start, here, isAdding } = args;
  const held = useRef<{ id: string; hasMoved: boolean } | undefined>(undefined);
  const scene = beltScene(machine, machine.sheet.belt?.pulleys ?? [], "behind");
  // The scale stays as the deck gives it while pulleys are moved about.
  const fit = useMemo(() => {
    const { bounds } = beltScene(start, start.sheet.belt?.pulleys ?? [], "behind");
    const room = {
      left: bounds.left - ROOM_METRES,
      right: bounds.right + ROOM_METRES,
      near: bounds.near - 2 * ROOM_METRES,
      far: bounds.far + ROOM_METRES,
    };
    return fitInto({ bounds: room, width: WIDTH, height: HEIGHT, margin: 10 });
  }, [start]);
  const metresAt = (event: PointerEvent<SVGSVGElement>) => {
    const frame = event.currentTarget.getScreenCTM();
    if (!frame) return undefined;
    const page = new DOMPoint(event.clientX, event.clientY).matrixTransform(frame.inverse());
    const origin = fit.toPage({ x: 0, y: 0 });
    return { page, at: { x: (page.x - origin.x) / fit.scale, y: (origin.y - page.y) / fit.scale } };
  };
  return (
    <svg
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className={`min-h-0 w-full flex-1 touch-none max-lg:min-h-80 ${isAdding ? "cursor-crosshair" : ""}`}
      role="img"
      aria-label={`Deck and belt from above. ${args.label}`}
      onPointerDown={(event) => {
        const spot = metresAt(event);
        if (!spot) return;
        if (isAdding) {
          args.onAdd(spot.at);
          return;
        }
        const near = scene.pulleys
          .map(({ id, at, radius }) => {
            const { x, y } = fit.toPage(at);
            return { id, beyond: Math.hypot(spot.page.x - x, spot.page.y - y) - Math.max(TOUCH_PIXELS, radius * fit.scale) };
          })
          .filter(({ beyond }) => beyond <= 0)
          .sort((a, b) => a.beyond - b.beyond)[0];
        if (!near) return;
        event.currentTarget.setPointerCapture(event.pointerId);
        held.current = { id: near.id, hasMoved: false };
        args.onHere(near.id);
      }}
      onPointerMove={(event) => {
        const spot = held.current && metresAt(event);
        if (!held.current || !spot) return;
        args.onDrag(held.current.id, spot.at, !held.current.hasMoved);
        held.current.hasMoved = true;
      }}
      onPointerUp={() => {
        held.current = undefined;
      }}
      onPointerCancel={() => {
        held.current = undefined;
      }}
    >
      <BeltPath scene={scene} fit={fit} here={here} weak={args.weak} />
    </svg>
  );
}
