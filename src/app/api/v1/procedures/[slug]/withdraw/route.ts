import { changing } from "@/app/api/answer";
import { withdrawProcedure, withdrawSchema } from "@/data/catalogue/procedures";

export async function POST(request: Request, { params }: { params: Promise<{ slug: string }> }) {
  const { slug } = await params;
  return changing(request, withdrawSchema, (db, doing, input) => withdrawProcedure(db, doing, { slug, ...input }));
}
