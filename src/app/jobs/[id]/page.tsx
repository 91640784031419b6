import type { Metadata } from "next";
import { notFound } from "next/navigation";
import { database } from "@/data/connection";
import { AppError } from "@/data/errors";
import { getJobView, type JobView } from "@/data/job-view";
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

export default async function JobPage({ params }: Props) {
  const view = findJob((await params).id);
  if (!view) notFound();
  return <JobScreen view={view} now={new Date().toISOString()} />;
}
