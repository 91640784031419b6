"use client";

import { type ColumnDef, flexRender, getCoreRowModel, useReactTable } from "@tanstack/react-table";
import { useWindowVirtualizer } from "@tanstack/react-virtual";
import { ArrowDown, ArrowUp } from "lucide-react";
import Link from "next/link";
import { unparse } from "papaparse";
import { useMemo, useRef, useState } from "react";
import { table } from "@/core/basics/tables";
import type { FleetRow } from "@/data/fleet/fleet";
import { useSeat } from "@/ui/person";
import { PlanPicture } from "@/ui/plan-picture";
import { show } from "@/ui/words/quantities";
import { addressOf, type FleetView, SHOWS, STATE_WORDS, shownRows } from "./fleet-columns";

const ROW_PIXELS = 72;
const DRAWN_WHOLE = 120;
const TONES: Partial<Record<FleetRow["state"], string>> = {
  held: "text-mark font-bold",
  struck: "text-mark font-bold",
  ready: "text-good",
  retired: "text-soft",
};

const count = (value: number, isGrave = false) =>
  value === 0 ? <span className="text-soft">0</span> : <span className={`font-bold ${isGrave ? "text-mark" : ""}`}>{value}</span>;

/** All machines in one table that also lies on a telephone: found as it is typed, sorted and filtered in the address, saved as it is shown. */
export function FleetTable({ rows, start }: { rows: readonly FleetRow[]; start: FleetView }) {
  const { system } = useSeat();
  const [view, setView] = useState(start);
  const change = (next: Partial<FleetView>) => {
    const all = { ...view, ...next };
    setView(all);
    window.history.replaceState(null, "", `${window.location.pathname}${addressOf(all)}`);
  };
  const data = useMemo(() => shownRows(rows, view), [rows, view]);
  const columns = useMemo<ColumnDef<FleetRow>[]>(
    () => [
      {
        id: "picture",
        header: "",
        cell: ({ row: { original: one } }) => (
          <PlanPicture machineId={one.id} sheetVersion={one.sheetVersion} label={`${one.fleetNumber} from above`} width={72} height={56} />
        ),
      },
      {
        id: "number",
        header: "Machine",
        cell: ({ row: { original: one } }) => (
          <Link href={`/machines/${one.id}`} prefetch={false} className="block leading-tight">
            <span className="num text-xl font-bold underline">{one.fleetNumber}</span>
            <span className="block text-sm">{one.name}</span>
            <span className={`block text-sm md:hidden ${TONES[one.state] ?? ""}`}>
              {STATE_WORDS[one.state]}
              {one.due > 0 ? ` · ${one.due} due` : ""}
              {one.owed > 0 ? ` · ${one.owed} owed` : ""}
            </span>
          </Link>
        ),
      },
      {
        id: "state",
        header: "Stands",
        cell: ({ row: { original: one } }) => <span className={TONES[one.state]}>{STATE_WORDS[one.state]}</span>,
      },
      {
        id: "jobs",
        header: "Open",
        cell: ({ row: { original: one } }) =>
          one.openJobs.length === 0 ? (
            count(0)
          ) : (
            <span className="flex flex-wrap gap-x-2">
              {one.openJobs.map(({ id }) => (
                <Link key={id} href={`/jobs/${id}`} prefetch={false} className="num font-bold underline">
                  {id}
                </Link>
              ))}
            </span>
          ),
      },
      {
        id: "due",
        header: "Due",
        cell: ({ row: { original: one } }) =>
          one.due === 0 ? (
            count(0)
          ) : (
            <Link href={`/machines/${one.id}#service`} prefetch={false} className="underline">
              {count(one.due, true)}
            </Link>
          ),
      },
      { id: "owed", header: "Owed", cell: ({ row: { original: one } }) => count(one.owed, true) },
      { id: "odd", header: "Not as built", cell: ({ row: { original: one } }) => count(one.notAsBuilt) },
      {
        id: "hours",
        header: "Hours",
        cell: ({ row: { original: one } }) =>
          one.hours === undefined ? <span className="text-soft">not read</span> : one.hours.toFixed(0),
      },
      { id: "site", header: "Mows", cell: ({ row: { original: one } }) => one.site },
      {
        id: "kind",
        header: "Kind",
        cell: ({ row: { original: one } }) => (
          <>
            {one.kindLabel}
            <span className="block text-sm text-soft">{show(one.widthMetres, "length", system)}</span>
          </>
        ),
      },
    ],
    [system],
  );
  const table = useReactTable({ data, columns, getCoreRowModel: getCoreRowModel(), getRowId: ({ id }) => id });
  const frame = useRef<HTMLDivElement>(null);
  const virtual = useWindowVirtualizer({
    count: data.length,
    estimateSize: () => ROW_PIXELS,
    // A short fleet is drawn whole: the browser's own search and a print then find every machine.
    overscan: data.length <= DRAWN_WHOLE ? data.length : 4,
    scrollMargin: frame.current?.offsetTop ?? 0,
    initialRect: { width: 1280, height: 900 },
  });
  const save = () => {
    const lines = data.map((one) => ({
      number: one.fleetNumber,
      name: one.name,
      kind: one.kindLabel,
      site: one.site,
      stands: STATE_WORDS[one.state],
      open_jobs: one.openJobs.map(({ id }) => id).join(" "),
      due: one.due,
      owed: one.owed,
      not_as_built: one.notAsBuilt,
      hours: one.hours ?? "",
      width_metres: one.widthMetres.toFixed(4),
    }));
    const address = URL.createObjectURL(
      new Blob([unparse(lines, { escapeFormulae: true, header: true, newline: "\r\n" })], { type: "text/csv;charset=utf-8" }),
    );
    const link = document.createElement("a");
    link.href = address;
    link.download = "machines.csv";
    link.click();
    URL.revokeObjectURL(address);
  };
  const items = virtual.getVirtualItems();
  const held = rows.filter(({ state }) => state === "held" || state === "struck").length;
  return (
    <>
      <div className="flex flex-wrap items-end gap-2 py-1">
        <label className="min-w-48 grow sm:max-w-[22rem]">
          <span className="caps">Find by number, name, site or kind</span>
          <input className="input" type="search" value={view.q} onChange={(event) => change({ q: event.target.value })} />
        </label>
        <fieldset className="flex flex-wrap gap-1" aria-label="Show">
          {SHOWS.map(([id, words]) => (
            <button
              key={id}
              type="button"
              className={`btn px-3 ${view.show === id ? "btn-on" : ""}`}
              aria-pressed={view.show === id}
              onClick={() => change({ show: id })}
            >
              {words}
              {id === "held" && held > 0 && <span className="num">{held}</span>}
            </button>
          ))}
        </fieldset>
        <button type="button" className="btn" onClick={save}>
          Save as CSV
        </button>
      </div>
      <p className="text-sm text-soft" aria-live="polite">
        {data.length} of {rows.length} {rows.length === 1 ? "machine" : "machines"}
      </p>
      <div ref={frame}>
        <table aria-label="Machines" aria-rowcount={data.length + 1} className="w-full table-fixed">
          <thead className="max-md:hidden">
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id} className="border-b-2 border-ink text-left">
                {group.headers.map((header) => (
                  <Head key={header.id} id={header.id} view={view} onSort={change}>
                    {flexRender(header.column.columnDef.header, header.getContext())}
                  </Head>
                ))}
              </tr>
            ))}
          </thead>
          <tbody>
            <Spacer pixels={(items[0]?.start ?? 0) - (items.length > 0 ? virtual.options.scrollMargin : 0)} />
            {items.map((item) => {
              const row = table.getRowModel().rows[item.index];
              if (!row) return null;
              return (
                <tr
                  key={row.id}
                  aria-rowindex={item.index + 2}
                  className="border-b border-rule hover:bg-sheet"
                  style={{ height: ROW_PIXELS }}
                >
                  {row.getVisibleCells().map((cell) => (
                    <td key={cell.id} className={`pr-3 align-middle ${classOf(cell.column.id)}`}>
                      {flexRender(cell.column.columnDef.cell, cell.getContext())}
                    </td>
                  ))}
                </tr>
              );
            })}
            <Spacer pixels={virtual.getTotalSize() - ((items.at(-1)?.end ?? 0) - (items.length > 0 ? virtual.options.scrollMargin : 0))} />
          </tbody>
        </table>
      </div>
      {data.length === 0 && <p className="py-3 text-lg">No machine is like that.</p>}
    </>
  );
}

/** Rows that are not drawn keep their room. */
const Spacer = ({ pixels }: { pixels: number }) => (pixels > 0 ? <tr style={{ height: pixels }} /> : null);

const NUMERIC = ["due", "owed", "odd", "hours"];
const WIDTHS: Record<string, string> = table({
  picture: "w-22",
  number: "md:w-[19%]",
  state: "w-[13%]",
  jobs: "w-16",
  due: "w-14",
  owed: "w-16",
  odd: "w-24",
  hours: "w-22",
  site: "w-[14%]",
  kind: "w-[14%]",
});
const classOf = (id: string): string =>
  [WIDTHS[id] ?? "", NUMERIC.includes(id) ? "num text-right" : "", id === "picture" || id === "number" ? "" : "max-md:hidden"].join(" ");

/** A column's head: pressed it sorts, pressed again the other way round. */
function Head(args: { id: string; view: FleetView; onSort: (next: Partial<FleetView>) => void; children: React.ReactNode }) {
  const { id, view, onSort } = args;
  const isBy = view.by === id;
  const Arrow = view.down ? ArrowDown : ArrowUp;
  return (
    <th
      scope="col"
      aria-sort={isBy ? (view.down ? "descending" : "ascending") : undefined}
      className={`pr-3 align-bottom ${classOf(id).replace("num ", "")}`}
    >
      {id === "picture" ? (
        <span className="sr-only">From above</span>
      ) : (
        <button
          type="button"
          className="inline-flex min-h-11 items-center gap-1 font-semibold"
          onClick={() => onSort({ by: id, down: isBy ? !view.down : false })}
        >
          {args.children}
          {isBy && <Arrow size={16} aria-hidden="true" />}
        </button>
      )}
    </th>
  );
}
