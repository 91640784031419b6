"use client";

import type { JobView } from "@/data/job/job-view";
import { useSeat } from "@/ui/person";
import { linesOf, sayStep } from "./said";

/** The whole of a job in order: first readings, turns made, parts, torque, every re-reading, what was taken back. */
export function Account({ view, timeOf }: { view: JobView; timeOf: (iso: string) => string }) {
  const { system } = useSeat();
  const told = { view, system };
  return (
    <section aria-label="The whole of it" className="mt-3">
      <h3 className="caps">The whole of it, in order</h3>
      <ol className="ruled">
        {view.steps.map((step) => (
          <li key={step.id} className={`py-1.5 leading-snug ${step.isUndone ? "text-soft line-through" : ""}`}>
            <span className="num text-sm text-soft">
              {timeOf(step.at)} · {step.who}
            </span>
            <span className="block font-semibold">{sayStep(step, view)}</span>
            {linesOf(step, told).map((line) => (
              <span key={line} className="block text-sm">
                {line}
              </span>
            ))}
          </li>
        ))}
      </ol>
    </section>
  );
}
