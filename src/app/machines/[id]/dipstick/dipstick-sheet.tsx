"use client";

import { Printer } from "lucide-react";
import Link from "next/link";
import { useState } from "react";
import type { Gearbox } from "@/core/machine";
import { type Dipstick, type DipstickProblem, dipstick } from "@/core/physics/drive/dipstick";
import { DipstickDrawing } from "@/drawings/dipstick";
import { Choice } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { readEntry, writeQuantity } from "@/ui/entry";
import { useSeat } from "@/ui/person";
import { QuantityField } from "@/ui/quantity-field";
import { show } from "@/ui/words/quantities";

const DEPTH = { dimension: "length", range: { least: 0.005, most: 0.5, usualLeast: 0.01, usualMost: 0.25 } } as const;
const WET = { dimension: "length", range: { least: 0, most: 0.5 } } as const;

type Draft = { shaft: string; floor: string; wet: string; sure: Record<string, string> };

const PROBLEMS: Record<DipstickProblem["code"], string> = {
  "floor-above-shaft": "The floor lies under the shaft's top: one of the two depths is wrong.",
  "no-room-for-a-mark": "Too shallow beneath the shaft for a mark: read both depths again.",
  "wetter-than-the-rod": "Wet further up than the rod is long: measure from its tip.",
};

/** A dipstick for one gearbox, worked out from two depths and drawn to scale for the printer. */
export function DipstickSheet(args: { machineId: string; fleetNumber: string; boxes: readonly Gearbox[]; first: string | undefined }) {
  const { boxes } = args;
  const { system } = useSeat();
  const [chosen, setChosen] = useState(boxes.find(({ id }) => id === args.first)?.id ?? boxes[0]?.id ?? "");
  const box = boxes.find(({ id }) => id === chosen);
  if (!box) return null;
  return (
    <main className="mx-auto max-w-[64rem] p-4 print:p-0">
      <h1 className="text-2xl print:hidden">
        <Link href={`/machines/${args.machineId}`} className="underline">
          {args.fleetNumber}
        </Link>
        , dipstick
      </h1>
      <div className="print:hidden">
        <Choice label="Gearbox" value={chosen} options={boxes.map(({ id, label }) => [id, label])} onChange={setChosen} />
      </div>
      <OneBox key={`${chosen} ${system}`} machineId={args.machineId} fleetNumber={args.fleetNumber} box={box} />
    </main>
  );
}

function OneBox({ machineId, fleetNumber, box }: { machineId: string; fleetNumber: string; box: Gearbox }) {
  const { system } = useSeat();
  const known = box.coverToOilMetres;
  const { value, set } = useDraft<Draft>(`dipstick:${machineId}:${box.id}:${system}`, {
    shaft: known === undefined ? "" : String(Number(Number(writeQuantity({ valueSi: known, dimension: "length", system })).toFixed(3))),
    floor: "",
    wet: "",
    sure: {},
  });
  const entryOf = (key: "shaft" | "floor" | "wet") =>
    readEntry({ text: value[key], place: key === "wet" ? WET : DEPTH, system, sure: value.sure[key] });
  const [shaft, floor, wet] = [entryOf("shaft"), entryOf("floor"), entryOf("wet")];
  const found =
    shaft.kind === "read" && floor.kind === "read"
      ? dipstick({
          coverToShaftTopMetres: shaft.valueSi,
          coverToFloorMetres: floor.valueSi,
          ...(wet.kind === "read" ? { wetMetres: wet.valueSi } : {}),
        })
      : undefined;
  const field = (key: "shaft" | "floor" | "wet", label: string, entry: typeof shaft, hint?: string) => (
    <QuantityField
      id={`dipstick-${key}`}
      label={label}
      hint={hint}
      text={value[key]}
      entry={entry}
      dimension="length"
      instrument="gauge"
      system={system}
      onText={(text) => set((before) => ({ ...before, [key]: text }))}
      onSure={(text) => set((before) => ({ ...before, sure: { ...before.sure, [key]: text } }))}
    />
  );
  return (
    <div className="mt-2 grid gap-6 lg:grid-cols-[26rem_minmax(0,1fr)] print:block">
      <section aria-label="Depths" className="print:hidden">
        <p className="text-2xl leading-tight font-bold" aria-live="polite">
          {found === undefined
            ? "Two depths under the cover's face."
            : found.ok
              ? sayDipstick(found.dipstick, (metres) => show(metres, "length", system, "gauge"))
              : PROBLEMS[found.problem.code]}
        </p>
        <div className="ruled mt-2">
          {field(
            "shaft",
            "Cover's face down to the top of the shaft",
            shaft,
            known === undefined ? undefined : "from the sheet until it is measured",
          )}
          {field("floor", "Cover's face down to the floor beneath the hole", floor)}
          {field("wet", "Rod wet from its tip up", wet, "if it was dipped")}
        </div>
        <p className="mt-2 text-sm leading-snug text-soft">
          Level ground, engine cold, machine locked out. {box.oil ? `${box.oil} to the full mark. ` : ""}
          {box.isConnected ? "Connected boxes level out over hours: dip it again after standing. " : ""}
          The machine's manual goes first where it names a level.
        </p>
        <button type="button" className="btn btn-go mt-3 gap-2" disabled={!found?.ok} onClick={() => window.print()}>
          <Printer size={20} aria-hidden="true" />
          Print it to scale
        </button>
      </section>
      {found?.ok ? (
        <DipstickDrawing
          dipstick={found.dipstick}
          title={`${fleetNumber}, ${box.label.toLowerCase()}${box.oil ? `, ${box.oil}` : ""}`}
          say={(metres) => show(metres, "length", system, "gauge")}
        />
      ) : (
        <p className="grid min-h-40 place-items-center border border-rule p-4 text-center text-soft print:hidden">
          The rod appears here, to scale, once both depths are typed
        </p>
      )}
    </div>
  );
}

function sayDipstick({ rodMetres, tipToFullMetres, shortMetres }: Dipstick, say: (metres: number) => string): string {
  const mark = `Rod ${say(rodMetres)}, full mark ${say(tipToFullMetres)} up from its tip.`;
  if (shortMetres === undefined) return mark;
  if (Math.abs(shortMetres) < 0.001) return `Oil at the mark. ${mark}`;
  return `Oil ${say(Math.abs(shortMetres))} ${shortMetres > 0 ? "low" : "too high"}. ${mark}`;
}
