import { NextResponse } from "next/server";
import { failure, requireOwnOrigin } from "@/app/api/answer";
import { calendarOf } from "@/app/due-calendar";
import { database } from "@/data/connection";
import { dueNow } from "@/data/due";
import { listMachines } from "@/data/machines";
import { listOwed } from "@/data/owed";

/** What falls due and what is owed, as a calendar file. */
export async function GET(request: Request) {
  try {
    requireOwnOrigin(request);
    const db = database();
    const now = new Date().toISOString();
    const file = calendarOf({
      due: dueNow(db, now),
      owed: listOwed(db),
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
