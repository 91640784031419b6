import { gravest, type Verdict } from "@/core/basics/findings";
import type { At } from "./types";

/** The gravest of what was read; while something is unread, good news waits. */
export function overall(verdicts: readonly Verdict[], isComplete: boolean): Verdict {
  const worst = gravest(verdicts);
  return !isComplete && (worst === "in-tolerance" || worst === "watch") ? "not-enough-readings" : worst;
}

/** Places read that the machine does not have. */
export function unknownPlaces<Code extends string>(args: {
  read: Readonly<Record<string, unknown>> | undefined;
  known: readonly { id: string }[];
  path: string;
  code: Code;
}): ({ code: Code; place: string } & At)[] {
  return Object.keys(args.read ?? {})
    .filter((place) => !args.known.some(({ id }) => id === place))
    .map((place) => ({ code: args.code, path: [...args.path.split("."), place], place }));
}
