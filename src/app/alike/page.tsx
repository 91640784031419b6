import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { unitsAlike } from "@/data/checks/units-alike";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { AlikeMatrix } from "./matrix";

export const metadata: Metadata = { title: "Units alike" };

type Props = { searchParams: Promise<{ machines?: string }> };

export default async function AlikePage({ searchParams }: Props) {
  const { machines } = await searchParams;
  const asked = typeof machines === "string" ? machines.split(",").filter((id) => id !== "") : [];
  try {
    const alike = unitsAlike(database(), { machines: asked, now: new Date().toISOString() });
    const chosen = alike.choices.filter(({ isChosen }) => isChosen).map(({ id }) => id);
    const toggled = (id: string) => (chosen.includes(id) ? chosen.filter((one) => one !== id) : [...chosen, id]);
    return (
      <main className="mx-auto max-w-[96rem] p-4">
        <h1 className="border-b-2 border-ink pb-1 text-2xl">Units alike, across machines</h1>
        {alike.choices.length === 0 ? (
          <p className="mt-3 text-lg">No machine here cuts with reels.</p>
        ) : (
          <>
            <nav aria-label="Machines" className="flex flex-wrap gap-1 py-2">
              {alike.choices.map(({ id, fleetNumber, site, isChosen }) => {
                const next = toggled(id);
                // One alone would bring its sisters with it.
                const isLastTwo = isChosen && next.length < 2;
                return (
                  <Link
                    key={id}
                    href={`/alike?machines=${isLastTwo ? chosen.join(",") : next.join(",")}`}
                    prefetch={false}
                    className={`btn ${isChosen ? "btn-on" : ""}`}
                    aria-current={isChosen ? "true" : undefined}
                  >
                    <span className="num font-bold">{fleetNumber}</span>&nbsp;{site}
                  </Link>
                );
              })}
            </nav>
            <AlikeMatrix alike={alike} />
          </>
        )}
      </main>
    );
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") notFound();
    throw error;
  }
}
