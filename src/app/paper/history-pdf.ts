import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import { MARGIN, type PaperSize } from "./card-pdf";

/** A machine's book on paper: how it stands first, then line by line, the newest first. */
export type HistoryPaper = {
  fleetNumber: string;
  machine: string;
  site: string;
  hours: string;
  printed: string;
  warnings: string[];
  lines: { when: string; who: string; what: string; words: string; lines: string[] }[];
  /** Lines that did not go on this paper. */
  left: number;
};

/** Black on white, thin lines, nothing filled. */
export function historyDocument(paper: HistoryPaper, { url, size }: { url: string; size: PaperSize }): TDocumentDefinitions {
  return {
    pageSize: size === "a4" ? "A4" : "LETTER",
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
    info: { title: `History of ${paper.fleetNumber}` },
    defaultStyle: { font: "DejaVu", fontSize: 8.5, lineHeight: 1.15 },
    footer: (page, pages) => ({
      text: `${paper.fleetNumber} · printed ${paper.printed} · page ${page} of ${pages}`,
      alignment: "center",
      fontSize: 7,
      margin: [0, 12, 0, 0],
    }),
    content: [
      {
        columns: [
          {
            width: "*",
            stack: [
              { text: paper.fleetNumber, bold: true, fontSize: 24 },
              { text: `${paper.machine}, ${paper.site}`, fontSize: 11 },
              { text: paper.hours, fontSize: 11, margin: [0, 4, 0, 0] },
            ],
          },
          { width: 84, stack: [{ qr: url, fit: 80 }] },
        ],
      },
      ...paper.warnings.map(
        (text): Content => ({ table: { widths: ["*"], body: [[{ text, bold: true, margin: [3, 2, 3, 2] }]] }, margin: [0, 6, 0, 0] }),
      ),
      {
        margin: [0, 10, 0, 0],
        layout: "lightHorizontalLines",
        table: {
          headerRows: 1,
          widths: [64, 26, 58, "*"],
          body: [
            ["When", "Who", "", "What"].map((text) => ({ text, bold: true })),
            ...paper.lines.map(({ when, who, what, words, lines }) => [
              { text: when, fontSize: 7.5 },
              who,
              { text: what, fontSize: 7.5 },
              { stack: [{ text: words, bold: true }, ...lines.map((text) => ({ text, fontSize: 7.5 }))] },
            ]),
          ],
        },
      },
      ...(paper.left > 0 ? [{ text: `${paper.left} older lines stand in the record.`, margin: [0, 6, 0, 0] } as Content] : []),
      { text: `This paper stands as it was printed. What stands now: ${url}`, fontSize: 7, margin: [0, 10, 0, 0] },
    ],
  };
}
