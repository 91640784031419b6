import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { currentPerson } from "@/app/session";
import { type WorkUp, workUp } from "@/core/diagnosis";
import { getJobView, type JobView } from "@/data/job/job-view";
import { database } from "@/data/open";
import { AppError } from "@/data/store/errors";
import { JobScreen } from "./job-screen";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `Job ${(await params).id}` };
}

function findJob(id: string): JobView | undefined {
  if (!/^\d{1,9}$/.test(id)) return undefined;
  try {
    return getJobView(database(), Number(id));
  } catch (error) {
    if (error instanceof AppError && error.code === "job-not-found") return undefined;
    throw error;
  }
}

/** From so many looks on a work-up takes long enough to keep others waiting: the browser's own worker reckons it. */
const OFF_THREAD_FROM = 10;

/** Worked up with the page, so that it comes with its diagnosis; `undefined` where it takes the browser to, or cannot be reckoned. */
function workUpOf(view: JobView, order: "information" | "walk-round"): WorkUp | undefined {
  const { symptoms, evidence } = view.case.input.given;
  const present = Object.values(symptoms).filter((state) => state === "present").length;
  const shared = evidence.filter((one) => "causes" in one).length;
  return present + shared >= OFF_THREAD_FROM ? undefined : workUp({ ...view.case.input, order });
}

export default async function JobPage({ params }: Props) {
  const view = findJob((await params).id);
  if (!view) notFound();
  const order = (await currentPerson())?.checkOrder ?? "information";
  return <JobScreen view={view} initial={workUpOf(view, order)} initialOrder={order} now={new Date().toISOString()} />;
}
