"use client";

import Link from "next/link";
import { useState } from "react";
import { SCHOOLS, type School } from "@/core/machine/specification";
import type { SchoolStanding } from "@/data/machine/schools";
import { Choice } from "@/ui/choice";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";

/** Where practitioners disagree: what the depot follows, and which machines go their own way. */
export function SchoolsPanel({ schools }: { schools: readonly SchoolStanding[] }) {
  return (
    <section aria-label="Schools">
      <h2 className="mt-2 border-b-2 border-ink text-xl">Schools</h2>
      <p className="max-w-[55rem] py-1 text-sm text-soft">
        Set for the depot, a school goes on the sheet of every machine that followed the depot so far or said nothing of it, as a new
        version with the reason. A machine that says something else keeps it.
      </p>
      <ul className="ruled">
        {SCHOOLS.map((school) => {
          const standing = schools.find(({ id }) => id === school.id);
          return standing ? <SchoolLine key={school.id} school={school} standing={standing} /> : null;
        })}
      </ul>
    </section>
  );
}

function SchoolLine({ school, standing }: { school: School; standing: SchoolStanding }) {
  const { post, isBusy, trouble } = usePost();
  const { depot, machines } = standing;
  const [choice, setChoice] = useState(depot?.choice ?? "");
  const [reason, setReason] = useState("");
  const wordsOf = (id: string | undefined) =>
    id === undefined
      ? "says nothing"
      : id === "other"
        ? "its own figures"
        : (school.choices.find((one) => one.id === id)?.words.split(":")[0] ?? id);
  const other = machines.filter(({ follows }) => follows !== depot?.choice);
  return (
    <li className="py-2">
      <p className="flex flex-wrap items-baseline gap-x-3">
        <span className="text-lg font-semibold">{school.question}</span>
        <span>{depot ? `the depot: ${wordsOf(depot.choice).toLowerCase()}` : "the depot has said nothing"}</span>
        {depot && (
          <span className="text-sm text-soft">
            {dateOnly(depot.at)}, {depot.who}
          </span>
        )}
      </p>
      {other.length > 0 && (
        <p className="text-sm">
          {depot ? "Otherwise: " : "Their sheets: "}
          {other.map(({ id, fleetNumber, follows }) => (
            <span key={id} className="mr-3 inline-block">
              <Link href={`/machines/${id}`} prefetch={false} className="num font-bold underline">
                {fleetNumber}
              </Link>{" "}
              {wordsOf(follows).toLowerCase()}
            </span>
          ))}
        </p>
      )}
      {machines.length === 0 && <p className="text-sm text-soft">No machine here asks it.</p>}
      <details>
        <summary className="min-h-11 cursor-pointer py-2">Set it for the depot</summary>
        <Choice label={school.question} value={choice} options={school.choices.map(({ id, words }) => [id, words])} onChange={setChoice} />
        <form
          className="flex flex-wrap items-end gap-2"
          onSubmit={async (event) => {
            event.preventDefault();
            if (await post("/api/v1/schools", { school: school.id, choice, reason })) setReason("");
          }}
        >
          <label className="grow">
            <span className="caps">Why</span>
            <input className="input" value={reason} maxLength={300} onChange={(event) => setReason(event.target.value)} />
          </label>
          <button type="submit" className="btn btn-go" disabled={isBusy || choice === "" || reason.trim() === ""}>
            Set it
          </button>
        </form>
        {trouble && (
          <p className="trouble" role="alert">
            {trouble}
          </p>
        )}
      </details>
    </li>
  );
}
