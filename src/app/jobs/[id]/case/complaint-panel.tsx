"use client";

import { useRouter } from "next/navigation";
import { SYMPTOMS } from "@/core/catalogue";
import { stopsMowing } from "@/core/job/safety";
import { cutters } from "@/core/machine";
import type { JobView } from "@/data/job/job-view";
import { HazardNote } from "@/ui/hazard-note";
import { sinceWords } from "@/ui/time";
import type { Act } from "../act";
import type { PanelId } from "../panel-id";
import { Trouble } from "../trouble";

type Args = { view: JobView; now: string; open: (panel: PanelId) => void };

const looksOf = ({ looks }: JobView["complaints"][number]) =>
  looks.symptoms.map((id) => SYMPTOMS.find((symptom) => symptom.id === id)?.label).join(" · ");

/** The complaint in a few lines; the rest of it a touch away. */
export function Said({ view, now, open }: Args) {
  const [first, ...others] = view.complaints;
  if (!first) return null;
  return (
    <section aria-label="Complaint">
      <button type="button" className="block w-full text-left" onClick={() => open("complaint")}>
        {first.words && <span className="line-clamp-2 text-lg leading-tight font-medium">“{first.words}”</span>}
        <span className="block text-sm leading-snug">{looksOf(first)}</span>
        <span className="block text-sm text-soft">
          {first.saidBy}
          {first.place ? `, ${first.place}` : ""}, {sinceWords(first.at, now)} ago
        </span>
        {others.map(({ id, words, saidBy }) => (
          <span key={id} className="line-clamp-1 leading-snug font-medium">
            “{words}” <span className="text-sm text-soft">{saidBy}</span>
          </span>
        ))}
      </button>
      {view.state !== "closed" &&
        view.takes.length === 0 &&
        stopsMowing(view.complaints.flatMap(({ looks }) => looks.symptoms)).length > 0 && (
          <p className="border-l-4 border-mark px-2 py-1 leading-snug font-semibold">
            Tell whoever drives it: stop mowing until it has been looked at.
          </p>
        )}
      {view.state !== "closed" && view.takes.length === 0 && (
        <button type="button" className="btn btn-quiet -my-1 !min-h-9 !px-0 text-sm underline" onClick={() => open("phone")}>
          Ask over the telephone
        </button>
      )}
      <PlaceWords view={view} />
    </section>
  );
}

/** Every complaint of the job, what more can be asked over the telephone, and which belong together. */
export function ComplaintPanel({ view, now, act, open }: Args & { act: Act }) {
  const router = useRouter();
  const isOpen = view.state !== "closed";
  return (
    <div>
      <HazardNote site={view.machine.site} {...view.hazards} />
      <ul className="ruled">
        {view.complaints.map((complaint) => (
          <li key={complaint.id} className="py-2">
            {complaint.words && <p className="text-lg leading-tight font-medium">“{complaint.words}”</p>}
            <p className="leading-snug">{looksOf(complaint)}</p>
            <p className="text-sm text-soft">
              {complaint.saidBy}
              {complaint.place ? `, ${complaint.place}` : ""}, {sinceWords(complaint.at, now)} ago
            </p>
            {isOpen && view.complaints.length > 1 && (
              <button
                type="button"
                className="btn mt-1"
                disabled={act.isBusy}
                onClick={() => act.send("split", { complaintId: complaint.id })}
              >
                Make it a job of its own
              </button>
            )}
          </li>
        ))}
      </ul>
      <PlaceWords view={view} />
      {isOpen && (
        <div className="mt-2 grid gap-1">
          <button type="button" className="btn btn-go w-full" onClick={() => open("phone")}>
            Ask over the telephone
          </button>
          {view.state === "waiting" &&
            view.openBeside.map((jobId) => (
              <button
                key={jobId}
                type="button"
                className="btn w-full"
                disabled={act.isBusy}
                onClick={async () => {
                  if (await act.send("join", { intoJobId: jobId })) router.push(`/jobs/${jobId}`);
                }}
              >
                Join it to job {jobId}
              </button>
            ))}
        </div>
      )}
      <Trouble act={act} />
    </div>
  );
}

/** What the touched place means on this machine. */
function PlaceWords({ view }: { view: JobView }) {
  const { meaning } = view.case;
  const named = (id: string) =>
    cutters(view.machine.machine)
      .find((one) => one.id === id)
      ?.label.toLowerCase() ?? id;
  if (meaning.kind === "none") return null;
  const words =
    meaning.kind === "join"
      ? `Where ${named(meaning.between[0])} and ${named(meaning.between[1])} meet`
      : meaning.kind === "on-one"
        ? `On the ${named(meaning.cutter)}`
        : "Where passes meet";
  return <p className="text-sm">{words}</p>;
}
