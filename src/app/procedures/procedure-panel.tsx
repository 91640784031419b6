"use client";

import Link from "next/link";
import { CHECKS } from "@/core/catalogue";
import type { jobsBy, ProcedureVersion } from "@/data/catalogue/procedures";
import { TextField } from "@/ui/choice";
import { useDraft } from "@/ui/draft";
import { ReasonForm } from "@/ui/reason-form";
import { dateOnly } from "@/ui/time";
import { usePost } from "@/ui/use-post";
import { labelOfCheck } from "@/ui/words/diagnosis";

type Version = ProcedureVersion & { jobs: ReturnType<typeof jobsBy> };

/** One procedure with its versions, or an empty one to be written. */
export function ProcedurePanel({ versions }: { versions: readonly Version[] }) {
  const last = versions.at(-1);
  const withdrawn = versions.filter((one) => one.withdrawn);
  return (
    <li className={last ? "py-1" : "list-none py-1"}>
      {last && (
        <>
          <p className="flex flex-wrap items-baseline gap-x-3">
            <span className="text-xl font-semibold">{last.procedure.title}</span>
            <span className={last.withdrawn ? "font-bold text-mark" : "text-good"}>
              {last.withdrawn ? `version ${last.version} withdrawn: ${last.withdrawn.reason}` : `version ${last.version} in force`}
            </span>
            <span className="text-sm text-soft">
              {dateOnly(last.at)}, {last.who}: {last.reason}
            </span>
          </p>
          <p className="max-w-[60rem] whitespace-pre-wrap">{last.procedure.body}</p>
          <p className="text-sm text-soft">At: {last.procedure.checks.map(labelOfCheck).join(", ")}</p>
          {withdrawn.map((one) => (
            <p key={one.version} className="border-l-4 border-mark pl-2">
              Version {one.version} was withdrawn by {one.withdrawn?.who}: {one.withdrawn?.reason}.{" "}
              {one.jobs.length === 0 ? "No job went by it." : "Went by it: "}
              {one.jobs.map(({ jobId, machineId }) => (
                <Link key={jobId} href={`/jobs/${jobId}`} prefetch={false} className="num mr-2 underline">
                  {machineId.toUpperCase()} {jobId}
                </Link>
              ))}
            </p>
          ))}
        </>
      )}
      <Editor last={last} />
      {last && !last.withdrawn && <Withdraw version={last} />}
    </li>
  );
}

function Editor({ last }: { last: Version | undefined }) {
  const { post, isBusy, trouble } = usePost();
  const { value, set, clear, ticket } = useDraft(`procedure:${last?.slug ?? "new"}:${last?.version ?? 0}`, {
    title: last?.procedure.title ?? "",
    body: last?.procedure.body ?? "",
    checks: (last?.procedure.checks ?? []).join(" "),
    reason: last ? "" : "first version",
  });
  const checks = new Set(value.checks.split(" ").filter(Boolean));
  const save = async () => {
    const sent = await post(
      "/api/v1/procedures",
      {
        ...(last ? { slug: last.slug } : {}),
        basedOnVersion: last?.version ?? 0,
        procedure: { title: value.title, body: value.body, checks: [...checks] },
        reason: value.reason,
      },
      { ticket },
    );
    if (sent) clear();
  };
  const id = last?.slug ?? "new";
  return (
    <details className="mt-1">
      <summary className="min-h-11 cursor-pointer py-2 font-semibold">{last ? "Change it" : "Write one down"}</summary>
      <TextField id={`${id}-title`} label="Called" value={value.title} onChange={(title) => set({ ...value, title })} />
      <TextField
        id={`${id}-body`}
        label="How it is done here, and to which limits"
        rows={6}
        value={value.body}
        onChange={(body) => set({ ...value, body })}
      />
      <fieldset className="py-1">
        <legend className="caps">At which worksheets</legend>
        <div className="grid sm:grid-cols-2 lg:grid-cols-4">
          {CHECKS.map((check) => (
            <label key={check.id} className="flex min-h-11 items-center gap-2">
              <input
                type="checkbox"
                className="size-5 accent-ink"
                checked={checks.has(check.id)}
                onChange={(event) =>
                  set({
                    ...value,
                    checks: [...(event.target.checked ? [...checks, check.id] : [...checks].filter((one) => one !== check.id))].join(" "),
                  })
                }
              />
              {check.label}
            </label>
          ))}
        </div>
      </fieldset>
      <TextField id={`${id}-reason`} label="Why" value={value.reason} onChange={(reason) => set({ ...value, reason })} />
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
      <button
        type="button"
        className="btn btn-go"
        disabled={isBusy || value.title.trim() === "" || value.body.trim() === "" || checks.size === 0 || value.reason.trim() === ""}
        onClick={save}
      >
        {last ? "Keep it as the next version" : "Put it in force"}
      </button>
    </details>
  );
}

function Withdraw({ version }: { version: Version }) {
  const { post, isBusy, trouble } = usePost();
  return (
    <details>
      <summary className="min-h-11 cursor-pointer py-2 font-semibold text-mark">
        It turned out wrong: withdraw version {version.version}
      </summary>
      <ReasonForm
        keep={`withdraw:${version.slug}:${version.version}`}
        label="What was wrong with it"
        button="Withdraw it"
        isBusy={isBusy}
        isGrave
        onSend={(reason) => post(`/api/v1/procedures/${version.slug}/withdraw`, { version: version.version, reason })}
      />
      <p className="text-sm text-soft">
        {version.jobs.length === 0
          ? "No job went by it so far."
          : `${version.jobs.length} ${version.jobs.length === 1 ? "job" : "jobs"} went by it and will be listed.`}
      </p>
      {trouble && (
        <p className="trouble" role="alert">
          {trouble}
        </p>
      )}
    </details>
  );
}
