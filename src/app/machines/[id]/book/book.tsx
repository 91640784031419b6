import Link from "next/link";
import type { UnitSystem } from "@/core/basics/units";
import { type Machine, placesOf } from "@/core/machine";
import { BOOK_KINDS, type BookKind, bookOf } from "@/data/fleet/book";
import type { Db } from "@/data/store/db";
import { dateOnly } from "@/ui/time";
import { placeName } from "@/ui/words/quantities";
import { toldOf } from "./book-told";
import { bookLines, bookTitle, KIND_WORDS } from "./book-words";

/** What the address of the book says. */
export type BookAsked = { kind?: BookKind; place?: string; q?: string; from: number; pick?: number };

const SHOWN = 40;

export function askedFrom(params: Record<string, string | string[] | undefined>): BookAsked {
  const one = (key: string) => (typeof params[key] === "string" && params[key] !== "" ? (params[key] as string) : undefined);
  const kind = BOOK_KINDS.find((id) => id === one("kind"));
  const from = Number(one("from") ?? 0);
  const pick = Number(one("pick"));
  const [place, q] = [one("place"), one("q")];
  return {
    ...(kind ? { kind } : {}),
    ...(place ? { place } : {}),
    ...(q ? { q } : {}),
    from: Number.isSafeInteger(from) && from > 0 ? from : 0,
    ...(Number.isSafeInteger(pick) && pick > 0 ? { pick } : {}),
  };
}

/** The address of the book with something else asked; what is the same stays. */
export function bookAddress(machineId: string, asked: Partial<BookAsked>): string {
  const params = new URLSearchParams();
  for (const key of ["kind", "place", "q", "pick"] as const) if (asked[key] !== undefined) params.set(key, String(asked[key]));
  if (asked.from) params.set("from", String(asked.from));
  const text = params.toString();
  return `/machines/${machineId}${text ? `?${text}` : ""}#history`;
}

/** One time line of everything that was said, read, mended, struck, greased and changed, the newest first; found by kind, place and words. */
export function Book({
  db,
  machineId,
  machine,
  system,
  asked,
  now,
}: {
  db: Db;
  machineId: string;
  machine: Machine;
  system: UnitSystem;
  asked: BookAsked;
  now: string;
}) {
  const { from, pick, ...filter } = asked;
  const all = bookOf(db, machineId);
  const words = (filter.q ?? "").toLowerCase().split(/\s+/).filter(Boolean);
  const found = all.filter(
    (line) =>
      (!filter.kind || line.kind === filter.kind) &&
      (!filter.place || line.places.includes(filter.place)) &&
      words.every((word) => `${bookTitle(line, machine)} ${line.who}`.toLowerCase().includes(word)),
  );
  const shown = found.slice(from, from + SHOWN);
  const told = toldOf(db, { machineId, machine, system, all, shown, now });
  const kinds = BOOK_KINDS.filter((kind) => all.some((line) => line.kind === kind));
  const places = placesOf(machine).filter((place) => all.some((line) => line.places.includes(place)));
  return (
    <section id="history" aria-label="History">
      <h2 className="border-b-2 border-ink text-xl">History</h2>
      <form className="flex flex-wrap items-end gap-2 py-1" action={`/machines/${machineId}#history`}>
        {filter.kind && <input type="hidden" name="kind" value={filter.kind} />}
        <label className="grow">
          <span className="caps">Words</span>
          <input className="input" type="search" name="q" defaultValue={filter.q ?? ""} />
        </label>
        <label>
          <span className="caps">Place</span>
          <select className="input" name="place" defaultValue={filter.place ?? ""}>
            <option value="">everywhere</option>
            {places.map((place) => (
              <option key={place} value={place}>
                {placeName(machine, place)}
              </option>
            ))}
          </select>
        </label>
        <button type="submit" className="btn">
          Find
        </button>
      </form>
      <nav aria-label="Of what kind" className="flex flex-wrap gap-1 pb-1">
        {[undefined, ...kinds].map((kind) => (
          <Link
            key={kind ?? "all"}
            href={bookAddress(machineId, { ...filter, kind })}
            scroll={false}
            prefetch={false}
            className={`btn px-2 ${filter.kind === kind ? "btn-on" : ""}`}
            aria-current={filter.kind === kind ? "true" : undefined}
          >
            {kind ? KIND_WORDS[kind] : "All"}
          </Link>
        ))}
      </nav>
      {all.length === 0 && <p className="py-2 text-soft">No job yet.</p>}
      {all.length > 0 && shown.length === 0 && <p className="py-2 text-soft">Nothing in its book is like that.</p>}
      <ul className="ruled">
        {shown.map((line) => {
          const lines = bookLines(line, told);
          return (
            <li key={line.key} className="grid grid-cols-[6.5rem_minmax(0,1fr)] gap-x-3 py-1.5">
              <span className="text-sm text-soft">
                <span className="num block">{dateOnly(line.at)}</span>
                {line.who}
              </span>
              <span className="min-w-0 leading-snug">
                {line.jobId === undefined ? (
                  <span className={line.kind === "strike" ? "font-bold text-mark" : ""}>{bookTitle(line, machine)}</span>
                ) : (
                  <Link
                    href={`/jobs/${line.jobId}`}
                    prefetch={false}
                    className={`hover:underline ${line.kind === "complaint" ? "text-lg font-semibold" : ""}`}
                  >
                    {bookTitle(line, machine)}
                  </Link>
                )}
                {lines.length > 0 && <span className="block text-sm text-soft">{lines.join(" · ")}</span>}
                {line.kind === "complaint" && line.jobId !== undefined && (
                  <span className="flex flex-wrap gap-x-3 text-sm">
                    <span className="text-soft">job {line.jobId}</span>
                    {pick === undefined ? (
                      <Link
                        href={bookAddress(machineId, { ...filter, from, pick: line.jobId })}
                        scroll={false}
                        prefetch={false}
                        className="underline"
                      >
                        lay beside another visit
                      </Link>
                    ) : pick === line.jobId ? (
                      <Link
                        href={bookAddress(machineId, { ...filter, from })}
                        scroll={false}
                        prefetch={false}
                        className="font-bold underline"
                      >
                        picked; not this one
                      </Link>
                    ) : (
                      <Link
                        href={`/machines/${machineId}/visits?a=${Math.min(pick, line.jobId)}&b=${Math.max(pick, line.jobId)}`}
                        prefetch={false}
                        className="font-bold underline"
                      >
                        beside job {pick}
                      </Link>
                    )}
                  </span>
                )}
              </span>
            </li>
          );
        })}
      </ul>
      <div className="flex flex-wrap items-center gap-2 py-2">
        {from + SHOWN < found.length && (
          <Link href={bookAddress(machineId, { ...asked, from: from + SHOWN })} className="btn" prefetch={false}>
            Older
          </Link>
        )}
        {from > 0 && (
          <Link href={bookAddress(machineId, { ...asked, from: 0 })} className="btn" prefetch={false}>
            Newest
          </Link>
        )}
        <span className="num text-sm text-soft">
          {found.length === 0 ? "" : `${from + 1} to ${Math.min(found.length, from + SHOWN)} of ${found.length}`}
        </span>
      </div>
    </section>
  );
}
