import type { Metadata } from "next";
import Link from "next/link";
import { notFound } from "next/navigation";
import { CAUSES } from "@/core/diagnosis";
import { jobsOfMachine } from "@/data/bay";
import { database } from "@/data/connection";
import { AppError } from "@/data/errors";
import { getMachine, type MachineRecord } from "@/data/machines";
import { dateOnly } from "@/ui/time";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: (await params).id.toUpperCase() };
}

function findMachine(id: string): MachineRecord | undefined {
  try {
    return getMachine(database(), id);
  } catch (error) {
    if (error instanceof AppError && error.code === "machine-not-found") return undefined;
    throw error;
  }
}

export default async function MachinePage({ params }: Props) {
  const record = findMachine((await params).id);
  if (!record) notFound();
  const jobs = jobsOfMachine(database(), record.id);
  return (
    <main className="mx-auto max-w-[80rem] p-4">
      <h1 className="text-3xl">
        <span className="num">{record.fleetNumber}</span> <span className="text-xl font-medium">{record.name}</span>
      </h1>
      <section aria-label="History">
        <h2 className="border-b-2 border-ink text-xl">History</h2>
        <ul className="ruled">
          {jobs.map((job) => (
            <li key={job.jobId}>
              <Link href={`/jobs/${job.jobId}`} className="block py-2 hover:bg-sheet">
                <span className="num text-sm text-soft">{dateOnly(job.openedAt)}</span> “{job.words}” ·{" "}
                {job.state === "closed" ? (job.isProved ? "proved" : "closed, not proved") : job.state}
                <span className="block text-sm">
                  {job.causes.map((id) => CAUSES.find((cause) => cause.id === id)?.label ?? id).join("; ")}
                </span>
              </Link>
            </li>
          ))}
        </ul>
      </section>
    </main>
  );
}
