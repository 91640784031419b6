import * as z from "zod";

const [FIRST_DAY, LAST_DAY] = ["2000-01-01", "2099-12-31"];

/** A day like 2026-05-04, of this century. */
export const dayText = z.iso.date("date-unreadable").refine((day) => day >= FIRST_DAY && day <= LAST_DAY, "date-too-far");

/** Nothing is put off, or planned, further than that. Estimate: three years. */
const FURTHEST_DAYS = 1100;
const DAY = 86_400_000;

/** Whether a day to come is further off than anybody plans. */
export const isTooFar = (day: string, now: string): boolean => Date.parse(day) - Date.parse(now) > FURTHEST_DAYS * DAY;
