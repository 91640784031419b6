"use client";

import { useDraft } from "@/ui/draft";
import { useSeat } from "@/ui/person";
import { usePost } from "@/ui/use-post";
import { sayIssue } from "@/ui/words/issues";
import { readHours } from "./hours-lines";

/** Hour meters of many machines, pasted or from a file: all are written, or none, and every line that cannot be is named. */
export function HoursImport() {
  const { system } = useSeat();
  const { post, isBusy, trouble, issues } = usePost();
  const { value, set, clear, ticket } = useDraft("hours-import", { text: "", isSure: false });
  const { rows, bad } = readHours(value.text);
  const isAsked = issues.some(({ code }) => code === "hours-run-too-fast");
  const send = async () => {
    const sent = await post(
      "/api/v1/hours",
      { rows: rows.map(({ fleetNumber, meterHours }) => ({ fleetNumber, meterHours })), ...(value.isSure ? { isSure: true } : {}) },
      { ticket },
    );
    if (sent) clear();
  };
  return (
    <details className="border-t-2 border-ink">
      <summary className="min-h-11 cursor-pointer py-2 text-xl font-semibold">Hour meters of many machines</summary>
      <label className="block max-w-[40rem]">
        <span className="caps">A line each: number and hours, typed, pasted, or out of a CSV file</span>
        <textarea
          className="input num"
          rows={6}
          placeholder={"ZT-1  1250.5\nBD-2; 960"}
          value={value.text}
          aria-invalid={bad.length > 0}
          onChange={(event) => set({ text: event.target.value, isSure: false })}
        />
      </label>
      <label className="btn my-1 cursor-pointer">
        From a file
        <input
          type="file"
          accept=".csv,.txt,text/csv,text/plain"
          className="sr-only"
          onChange={async (event) => {
            const file = event.target.files?.[0];
            if (file) set({ text: (await file.text()).slice(0, MOST_LETTERS), isSure: false });
            event.target.value = "";
          }}
        />
      </label>
      {bad.length > 0 && (
        <ul className="trouble" role="alert">
          {bad.slice(0, 5).map(({ line, text }) => (
            <li key={line}>
              Line {line}, “{text}”: a number and hours, like “ZT-1 1250.5”.
            </li>
          ))}
        </ul>
      )}
      {issues.length > 0 ? (
        <ul className="trouble" role="alert">
          {issues.slice(0, 8).map((issue) => (
            <li key={issue.path.join(".")}>
              {rows[Number(issue.path[1])]?.fleetNumber}: {sayIssue(issue, system)}
            </li>
          ))}
        </ul>
      ) : (
        trouble && (
          <p className="trouble" role="alert">
            {trouble}
          </p>
        )
      )}
      {isAsked && (
        <label className="flex min-h-11 items-center gap-3">
          <input
            type="checkbox"
            className="size-6 accent-ink"
            checked={value.isSure}
            onChange={(event) => set({ ...value, isSure: event.target.checked })}
          />
          They are right
        </label>
      )}
      <button type="button" className="btn btn-go" disabled={isBusy || rows.length === 0 || bad.length > 0} onClick={send}>
        Write down {rows.length} {rows.length === 1 ? "meter" : "meters"}
      </button>
    </details>
  );
}

const MOST_LETTERS = 60_000;
