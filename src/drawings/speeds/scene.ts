/** How a speed came to be known; each has a shape of its own. */
export type SpeedMark = "paper" | "no-load" | "loaded" | "low-charge";

export type SpeedRow = { id: string; label: string; marks: { kind: SpeedMark; metresPerSecond: number }[] };

/** Speeds that part the scale, metres a second: below the first an edge tears, the next two bound the working range, the last is the limit. */
export type SpeedZones = { tears: number; from: number; to: number; limit: number };

export type SpeedScene = {
  /** Share of the width at which a speed stands, 0 to 1. */
  at: (metresPerSecond: number) => number;
  /** Rows whose every mark is placed; a blade that stands is at the very left. */
  rows: { id: string; label: string; marks: { kind: SpeedMark; share: number; isOver: boolean; isSlow: boolean }[] }[];
};

/** The scale starts below where an edge tears: what is slower lies at its left end. */
const START_SHARE = 0.75;
const END_SHARE = 1.08;

/** Where each speed stands between "tears" and over the limit; the scale grows so that a blade far over the limit is still on it. */
export function speedScene(rows: readonly SpeedRow[], zones: SpeedZones): SpeedScene {
  const fastest = Math.max(zones.limit, ...rows.flatMap(({ marks }) => marks.map(({ metresPerSecond }) => metresPerSecond)));
  const [start, end] = [zones.tears * START_SHARE, fastest * END_SHARE];
  const at = (speed: number) => Math.min(1, Math.max(0, (speed - start) / (end - start)));
  return {
    at,
    rows: rows.map(({ id, label, marks }) => ({
      id,
      label,
      marks: marks.map(({ kind, metresPerSecond }) => ({
        kind,
        share: at(metresPerSecond),
        isOver: metresPerSecond >= zones.limit,
        isSlow: metresPerSecond < zones.tears,
      })),
    })),
  };
}
