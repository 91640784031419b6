/** Nut factors of the short form. Published short form, values common practice. */
export const NUT_FACTORS = { dry: 0.2, oiled: 0.15 } as const;

/** Clamp force of a bolt, newtons: T/(K·d) (published short form). @example 90 lbf·ft on a dry 5/8 in bolt: about 8,640 lbf. */
export function clampForce(args: { torqueNewtonMetres: number; diameterMetres: number; thread: keyof typeof NUT_FACTORS }): number {
  return args.torqueNewtonMetres / (NUT_FACTORS[args.thread] * args.diameterMetres);
}

const INCH = 0.0254;
const SIXTEENTH = INCH / 16;
/** Over this play a socket rounds the corners. Common practice. */
export const MOST_PLAY_METRES = 0.0003;

export type Socket = {
  system: "inch" | "metric";
  sizeMetres: number;
  /** Sixteenths of an inch, or millimetres: how it is stamped. */
  stamped: number;
  /** What it is wider than the head; negative: it does not go on. */
  playMetres: number;
  fit: "good" | "loose" | "too-small";
};

/** A socket as wide as the head by less than this still goes on: heads are made a little under their size. Common practice. */
const EXACT_METRES = 0.00002;

function socket(system: Socket["system"], stamped: number, headMetres: number): Socket {
  const sizeMetres = system === "inch" ? stamped * SIXTEENTH : stamped / 1000;
  const playMetres = sizeMetres - headMetres;
  const fit = playMetres < -EXACT_METRES ? "too-small" : playMetres > MOST_PLAY_METRES ? "loose" : "good";
  return { system, stamped, sizeMetres, playMetres, fit };
}

/** The nearest inch and metric sizes to a head, the one below and the one at or above it, with the play of each. */
export function socketsFor(headMetres: number): Socket[] {
  const around = (system: Socket["system"], unit: number) => {
    const above = Math.ceil((headMetres - EXACT_METRES) / unit);
    return [above - 1, above].filter((stamped) => stamped > 0).map((stamped) => socket(system, stamped, headMetres));
  };
  return [...around("inch", SIXTEENTH), ...around("metric", 0.001)];
}

/** A wrench reads to about this. Common practice. */
export const TORQUE_WITHIN = 0.1;

/** So many times the sheet's figure, or so small a part of it, is a slip of units or of the pen and no torque. Estimate. */
export const TORQUE_SLIP = 3;

export function isIncredibleTorque(torqueNewtonMetres: number | undefined, wanted: number | undefined): boolean {
  if (torqueNewtonMetres === undefined || wanted === undefined) return false;
  return torqueNewtonMetres >= wanted * TORQUE_SLIP || torqueNewtonMetres <= wanted / TORQUE_SLIP;
}
