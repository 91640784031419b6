import * as z from "zod";
import { parse, reading } from "@/app/api/answer";
import { initialsSchema } from "@/data/catalogue/people";
import { submissionOf } from "@/data/store/submissions";

const askedSchema = z.object({ id: z.uuid(), who: initialsSchema });

/** Whether what was sent under an id arrived: a page that lost the answer asks here before it sends anything again. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => submissionOf(db, parse(askedSchema, { id, who: new URL(request.url).searchParams.get("who") ?? "" })));
}
