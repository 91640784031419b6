import { changing, idFrom, reading } from "@/app/api/answer";
import { changedPartSchema, changePart, fitsWhere, getPart, listSets, lotsOf, movesOf } from "@/data/service/parts";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return reading(request, (db) => {
    const partId = idFrom(id, "part-not-found");
    const now = new Date().toISOString();
    const record = getPart(db, partId);
    return {
      ...record,
      moves: movesOf(db, partId),
      fits: fitsWhere(db, record.part),
      sets: listSets(db, now, { partId }),
      ...lotsOf(db, partId, now),
    };
  });
}

export async function PUT(request: Request, { params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  return changing(request, changedPartSchema, (db, doing, input) =>
    changePart(db, doing, { partId: idFrom(id, "part-not-found"), ...input }),
  );
}
