import type { Metadata } from "next";
import Link from "next/link";
import { awayNow } from "@/data/job/handover";
import { hazardCount } from "@/data/machine/site-places";
import { database } from "@/data/open";
import { dueNow, dueThisWeek } from "@/data/service/due";
import { listParts } from "@/data/service/parts";

export const metadata: Metadata = { title: "Shop" };

/** What belongs to the shop and not to one machine. */
export default function Shop() {
  const db = database();
  const now = new Date().toISOString();
  const due = dueThisWeek(dueNow(db, now), now);
  const low = listParts(db).filter(({ isLow }) => isLow).length;
  const away = awayNow(db).length;
  const lines: { href: string; title: string; words: string; says: string; isGrave?: boolean }[] = [
    {
      href: "/service",
      title: "Service",
      words: "What is due by hours, by the calendar and because of what happened; rounds; rules",
      says: `${due} due this week`,
      isGrave: due > 0,
    },
    {
      href: "/parts",
      title: "Parts",
      words: "Stock and lots, what fits which machine, sets by their mark",
      says: low > 0 ? `${low} to buy` : "none low",
      isGrave: low > 0,
    },
    { href: "/handover", title: "Handed over", words: "What left the bay, to whom, and what is owed on it", says: `${away} away` },
    {
      href: "/sites",
      title: "Sites",
      words: "Places where something lies in wait for blades, and what was struck there",
      says: `${hazardCount(db)} known`,
    },
    { href: "/holds", title: "Does it hold", words: "What came back, how long finding took, whose fault it was", says: "" },
    {
      href: "/procedures",
      title: "Procedures and schools",
      words: "How it is done here, as versions; which school the depot follows",
      says: "",
    },
    { href: "/machines/sisters", title: "Sisters side by side", words: "Where machines that ought to be alike differ", says: "" },
    { href: "/labels", title: "Labels", words: "A code for every machine, read by a telephone", says: "" },
  ];
  return (
    <main className="mx-auto max-w-[62rem] p-4">
      <h1 className="text-2xl">The shop</h1>
      <ul className="ruled">
        {lines.map(({ href, title, words, says, isGrave }) => (
          <li key={href}>
            <Link href={href} prefetch={false} className="flex min-h-16 flex-wrap items-center gap-x-4 py-2 hover:bg-sheet">
              <span className="w-60 text-xl font-bold">{title}</span>
              <span className="min-w-52 grow text-soft">{words}</span>
              <span className={`num text-lg font-bold ${isGrave ? "text-mark" : ""}`}>{says}</span>
            </Link>
          </li>
        ))}
      </ul>
    </main>
  );
}
