"use client";

import { type ReactNode, useState } from "react";
import { FEATURES, type FeatureId, featuresOf, kindById } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import {
  type PlaceSort,
  placeKey,
  type SheetField,
  type SheetPlace,
  sheetPlaces,
  UNIT_PART_IDS,
  type UnitPart,
  valueAt,
} from "@/core/machine/specification";
import { OWN_PART_WORDS, SORT_WORDS } from "@/ui/words/sheet";

/** Opened by hand or by what is wrong in it; what was wrong and is not any more does not shut it under the fingers. */
export function Part({ id, title, isBad, children }: { id: string; title: string; isBad: boolean; children: ReactNode }) {
  const [isOpen, setOpen] = useState(isBad);
  if (isBad && !isOpen) setOpen(true);
  return (
    <details id={id} className="border-t border-rule" open={isOpen} onToggle={(event) => setOpen(event.currentTarget.open)}>
      <summary className="min-h-11 cursor-pointer py-2 text-lg font-semibold">{title}</summary>
      {children}
    </details>
  );
}

const ownKey = (unit: SheetPlace, part: UnitPart) => placeKey(unit, "own", part);

/** What sets one unit apart: part by part, begun from what is said of all of them. */
export function OwnParts(args: {
  machine: Machine;
  /** The draft as it stands, sound or not. */
  loose: unknown;
  unit: SheetPlace;
  fields: readonly SheetField[];
  isTroubled: (field: SheetField) => boolean;
  row: (field: SheetField) => ReactNode;
  onOwn: (key: string, value: unknown) => void;
}) {
  const { machine, loose, unit, fields } = args;
  const [begun, setBegun] = useState<readonly string[]>([]);
  const bad = new Set(fields.filter(args.isTroubled).map(({ own }) => own));
  const told = UNIT_PART_IDS.filter((part) => valueAt(loose, ownKey(unit, part)) !== undefined || bad.has(part));
  const title =
    told.length === 0 ? "Like every other unit" : `Its own: ${told.map((part) => OWN_PART_WORDS[part].toLowerCase()).join(", ")}`;
  const begin = (part: UnitPart) => {
    const ofAll = valueAt(machine, `sheet.unit.${part}`);
    setBegun((all) => [...all, ownKey(unit, part)]);
    if (ofAll !== undefined) args.onOwn(ownKey(unit, part), ofAll);
  };
  const end = (part: UnitPart) => {
    setBegun((all) => all.filter((key) => key !== ownKey(unit, part)));
    args.onOwn(ownKey(unit, part), undefined);
  };
  return (
    <Part id={`own-${unit.id}`} title={title} isBad={bad.size > 0}>
      <p className="text-sm text-soft">What is told here holds for this unit alone, and takes the place of what is said of every unit.</p>
      {UNIT_PART_IDS.map((part) => {
        const isOwn = told.includes(part) || begun.includes(ownKey(unit, part));
        return (
          <section key={part} aria-label={`${OWN_PART_WORDS[part]} of this unit`} className="border-t border-rule py-1">
            <div className="flex items-center gap-2">
              <span className="grow">{OWN_PART_WORDS[part]}</span>
              <button type="button" className="btn" onClick={() => (isOwn ? end(part) : begin(part))}>
                {isOwn ? "As the others" : "Its own"}
              </button>
            </div>
            {isOwn && fields.filter((field) => field.own === part).map(args.row)}
          </section>
        );
      })}
    </Part>
  );
}

export function PlaceList(args: {
  machine: Machine;
  here: string | undefined;
  onHere: (id: string) => void;
  onAdd: (sort: PlaceSort) => void;
}) {
  const { machine } = args;
  const places = sheetPlaces(machine);
  const isReel = kindById(machine.kind).cutsWith === "reel";
  const sorts: PlaceSort[] = isReel
    ? ["units", "wheels"]
    : [
        "spindles",
        ...(machine.deck ? (["hangers", "antiScalpWheels"] as const) : []),
        "wheels",
        ...(featuresOf(machine).includes("gears") ? (["gearboxes"] as const) : []),
      ];
  return (
    <section aria-label="Places" className="py-1">
      {sorts.map((sort) => (
        <div key={sort} className="flex flex-wrap items-center gap-1 py-0.5">
          <span className="caps w-24 shrink-0">{SORT_WORDS[sort].many}</span>
          {places
            .filter((place) => place.sort === sort)
            .map((place) => (
              <button
                key={place.id}
                type="button"
                className={`btn px-2 ${place.id === args.here ? "btn-on" : ""}`}
                aria-pressed={place.id === args.here}
                onClick={() => args.onHere(place.id)}
              >
                {place.label}
              </button>
            ))}
          <button
            type="button"
            className="btn btn-quiet px-2"
            aria-label={`Another ${SORT_WORDS[sort].one}`}
            onClick={() => args.onAdd(sort)}
          >
            +
          </button>
        </div>
      ))}
    </section>
  );
}

/** What it has: which worksheets it gets. A deck of free blades may be told to be timed. */
export function Features({ machine, onChange }: { machine: Machine; onChange: (features: FeatureId[]) => void }) {
  const { usual, possible, cutsWith } = kindById(machine.kind);
  const has = featuresOf(machine);
  const offered = new Set<FeatureId>([
    ...usual,
    ...possible,
    ...has,
    ...(cutsWith === "rotary" && machine.spindles.length > 1 ? (["gears"] as const) : []),
  ]);
  return (
    <details className="border-t border-rule">
      <summary className="min-h-11 cursor-pointer py-2 text-lg font-semibold">What it has</summary>
      {FEATURES.filter(({ id }) => offered.has(id)).map(({ id, label }) => (
        <label key={id} className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 accent-ink"
            checked={has.includes(id)}
            onChange={(event) => onChange(event.target.checked ? [...has, id] : has.filter((one) => one !== id))}
          />
          {label}
        </label>
      ))}
    </details>
  );
}
