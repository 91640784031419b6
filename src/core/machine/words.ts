import type { Machine, SheetWord } from "./schema";

/** Whose word a value of a specification is, by its key; the manual's where nothing else is said. */
export const wordOf = ({ sheet }: Pick<Machine, "sheet">, key: string): SheetWord => sheet.words?.[key] ?? "sheet";
