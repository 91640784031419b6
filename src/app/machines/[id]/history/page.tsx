import type { Metadata } from "next";
import { headers } from "next/headers";
import Link from "next/link";
import { notFound } from "next/navigation";
import { paperAddress } from "@/app/paper/address";
import { PrintButton } from "@/app/paper/print-button";
import { QrCode } from "@/app/paper/qr";
import { currentPerson } from "@/app/session";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { historyPaper } from "../book/history-paper";

export const metadata: Metadata = { title: "History on paper" };

type Props = { params: Promise<{ id: string }> };

function paperOf(id: string, system: "us" | "metric") {
  try {
    return historyPaper(database(), id, { system, zone: Intl.DateTimeFormat().resolvedOptions().timeZone, now: new Date().toISOString() });
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") notFound();
    throw error;
  }
}

/** A machine's history, to be printed: light on ink, its code leads back to the record. */
export default async function HistoryPage({ params }: Props) {
  const { id } = await params;
  const system = (await currentPerson())?.unitSystem ?? "us";
  const paper = paperOf(id, system);
  const { origin } = paperAddress((await headers()).get("host"));
  return (
    <main className="mx-auto max-w-[56rem] bg-white p-4 text-black print:max-w-none print:p-0">
      <div className="mb-3 flex flex-wrap gap-2 print:hidden">
        <PrintButton />
        {(["a4", "letter"] as const).map((size) => (
          <a key={size} className="btn" href={`/api/v1/machines/${id}/history?size=${size}&units=${system}`}>
            PDF, {size === "a4" ? "A4" : "Letter"}
          </a>
        ))}
        <Link href={`/machines/${id}`} className="btn" prefetch={false}>
          Its page
        </Link>
      </div>
      <div className="flex items-start gap-4">
        <div className="grow">
          <h1 className="num text-4xl font-bold">{paper.fleetNumber}</h1>
          <p className="text-lg">
            {paper.machine}, {paper.site} · {paper.hours}
          </p>
          <p className="text-sm">Printed {paper.printed}</p>
        </div>
        <QrCode text={`${origin}/machines/${id}`} size="26mm" label={`Back to ${paper.fleetNumber}`} />
      </div>
      {paper.warnings.map((words) => (
        <p key={words} className="my-1 border-2 border-black px-2 py-1 font-bold">
          {words}
        </p>
      ))}
      <table className="mt-2 w-full text-sm">
        <thead>
          <tr className="border-b-2 border-black text-left">
            <th className="py-1 pr-2">When</th>
            <th className="pr-2">Who</th>
            <th className="pr-2">Sort</th>
            <th>What</th>
          </tr>
        </thead>
        <tbody>
          {paper.lines.map(({ when, who, what, words, lines }, k) => (
            // biome-ignore lint/suspicious/noArrayIndexKey: lines of a paper never move
            <tr key={k} className="break-inside-avoid border-b border-neutral-400 align-top">
              <td className="py-1 pr-2 whitespace-nowrap">{when}</td>
              <td className="py-1 pr-2">{who}</td>
              <td className="py-1 pr-2">{what}</td>
              <td className="py-1">
                <b>{words}</b>
                {lines.length > 0 && <span className="block">{lines.join(" · ")}</span>}
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      {paper.left > 0 && <p className="py-2">{paper.left} older lines stand in the record.</p>}
    </main>
  );
}
