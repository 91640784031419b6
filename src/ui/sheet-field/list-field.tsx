"use client";

import { ArrowDown, ArrowUp, X } from "lucide-react";
import { Fragment, type ReactNode } from "react";
import type { SheetField } from "@/core/machine/specification";
import { useSeat } from "@/ui/person";
import { choiceWords } from "@/ui/words/sheet";
import { columnId, type FieldTrouble, linesOf, type RowText, rowsIn, rowTroubles } from "./read-text";

type Args<Kind> = {
  id: string;
  field: SheetField & { kind: Kind };
  text: string;
  hint: string | undefined;
  words: string | undefined;
  onText: (text: string) => void;
};

const moved = <T,>(all: readonly T[], from: number, to: number): T[] => {
  const rest = all.filter((_, k) => k !== from);
  return [...rest.slice(0, to), all[from] as T, ...rest.slice(to)];
};

/** Up, down and away, of one of several that stand in an order. */
function Handles<T>({ all, k, name, onAll }: { all: readonly T[]; k: number; name: string; onAll: (all: T[]) => void }) {
  const handle = (label: string, icon: ReactNode, isOff: boolean, next: () => T[]) => (
    <button type="button" className="btn btn-quiet px-2" aria-label={`${name}: ${label}`} disabled={isOff} onClick={() => onAll(next())}>
      {icon}
    </button>
  );
  return (
    <span className="flex shrink-0">
      {handle("earlier", <ArrowUp size={18} aria-hidden="true" />, k === 0, () => moved(all, k, k - 1))}
      {handle("later", <ArrowDown size={18} aria-hidden="true" />, k === all.length - 1, () => moved(all, k, k + 1))}
      {handle("away", <X size={18} aria-hidden="true" />, false, () => all.filter((_, at) => at !== k))}
    </span>
  );
}

function Listed(args: { label: string; hint: string | undefined; words: string | undefined; children: ReactNode }) {
  return (
    <fieldset className="py-1">
      <legend className="caps mb-1">
        {args.label}
        {args.hint && ` (${args.hint})`}
      </legend>
      {args.children}
      {args.words && (
        <p className="trouble mt-1" role="alert">
          {args.words}
        </p>
      )}
    </fieldset>
  );
}

/** Some of a few, one upon the other: touched in their order, each again as often as it comes. */
export function OrderField({ id, field, text, hint, words, onText, picture }: Args<"order"> & { picture: ReactNode }) {
  const all = linesOf(text);
  const put = (next: readonly string[]) => onText(next.join("\n"));
  return (
    <Listed label={field.label} hint={hint} words={words}>
      {all.length > 0 && picture}
      <ol className="ruled">
        {all.map((one, k) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: the same washer may come twice
          <li key={`${k} ${one}`} className="flex items-center gap-2">
            <span className="num w-6 text-right text-soft">{k + 1}</span>
            <span className="grow">{choiceWords(one)}</span>
            <Handles all={all} k={k} name={`${k + 1}, ${choiceWords(one)}`} onAll={put} />
          </li>
        ))}
      </ol>
      <div className="flex flex-wrap gap-1 pt-1">
        {field.options.map((option, k) => (
          <button
            key={option}
            {...(k === 0 ? { id } : {})}
            type="button"
            className="btn px-2"
            aria-label={`Next in the order: ${choiceWords(option)}`}
            disabled={all.length >= field.most}
            onClick={() => put([...all, option])}
          >
            + {choiceWords(option)}
          </button>
        ))}
      </div>
    </Listed>
  );
}

/** One value of a row, drawn as any value of the sheet is. */
export type Cell = { field: SheetField; text: string; trouble: FieldTrouble | undefined; onText: (text: string) => void };

/** Rows of like things, each typed and moved by itself. `usual`: what may be begun from while there is none. */
export function TableField(args: Args<"table"> & { usual: string | undefined; cell: (cell: Cell) => ReactNode }) {
  const { id, field, text, hint, words, onText, usual } = args;
  const { system } = useSeat();
  const rows = rowsIn(text);
  const put = (next: readonly RowText[]) => onText(next.length === 0 ? "" : JSON.stringify(next));
  return (
    <Listed label={field.label} hint={hint} words={words}>
      <ol>
        {rows.map((row, k) => {
          const troubles = rowTroubles(field, row, system);
          const name = `${field.row} ${k + 1}`;
          return (
            // biome-ignore lint/suspicious/noArrayIndexKey: a row that is not typed yet is nothing but its place
            <li key={k} className="mb-2 border-l-2 border-rule pl-2">
              <div className="flex items-center gap-2">
                <span className="grow font-semibold">{name.charAt(0).toUpperCase() + name.slice(1)}</span>
                <Handles all={rows} k={k} name={name} onAll={put} />
              </div>
              {field.columns.map((column) => (
                <Fragment key={columnId(column)}>
                  {args.cell({
                    field: { ...column, key: `${field.key}.${k}.${columnId(column)}`, at: field.at },
                    text: row[columnId(column)] ?? "",
                    trouble: troubles[columnId(column)],
                    onText: (next) => put(rows.map((one, at) => (at === k ? { ...one, [columnId(column)]: next } : one))),
                  })}
                </Fragment>
              ))}
            </li>
          );
        })}
      </ol>
      <div className="flex flex-wrap gap-2">
        <button id={id} type="button" className="btn" disabled={rows.length >= field.most} onClick={() => put([...rows, {}])}>
          Another {field.row}
        </button>
        {rows.length === 0 && usual && (
          <button type="button" className="btn" onClick={() => onText(usual)}>
            Begin from the usual
          </button>
        )}
      </div>
    </Listed>
  );
}
