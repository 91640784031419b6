import { NextResponse } from "next/server";
import * as z from "zod";
import { failure, parse, requireOwnOrigin } from "@/app/api/answer";
import { historyPaper } from "@/app/machines/[id]/book/history-paper";
import { paperAddress } from "@/app/paper/address";
import { PAPER_SIZES, pdfOf } from "@/app/paper/card-pdf";
import { historyDocument } from "@/app/paper/history-pdf";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";

const askedSchema = z.object({ size: z.enum(PAPER_SIZES).default("a4"), units: z.enum(["us", "metric"]).default("us") });

/** A machine's history as a PDF, A4 or Letter. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  try {
    requireOwnOrigin(request);
    const { id } = await params;
    const record = getMachine(database(), id);
    const { size, units } = parse(askedSchema, Object.fromEntries(new URL(request.url).searchParams));
    const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
    const paper = historyPaper(database(), record.id, { system: units, zone, now: new Date().toISOString() });
    const { origin } = paperAddress(request.headers.get("host"));
    const file = await pdfOf(historyDocument(paper, { url: `${origin}/machines/${record.id}`, size }));
    return new NextResponse(new Uint8Array(file), {
      headers: {
        "content-type": "application/pdf",
        "content-disposition": `inline; filename="${record.id}-history.pdf"`,
        "cache-control": "no-store",
      },
    });
  } catch (error) {
    return failure(error);
  }
}
