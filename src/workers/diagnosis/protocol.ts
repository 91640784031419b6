import * as z from "zod";
import { CONTEXTS, type ContextId } from "@/core/catalogue";
import { type Question, type WorkUp, workUpInputSchema } from "@/core/diagnosis";

const contextId = z.enum(CONTEXTS.map(({ id }) => id) as [ContextId, ...ContextId[]]);

/** What the worker is asked; each carries the number its answer comes back under. */
export const requestSchema = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("work-up"), number: z.number().int(), input: workUpInputSchema, withReasons: z.boolean() }),
  z.object({
    kind: z.literal("questions"),
    number: z.number().int(),
    input: workUpInputSchema,
    answered: z.array(contextId),
    most: z.number().int().min(1).max(60),
  }),
]);

export type Request = z.infer<typeof requestSchema>;
export type Answer =
  | { kind: "work-up"; number: number; result: WorkUp }
  | { kind: "questions"; number: number; result: Question[] }
  | { kind: "failed"; number: number };
