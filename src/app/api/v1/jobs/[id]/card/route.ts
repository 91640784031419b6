import { NextResponse } from "next/server";
import * as z from "zod";
import { failure, parse, requireOwnOrigin } from "@/app/api/answer";
import { cardOf } from "@/app/jobs/[id]/job-card";
import { paperAddress } from "@/app/paper/address";
import { cardPdf, PAPER_SIZES } from "@/app/paper/card-pdf";
import { currentPerson } from "@/app/session";
import { getJobView } from "@/data/job/job-view";
import { database } from "@/data/open";
import { listOwed } from "@/data/service/owed";
import { AppError } from "@/data/store/errors";

const askedSchema = z.object({ size: z.enum(PAPER_SIZES).default("a4"), units: z.enum(["us", "metric"]).optional() });

/** The job card as a PDF, A4 or Letter, in the units of whoever asks. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  try {
    requireOwnOrigin(request);
    const { id } = await params;
    if (!/^\d{1,9}$/.test(id)) throw new AppError("job-not-found");
    const asked = parse(askedSchema, Object.fromEntries(new URL(request.url).searchParams));
    const view = getJobView(database(), Number(id));
    const system = asked.units ?? (await person())?.unitSystem ?? "us";
    const owed = listOwed(database(), view.machine.id).filter(({ jobId }) => jobId === view.id);
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const card = cardOf({ view, owed, system, zone, now: new Date().toISOString() });
    const { origin } = paperAddress(request.headers.get("host"));
    const file = await cardPdf(card, { url: `${origin}/jobs/${view.id}`, size: asked.size });
    return new NextResponse(new Uint8Array(file), {
      headers: {
        "content-type": "application/pdf",
        "content-disposition": `inline; filename="job-${view.id}-${view.machine.id}.pdf"`,
        "cache-control": "no-store",
      },
    });
  } catch (error) {
    return failure(error);
  }
}

/** Whoever sits there; nobody, where it is asked outside a request of the server. */
async function person() {
  try {
    return await currentPerson();
  } catch {
    return undefined;
  }
}
