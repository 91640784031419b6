import type { DueLine } from "@/data/service/due";
import { sayOwed } from "@/ui/words/owed";
import { taskLabel } from "@/ui/words/service";

/** What is to be done, and where. `labels`: how the machine calls its places. */
export function sayDue(
  { what, places = [], owed }: Pick<DueLine, "what" | "places" | "owed">,
  labels: readonly { id: string; label: string }[],
): string {
  if (owed) return sayOwed(owed);
  const named = places.map((place) => labels.find(({ id }) => id === place)?.label.toLowerCase() ?? place);
  const said = taskLabel(what).toLowerCase();
  return named.length > 0 ? `${said}: ${named.join(", ")}` : said;
}
