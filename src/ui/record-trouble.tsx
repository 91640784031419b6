import { table } from "@/core/basics/tables";
import { DIGEST } from "@/core/basics/validation";
import { sayError } from "./words/issues";

/** The code behind a digest; nothing where the failure is none of ours. */
export const codeOf = (digest: string | undefined): string => (digest?.startsWith(DIGEST) ? digest.slice(DIGEST.length) : "internal");

const HEADINGS: Record<string, string> = table({
  "record-busy": "The record is busy",
  "record-spoilt": "The record is damaged",
  "record-unreadable": "The record cannot be read",
  "database-newer": "The record is of a newer Zygometer",
  "no-room": "The disk is full",
  "sheet-spoilt": "This sheet cannot be read",
});

/** A page that cannot be shown: what is wrong, that nothing was touched, and what to do. */
export function RecordTrouble({ code, children }: { code: string; children?: React.ReactNode }) {
  return (
    <main className="mx-auto max-w-2xl p-6">
      <h1 className="text-3xl text-mark">{HEADINGS[code] ?? "Something went wrong"}</h1>
      <p className="mt-2 text-lg">{sayError(code)}</p>
      <div className="mt-4 flex flex-wrap gap-2">{children}</div>
    </main>
  );
}
