import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { getRound, isThrough } from "@/data/fleet/rounds";
import { database } from "@/data/open";
import { localDay } from "@/data/store/clock";
import { AppError } from "@/data/store/errors";
import { dateOnly } from "@/ui/time";
import { taskLabel } from "@/ui/words/service";
import { RoundLines } from "./round-lines";

export const metadata: Metadata = { title: "Round" };

function found(id: string) {
  try {
    return getRound(database(), /^\d{1,9}$/.test(id) ? Number(id) : 0);
  } catch (error) {
    if (error instanceof AppError && (error.code === "round-not-found" || error.code === "machine-not-found")) notFound();
    throw error;
  }
}

/** A round, machine by machine: Enter marks the one in hand and goes to the next. */
export default async function RoundPage({ params }: { params: Promise<{ id: string }> }) {
  const round = found((await params).id);
  const now = new Date().toISOString();
  const left = round.lines.filter(({ done }) => !done).length;
  const again = round.lines.filter(({ recheck }) => recheck && !recheck.done).length;
  const isLate = left > 0 && round.byDay < localDay(now);
  return (
    <main className="mx-auto max-w-[62rem] p-4">
      <p>
        <Link href="/service" className="underline" prefetch={false}>
          Service
        </Link>{" "}
        · {taskLabel(round.what)} · by {dateOnly(round.byDay)}, {round.who}
      </p>
      <h1 className="text-2xl">{round.title}</h1>
      <p className={`py-1 text-2xl font-bold ${isThrough(round) ? "text-good" : isLate ? "text-mark" : ""}`}>
        {isThrough(round)
          ? "Through."
          : `${left === 0 ? "All done" : `${left} of ${round.lines.length} to do`}${again > 0 ? `, ${again} to be looked at again` : ""}${isLate ? ", and its day is gone" : ""}.`}
      </p>
      <RoundLines round={round} now={now} />
    </main>
  );
}
