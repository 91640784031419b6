import type { Metadata } from "next";
import { headers } from "next/headers";
import Link from "next/link";
import { notFound } from "next/navigation";
import { paperAddress } from "@/app/paper/address";
import { PrintButton } from "@/app/paper/print-button";
import { QrCode } from "@/app/paper/qr";
import { currentPerson } from "@/app/session";
import { getJobView } from "@/data/job/job-view";
import { database } from "@/data/open";
import { listOwed } from "@/data/service/owed";
import { AppError } from "@/data/store/errors";
import { cardOf, type JobCard } from "../job-card";

type Props = { params: Promise<{ id: string }> };

export async function generateMetadata({ params }: Props): Promise<Metadata> {
  return { title: `Card of job ${(await params).id}` };
}

export default async function CardPage({ params }: Props) {
  const { id } = await params;
  if (!/^\d{1,9}$/.test(id)) notFound();
  const db = database();
  try {
    const view = getJobView(db, Number(id));
    const card = cardOf({
      view,
      owed: listOwed(db, view.machine.id).filter(({ jobId }) => jobId === view.id),
      system: (await currentPerson())?.unitSystem ?? "us",
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
      now: new Date().toISOString(),
    });
    const { origin } = paperAddress((await headers()).get("host"));
    return (
      <main className="mx-auto max-w-[52rem] p-4 print:max-w-none print:p-0">
        <div className="mb-3 flex flex-wrap items-center gap-2 print:hidden">
          <Link href={`/jobs/${card.jobId}`} className="btn">
            Back to the job
          </Link>
          <PrintButton />
          <a href={`/api/v1/jobs/${card.jobId}/card?size=a4`} className="btn">
            PDF, A4
          </a>
          <a href={`/api/v1/jobs/${card.jobId}/card?size=letter`} className="btn">
            PDF, Letter
          </a>
        </div>
        <Card card={card} url={`${origin}/jobs/${card.jobId}`} />
      </main>
    );
  } catch (error) {
    if (error instanceof AppError && error.code === "job-not-found") notFound();
    throw error;
  }
}

/** Light on ink: black on white, thin lines, in the dark theme too. */
function Card({ card, url }: { card: JobCard; url: string }) {
  return (
    <article className="bg-white p-6 text-black print:p-0">
      <div className="flex items-start gap-4">
        <div className="grow">
          <h1 className="num text-4xl font-bold">{card.fleetNumber}</h1>
          <p className="text-lg">
            {card.machine}, {card.site}
          </p>
          <p className="text-lg font-bold">
            Job {card.jobId}. {card.state}.
          </p>
        </div>
        <QrCode text={url} size="26mm" label={`Back to job ${card.jobId}: ${url}`} />
      </div>
      {card.warnings.map((words) => (
        <p key={words} className="mt-2 border-2 border-black px-2 py-1 font-bold">
          {words}
        </p>
      ))}
      <Block title={card.complaints.length > 1 ? "Complaints" : "Complaint"}>
        {card.complaints.map(({ words, by, looks }) => (
          <p key={`${words}${by}`}>
            <b>“{words}”</b> {by}
            {looks && `. ${looks}`}
          </p>
        ))}
      </Block>
      {card.causes.length > 0 && (
        <Block title="Found">
          <p className="font-bold">{card.causes.join("; ")}</p>
        </Block>
      )}
      <Block title="What was done">
        {card.steps.length === 0 && <p>Nothing yet.</p>}
        <ol>
          {card.steps.map(({ when, who, words, lines, isUndone }, k) => (
            <li
              // biome-ignore lint/suspicious/noArrayIndexKey: a printed list never moves
              key={k}
              className="grid break-inside-avoid grid-cols-[9.5rem_3rem_1fr] gap-x-2 border-t border-neutral-400 py-0.5"
            >
              <span className="num text-sm">{when}</span>
              <span>{who}</span>
              <span>
                <b className={isUndone ? "line-through" : ""}>{words}</b>
                {lines.map((line) => (
                  <span key={line} className="block text-sm">
                    {line}
                  </span>
                ))}
              </span>
            </li>
          ))}
        </ol>
      </Block>
      {card.gaps.length > 0 && (
        <Block title="Still missing for “proved”">
          {card.gaps.map((gap) => (
            <p key={gap}>☐ {gap}</p>
          ))}
        </Block>
      )}
      <p className="mt-3 text-xs">
        Printed {card.printed}; it stands as it was then. What stands now: {url}
      </p>
    </article>
  );
}

function Block({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <section aria-label={title} className="mt-3">
      <h2 className="border-b-2 border-black text-lg font-bold">{title}</h2>
      {children}
    </section>
  );
}
