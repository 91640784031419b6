import type { Metadata } from "next";
import Link from "next/link";
import { database } from "@/data/open";
import { listParts, setCounts } from "@/data/service/parts";
import { PartsList } from "./parts-list";

export const metadata: Metadata = { title: "Parts" };

/** What lies in stock, what is to be bought, and every set that has a mark of its own. */
export default async function Parts({ searchParams }: { searchParams: Promise<{ q?: string }> }) {
  const db = database();
  const parts = listParts(db);
  const low = parts.filter(({ isLow }) => isLow);
  const q = (await searchParams).q;
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <div className="flex flex-wrap items-center gap-2">
        <h1 className="grow text-2xl">Parts</h1>
        <Link href="/parts/new" className="btn btn-go" prefetch={false}>
          A new part
        </Link>
      </div>
      <p className={`py-1 text-xl font-bold ${low.length > 0 ? "text-mark" : ""}`}>
        {parts.length === 0
          ? "Nothing is kept here yet."
          : low.length === 0
            ? "Nothing is low."
            : `To buy: ${low.map(({ part, stock }) => `${part.label} (${stock} left, ${part.lowMark} wanted)`).join("; ")}.`}
      </p>
      <PartsList parts={parts} setsByPart={setCounts(db)} start={typeof q === "string" ? q : ""} />
    </main>
  );
}
