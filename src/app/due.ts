import type { Due } from "@/data/due";
import { taskLabel } from "@/ui/words/service";

const WORDS: Partial<Record<Due["what"], string>> = {
  "top-up": "grease",
  purge: "purge the grease",
  "order-knife": "order the next bedknife",
};

/** What is to be done, and where. `labels`: how the machine calls its places. */
export function sayDue({ what, places }: Pick<Due, "what" | "places">, labels: readonly { id: string; label: string }[]): string {
  const named = places.map((place) => labels.find(({ id }) => id === place)?.label.toLowerCase() ?? place);
  const said = WORDS[what] ?? taskLabel(what).toLowerCase();
  return named.length > 0 ? `${said}: ${named.join(", ")}` : said;
}
