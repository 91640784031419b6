import { parse } from "papaparse";

export type Row = { line: number; fleetNumber: string; meterHours: number };
type Read = { rows: Row[]; bad: { line: number; text: string }[] };

/** Lines of number and hours as a list, a spreadsheet or a CSV file has them; a first line of names is passed over. */
export function readHours(text: string): Read {
  const lines = parse<string[]>(text.trim(), { delimitersToGuess: [",", ";", "\t", "|"], skipEmptyLines: true }).data;
  const read: Read = { rows: [], bad: [] };
  for (const [k, cells] of lines.entries()) {
    const parts = cells.length > 1 ? cells : (cells[0] ?? "").trim().split(/\s+/);
    const [fleetNumber = "", hours = ""] = parts.map((part) => part.trim());
    const meterHours = Number(hours.replace(/\s*h$/i, "").replace(",", "."));
    const isHead = k === 0 && !/\d/.test(hours);
    if (isHead) continue;
    // A third cell is a decimal comma, or a column nobody asked for: neither is guessed at.
    const isMore = parts.slice(2).some((part) => part.trim() !== "" && part.trim().toLowerCase() !== "h");
    if (isMore || fleetNumber === "" || hours === "" || !Number.isFinite(meterHours) || meterHours < 0)
      read.bad.push({ line: k + 1, text: parts.join(" ") });
    else read.rows.push({ line: k + 1, fleetNumber, meterHours });
  }
  return read;
}
