import * as z from "zod";
import { answered } from "@/app/api/answer";
import { checkRow, kindsFor, WORKSHEETS } from "@/core/checks";
import { machineSchema } from "@/core/machine";

/** Every check with a worksheet, and what it takes. Holds no data, needs no Origin. */
export function GET() {
  return answered(() => ({
    checks: WORKSHEETS.map(({ id, ruleVersion, readingsSchema }) => {
      const row = checkRow(id);
      return {
        id,
        title: row?.label,
        kinds: row ? kindsFor(row) : [],
        minutes: row?.minutes,
        safeState: row?.state,
        ruleVersion,
        machineSchema: z.toJSONSchema(machineSchema, { io: "input" }),
        readingsSchema: z.toJSONSchema(readingsSchema, { io: "input" }),
      };
    }),
  }));
}
