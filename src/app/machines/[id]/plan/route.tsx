import { failure, requireOwnOrigin } from "@/app/api/answer";
import { getMachine } from "@/data/machine/machines";
import { database } from "@/data/open";
import { unlessSpoilt } from "@/data/record/sheets-read";
import { PlanThumbnail } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";

/** The colours of the sheet's blue, which a picture by itself does not inherit. */
const COLOURS = {
  "--chalk": "#f4f6ef",
  "--chalk-soft": "#c6cdf2",
  "--chalk-faint": "#8f9be0",
  "--dye": "#22307f",
  "--dye-deep": "#1a2566",
};
const STYLE = `svg{background:var(--dye);${Object.entries(COLOURS)
  .map(([name, value]) => `${name}:${value}`)
  .join(";")}}`;

/** In place of a machine whose sheet cannot be read. */
const UNREADABLE = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 88 64"><style>${STYLE}</style><text x="44" y="42" fill="#c6cdf2" font-size="28" text-anchor="middle">?</text></svg>`;

const drawing = (svg: string, kept: string): Response =>
  new Response(svg, { headers: { "content-type": "image/svg+xml", "cache-control": kept } });

/** A machine from above as a small picture, for lists: it never changes under its sheet's version. */
export async function GET(request: Request, { params }: { params: Promise<{ id: string }> }) {
  try {
    requireOwnOrigin(request);
    const { id } = await params;
    const record = unlessSpoilt(() => getMachine(database(), id));
    if (!record) return drawing(UNREADABLE, "no-store");
    const { machine } = record;
    const { renderToStaticMarkup } = await import("react-dom/server");
    const drawn = renderToStaticMarkup(<PlanThumbnail scene={planScene(machine, "behind")} label="" />);
    const svg = drawn.replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ').replace(">", `><style>${STYLE}</style>`);
    return drawing(svg, "private, max-age=31536000, immutable");
  } catch (error) {
    return failure(error);
  }
}
