import * as z from "zod";

/** More than any machine has places of one kind. */
const MOST = 60;

/**
 * Readings written as a list, each naming its own place, as a record by place: the older form, and the handier one for a program that sends
 * them. What is no such list comes back as it is. One place named twice cannot be told apart any more, so it is refused here.
 */
export function byPlace(placeOf: (one: Record<string, unknown>) => string | undefined, own: readonly string[]) {
  const listSchema = z.array(z.looseObject({})).max(MOST);
  return (value: unknown, context: z.RefinementCtx): unknown => {
    const listed = listSchema.safeParse(value);
    if (!listed.success) return value;
    const pairs = listed.data.map(
      (one) => [placeOf(one), Object.fromEntries(Object.entries(one).filter(([key]) => !own.includes(key)))] as const,
    );
    for (const [index, [place]] of pairs.entries()) {
      if (place === undefined) context.addIssue({ code: "custom", message: "place-not-named", path: [index] });
      else if (pairs.findIndex(([other]) => other === place) < index)
        context.addIssue({ code: "custom", message: "place-read-twice", path: [index] });
    }
    return Object.fromEntries(pairs.flatMap(([place, rest]) => (place === undefined ? [] : [[place, rest]])));
  };
}

/** The text under a key; nothing where it is none. */
export const textAt = (one: Record<string, unknown>, key: string): string | undefined => {
  const value = one[key];
  return typeof value === "string" && value !== "" ? value : undefined;
};
