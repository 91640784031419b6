import { NextResponse } from "next/server";
import { failure, requireOwnOrigin } from "@/app/api/answer";
import { calendarOf } from "@/app/due-calendar";
import { isFeedKey } from "@/data/fleet/feed-key";
import { listMachines } from "@/data/machine/machines";
import { database } from "@/data/open";
import { dueNow } from "@/data/service/due";

/** What falls due and what is owed, as a calendar file; for a calendar that fetches it by itself with the key its page gives. */
export async function GET(request: Request) {
  try {
    const db = database();
    const key = new URL(request.url).searchParams.get("key");
    if (key === null || !isFeedKey(db, key)) requireOwnOrigin(request);
    const now = new Date().toISOString();
    const file = calendarOf({
      due: dueNow(db, now),
      machines: listMachines(db).map(({ id, fleetNumber, machine }) => ({
        id,
        fleetNumber,
        places: [...machine.spindles, ...machine.units, ...machine.wheels],
      })),
      now,
      zone: Intl.DateTimeFormat().resolvedOptions().timeZone,
    });
    return new NextResponse(file, {
      headers: {
        "content-type": "text/calendar; charset=utf-8",
        "content-disposition": 'attachment; filename="due.ics"',
        "cache-control": "no-store",
      },
    });
  } catch (error) {
    return failure(error);
  }
}
