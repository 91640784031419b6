import path from "node:path";
import PdfPrinter from "pdfmake";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";
import type { JobCard } from "@/app/jobs/[id]/job-card";

export const PAPER_SIZES = ["a4", "letter"] as const;
export type PaperSize = (typeof PAPER_SIZES)[number];

/** Letters of every alphabet a shop writes in ship with it. */
const FONTS = path.join(process.cwd(), "node_modules", "dejavu-fonts-ttf", "ttf");
const fonts = {
  DejaVu: {
    normal: path.join(FONTS, "DejaVuSans.ttf"),
    bold: path.join(FONTS, "DejaVuSans-Bold.ttf"),
    italics: path.join(FONTS, "DejaVuSans-Oblique.ttf"),
    bolditalics: path.join(FONTS, "DejaVuSans-BoldOblique.ttf"),
  },
};

const MARGIN = 40;

/** Paper, margins, letters and foot of whatever is printed. */
export function pageOf({ size, title, foot }: { size: PaperSize; title: string; foot: string }): Omit<TDocumentDefinitions, "content"> {
  return {
    pageSize: size === "a4" ? "A4" : "LETTER",
    pageMargins: [MARGIN, MARGIN, MARGIN, MARGIN],
    info: { title },
    defaultStyle: { font: "DejaVu", fontSize: 9, lineHeight: 1.15 },
    footer: (page, pages) => ({ text: `${foot} · page ${page} of ${pages}`, alignment: "center", fontSize: 7, margin: [0, 12, 0, 0] }),
  };
}

type Head = { fleetNumber: string; machine: string; site: string; says: string; warnings: readonly string[]; url: string };

/** Which machine, with a code back to the record; what holds it and what is owed before anything else. */
export const headOf = ({ fleetNumber, machine, site, says, warnings, url }: Head): Content[] => [
  {
    columns: [
      {
        width: "*",
        stack: [
          { text: fleetNumber, bold: true, fontSize: 24 },
          { text: `${machine}, ${site}`, fontSize: 11 },
          { text: says, bold: true, fontSize: 11, margin: [0, 4, 0, 0] },
        ],
      },
      { width: 84, stack: [{ qr: url, fit: 80 }] },
    ],
  },
  ...warnings.map(
    (text): Content => ({ table: { widths: ["*"], body: [[{ text, bold: true, margin: [3, 2, 3, 2] }]] }, margin: [0, 6, 0, 0] }),
  ),
];

/** A job card as it is laid out: black on white, thin lines, nothing filled. */
export function cardDocument(card: JobCard, args: { url: string; size: PaperSize }): TDocumentDefinitions {
  const { url, size } = args;
  const heading = (text: string): Content => ({ text, bold: true, fontSize: 11, margin: [0, 8, 0, 2] });
  const block = (title: string, lines: readonly Content[]): Content[] => (lines.length === 0 ? [] : [heading(title), ...lines]);
  return {
    ...pageOf({
      size,
      title: `Job ${card.jobId}, ${card.fleetNumber}`,
      foot: `${card.fleetNumber} · job ${card.jobId} · printed ${card.printed}`,
    }),
    content: [
      ...headOf({ ...card, says: `Job ${card.jobId}. ${card.state}.`, url }),
      ...block(
        card.complaints.length > 1 ? "Complaints" : "Complaint",
        card.complaints.map(
          ({ words, by, looks }): Content => ({ text: [{ text: `“${words}”`, bold: true }, `  ${by}${looks ? `. ${looks}` : ""}`] }),
        ),
      ),
      ...block(
        "Found",
        card.causes.map((text): Content => ({ text, bold: true })),
      ),
      ...block(
        "What was done",
        card.steps.length === 0
          ? []
          : [
              {
                layout: "lightHorizontalLines",
                table: {
                  headerRows: 1,
                  widths: [86, 26, "*"],
                  body: [
                    ["When", "Who", "What"].map((text) => ({ text, bold: true })),
                    ...card.steps.map(({ when, who, words, lines, isUndone }) => [
                      { text: when, fontSize: 7.5 },
                      who,
                      {
                        stack: [
                          { text: words, bold: true, ...(isUndone ? { decoration: "lineThrough" as const } : {}) },
                          ...lines.map((text) => ({ text, fontSize: 8 })),
                        ],
                      },
                    ]),
                  ],
                },
              },
            ],
      ),
      ...block(
        "Still missing for “proved”",
        card.gaps.map((text): Content => ({ text: `☐ ${text}` })),
      ),
      { text: `This card stands as it was printed. What stands now: ${url}`, fontSize: 7, margin: [0, 10, 0, 0] },
    ],
  };
}

/** The card as a PDF file. */
export const cardPdf = (card: JobCard, args: { url: string; size: PaperSize }): Promise<Buffer> => pdfOf(cardDocument(card, args));

/** What is laid out, as a file. */
export function pdfOf(laidOut: TDocumentDefinitions): Promise<Buffer> {
  const document = new PdfPrinter(fonts).createPdfKitDocument(laidOut);
  const parts: Buffer[] = [];
  return new Promise((resolve, reject) => {
    document.on("data", (part: Buffer) => parts.push(part));
    document.on("end", () => resolve(Buffer.concat(parts)));
    document.on("error", reject);
    document.end();
  });
}
