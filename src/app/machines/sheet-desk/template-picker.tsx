"use client";

import { useState } from "react";
import { KINDS, type KindId, kindById } from "@/core/catalogue/kinds";
import type { Machine } from "@/core/machine";
import { TEMPLATES, templateMachine } from "@/core/machine/specification";
import { Choice } from "@/ui/choice";
import { readEntry, writeQuantity } from "@/ui/entry";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { asEstimated } from "./draft";

export type Sister = { id: string; fleetNumber: string; name: string };

/** What a machine is begun from: its kind with so many of what cuts and so wide, or a copy of a sister that stands here already. */
export function TemplatePicker(args: {
  sisters: readonly Sister[];
  onTake: (machine: Machine, words: string) => void;
  onCopy: (id: string) => void;
}) {
  const { system } = useSeat();
  const [kind, setKind] = useState<KindId>("zero-turn");
  const { cutters: offered, usual, leastWidthMetres, mostWidthMetres } = TEMPLATES[kind];
  const [count, setCount] = useState(usual.cutters);
  const written = (metres: number) => String(Number(Number(writeQuantity({ valueSi: metres, dimension: "length", system })).toFixed(1)));
  const [width, setWidth] = useState(written(usual.widthMetres));
  const [sure, setSure] = useState("");
  /** Copied from a sister, no kind is picked; another one would throw the copy away, and is asked about. */
  const [copied, setCopied] = useState<{ from: string; anew?: KindId }>();
  const entry = readEntry({
    text: width,
    place: { dimension: "length", range: { least: leastWidthMetres, most: mostWidthMetres } },
    system,
    sure,
  });
  const isReel = kindById(kind).cutsWith === "reel";
  const take = (next: { kind: KindId; cutters: number; widthMetres: number }) =>
    args.onTake(asEstimated(templateMachine(next)), `${kindById(next.kind).label}, begun from its template`);
  const pick = (next: KindId) => {
    setCopied(undefined);
    const { usual: own } = TEMPLATES[next];
    setKind(next);
    setCount(own.cutters);
    setWidth(written(own.widthMetres));
    take(own);
  };
  return (
    <fieldset className="mt-2 border-y border-rule py-1">
      <legend className="caps">Begin from</legend>
      <Choice
        label="Kind of machine"
        value={copied ? "" : kind}
        options={KINDS.map(({ id, label }) => [id as string, label])}
        onChange={(next) => (copied ? setCopied({ ...copied, anew: next as KindId }) : pick(next as KindId))}
      />
      {copied && <p className="leading-snug">A copy of {copied.from}, with its kind, sizes and words.</p>}
      {copied?.anew && (
        <button type="button" className="btn btn-stop" onClick={() => copied.anew && pick(copied.anew)}>
          Throw the copy away and begin as {kindById(copied.anew).label.toLowerCase()}
        </button>
      )}
      {!copied && offered.length > 1 && (
        <Choice
          label={isReel ? "Units" : "Blades"}
          value={String(count)}
          options={offered.map((n) => [String(n), String(n)])}
          onChange={(n) => {
            setCount(Number(n));
            if (entry.kind === "read") take({ kind, cutters: Number(n), widthMetres: entry.valueSi });
          }}
        />
      )}
      {!copied && (
        <QuantityField
          id="template-width"
          label="Width of cut"
          hint={isReel ? "of all its units" : "tip to tip"}
          text={width}
          entry={entry}
          dimension="length"
          instrument="gauge"
          system={system}
          onText={(text) => {
            setWidth(text);
            const read = readEntry({
              text,
              place: { dimension: "length", range: { least: leastWidthMetres, most: mostWidthMetres } },
              system,
            });
            if (read.kind === "read") take({ kind, cutters: count, widthMetres: read.valueSi });
          }}
          onSure={setSure}
        />
      )}
      {args.sisters.length > 0 && (
        <label className="block py-1">
          <span className="caps">Or a copy of</span>
          <select
            className="input"
            value=""
            onChange={(event) => {
              const sister = args.sisters.find(({ id }) => id === event.target.value);
              if (!sister) return;
              setCopied({ from: sister.fleetNumber });
              args.onCopy(sister.id);
            }}
          >
            <option value="">a sister that stands here already …</option>
            {args.sisters.map(({ id, fleetNumber, name }) => (
              <option key={id} value={id}>
                {fleetNumber} {name}
              </option>
            ))}
          </select>
        </label>
      )}
    </fieldset>
  );
}
