import { NextResponse } from "next/server";
import { failure, idFrom, requireOwnOrigin } from "@/app/api/answer";
import { database } from "@/data/connection";
import { photographOf } from "@/data/deck";

export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  try {
    requireOwnOrigin(request);
    const { mime, bytes } = photographOf(database(), idFrom((await params).id, "photograph-not-found"));
    return new NextResponse(new Uint8Array(bytes), {
      headers: { "content-type": mime, "cache-control": "private, max-age=31536000, immutable" },
    });
  } catch (error) {
    return failure(error);
  }
}
