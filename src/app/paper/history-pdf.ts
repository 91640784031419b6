import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import { headOf, type PaperSize, pageOf } from "./card-pdf";

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
    ...pageOf({ size, title: `History of ${paper.fleetNumber}`, foot: `${paper.fleetNumber} · printed ${paper.printed}` }),
    content: [
      ...headOf({ ...paper, says: paper.hours, url }),
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
