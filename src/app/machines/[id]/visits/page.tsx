import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { currentPerson } from "@/app/session";
import { FIX_LABELS, type FixId } from "@/core/catalogue";
import { checkRow } from "@/core/checks";
import { getJobView, type JobView } from "@/data/job/job-view";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { figureName, figureValue } from "@/ui/checks/words";
import { dateOnly } from "@/ui/time";
import { VerdictLine } from "@/ui/verdict";
import { labelOfCause, labelOfSymptom } from "@/ui/words/diagnosis";

export const metadata: Metadata = { title: "Two visits" };

type Props = { params: Promise<{ id: string }>; searchParams: Promise<{ a?: string; b?: string }> };

function viewOf(machineId: string, text: string | undefined): JobView {
  try {
    const view = getJobView(database(), /^\d{1,9}$/.test(text ?? "") ? Number(text) : 0);
    if (view.machine.id !== machineId) notFound();
    return view;
  } catch (error) {
    if (error instanceof AppError && error.code === "job-not-found") notFound();
    throw error;
  }
}

/** Any two visits of one machine side by side: what was said, what was read, what was done. */
export default async function Visits({ params, searchParams }: Props) {
  const { id } = await params;
  const { a, b } = await searchParams;
  const views = [viewOf(id, a), viewOf(id, b)] as const;
  const system = (await currentPerson())?.unitSystem ?? "us";
  const { machine } = views[0].machine;
  const lastTake = (view: JobView, check: string) => view.takes.findLast((take) => take.checkId === check);
  const checks = [...new Set(views.flatMap((view) => view.takes.map(({ checkId }) => checkId)))];
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <p>
        <Link href={`/machines/${id}`} className="num font-bold underline" prefetch={false}>
          {views[0].machine.fleetNumber}
        </Link>
        , two visits
      </p>
      <table className="w-full">
        <thead>
          <tr className="border-b-2 border-ink text-left align-top">
            <th className="w-56 py-2 pr-3">
              <span className="sr-only">What</span>
            </th>
            {views.map((view) => (
              <th key={view.id} className="py-2 pr-3">
                <Link href={`/jobs/${view.id}`} prefetch={false} className="num text-xl underline">
                  Job {view.id}
                </Link>
                <span className="block font-normal">
                  {dateOnly(view.openedAt)}: {view.complaints.map(({ words }) => (words ? `“${words}”` : "")).join(" ")}
                </span>
                <span className="block text-sm font-normal text-soft">
                  {[...new Set(view.complaints.flatMap(({ looks }) => looks.symptoms))].map(labelOfSymptom).join(", ")}
                </span>
              </th>
            ))}
          </tr>
        </thead>
        <tbody className="ruled">
          {checks.map((check) => {
            const takes = views.map((view) => lastTake(view, check));
            const names = [
              ...new Set(
                takes.flatMap((take) =>
                  (take?.result.figures ?? []).map((figure) => figureName(take?.result.check ?? check, figure, machine)),
                ),
              ),
            ];
            return (
              <tr key={check} className="align-top">
                <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
                  {checkRow(check)?.label ?? check}
                  {names.map((name) => (
                    <span key={name} className="block text-sm font-normal text-soft">
                      {name}
                    </span>
                  ))}
                </th>
                {takes.map((take, k) => (
                  <td key={views[k]?.id} className="py-1.5 pr-3">
                    {take ? <VerdictLine verdict={take.verdict} /> : <span className="text-soft">not read</span>}
                    {names.map((name) => {
                      const figure = take?.result.figures.find((one) => figureName(take.result.check, one, machine) === name);
                      return (
                        <span key={name} className="num block text-sm">
                          {figure ? figureValue(figure, system) : "–"}
                        </span>
                      );
                    })}
                  </td>
                ))}
              </tr>
            );
          })}
          <tr className="align-top">
            <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
              What was done
            </th>
            {views.map((view) => (
              <td key={view.id} className="py-1.5 pr-3">
                {view.steps
                  .filter((step) => step.kind === "fix" && !step.isUndone)
                  .map((step) => (
                    <span key={step.id} className="block">
                      {step.kind === "fix"
                        ? `${FIX_LABELS[step.data.fix as FixId] ?? step.data.fix}${step.data.words ? `: ${step.data.words}` : ""}`
                        : ""}
                    </span>
                  ))}
              </td>
            ))}
          </tr>
          <tr className="align-top">
            <th scope="row" className="py-1.5 pr-3 text-left font-semibold">
              Closed for
            </th>
            {views.map((view) => {
              const close = view.steps.findLast((step) => step.kind === "close" && !step.isUndone);
              return (
                <td key={view.id} className="py-1.5 pr-3">
                  {close?.kind === "close"
                    ? `${close.data.causes.map((cause) => (cause === "nothing-found" ? "nothing found" : labelOfCause(cause))).join("; ")}, ${close.data.isProved ? "proved" : "not proved"}`
                    : "still open"}
                </td>
              );
            })}
          </tr>
        </tbody>
      </table>
    </main>
  );
}
