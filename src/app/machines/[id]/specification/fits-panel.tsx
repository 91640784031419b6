"use client";

import Link from "next/link";
import { FitMark } from "@/app/parts/[id]/part-tables";
import type { Fitting, SetRecord } from "@/data/service/parts";
import { useSeat } from "@/ui/person";
import { dateOnly } from "@/ui/time";
import { PART_WORDS, sayFit } from "@/ui/words/parts";

/** What of the stock goes on this machine by every dimension, and which marked sets are on it. */
export function FitsPanel({
  fits,
  sets,
  machineId,
  labels,
  isReel,
}: {
  fits: readonly Fitting[];
  sets: readonly SetRecord[];
  machineId: string;
  /** Of its places, by id. */
  labels: Readonly<Record<string, string>>;
  isReel: boolean;
}) {
  const { system } = useSeat();
  const here = sets.filter(({ standing }) => standing.on?.machineId === machineId);
  const good = fits.filter(({ fit, record }) => fit.verdict === "fits" && record.stock > 0);
  return (
    <section id="fits" aria-label="What fits" className="my-4">
      <h2 className="border-b-2 border-ink text-xl">What fits {isReel ? "its units" : "this deck"}</h2>
      <p className={`py-1 text-xl font-bold ${good.length > 0 ? "text-good" : "text-mark"}`}>
        {fits.length === 0
          ? "No part of its sort is kept."
          : good.length > 0
            ? `In stock: ${good.map(({ record }) => `${record.part.label} (${record.stock})`).join("; ")}.`
            : "Nothing in stock fits for sure."}
      </p>
      <ul className="ruled">
        {fits.map(({ record, fit }) => (
          <li key={record.id} className="grid items-baseline gap-x-3 py-1 sm:grid-cols-[8.5rem_1fr]">
            <FitMark verdict={fit.verdict} />
            <div>
              <span className="flex flex-wrap items-baseline gap-x-3">
                <Link href={`/parts/${record.id}`} prefetch={false} className="font-semibold underline">
                  {record.part.label}
                </Link>
                <span className="text-sm text-soft">{PART_WORDS[record.part.kind]}</span>
                <span className={`num ${record.isLow ? "font-bold text-mark" : ""}`}>{record.stock} in stock</span>
              </span>
              <span className="block text-sm">{sayFit(fit, system)}</span>
            </div>
          </li>
        ))}
      </ul>
      {here.length > 0 && (
        <>
          <h3 className="mt-2 border-b border-ink text-lg">On it now</h3>
          <ul className="ruled">
            {here.map(({ id, mark, partId, lot, standing }) => (
              <li key={id} className="flex flex-wrap gap-x-3 py-1">
                <Link href={`/parts/${partId}`} prefetch={false} className="num text-lg font-bold underline">
                  {mark}
                </Link>
                <span className="grow">
                  {standing.on?.place ? `${labels[standing.on.place] ?? standing.on.place}, ` : ""}
                  {standing.on?.work}, since {standing.on ? dateOnly(standing.on.since) : ""}
                  {lot ? ` · lot ${lot}` : ""}
                </span>
                <span className="num">
                  {standing.hours.toFixed(1)} h, edge {standing.edgeHours.toFixed(1)} h
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
