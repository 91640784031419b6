/** What tells which way up a blade sits, and which way it was made to turn. Each alone may settle it; what was not looked at is left out. */
export type WaySigns = {
  sail?: "to-deck" | "to-ground" | "none" | undefined;
  /** Words or a stamp: "grass side", "bottom" belong to the ground, "top", "deck" to the deck. */
  stamp?: "right" | "wrong" | "none" | undefined;
  /** The dish of the middle: on the machine the ends stand lower than the hub's face. */
  centre?: "ends-lower" | "ends-higher" | "flat" | undefined;
  leads?: "edge" | "back" | undefined;
  arrow?: "with-turn" | "against-turn" | "none" | undefined;
};

export type WayUp =
  /** Which face is up, or which way it is to turn, is not settled by anything looked at. */
  | { code: "untold" }
  | { code: "right" }
  | { code: "upside-down" }
  /** The right face up and its back leading, or the wrong face up and its edge leading: no turning over puts that right. */
  | { code: "another-blade"; why: "back-leads" | "edge-leads" }
  | { code: "signs-disagree"; signs: (keyof WaySigns)[] };

const GOOD: Readonly<Record<keyof WaySigns, readonly string[]>> = {
  sail: ["to-deck"],
  stamp: ["right"],
  centre: ["ends-lower"],
  leads: ["edge"],
  arrow: ["with-turn"],
};
const SILENT: readonly string[] = ["none", "flat"];
const FACE = ["sail", "stamp", "centre"] as const;
const TURN = ["leads", "arrow"] as const;

type Vote = { isRight?: boolean; disagree: (keyof WaySigns)[] };

function voteOf(signs: WaySigns, names: readonly (keyof WaySigns)[]): Vote {
  const said = names.filter((name) => signs[name] !== undefined && !SILENT.includes(signs[name] as string));
  const right = said.filter((name) => GOOD[name].includes(signs[name] as string));
  if (said.length === 0) return { disagree: [] };
  if (right.length > 0 && right.length < said.length) return { disagree: said };
  return { isRight: right.length > 0, disagree: [] };
}

/**
 * Which way up a blade sits (physics): turned over, its faces and its leading edge change together; only one of them wrong is a blade made for
 * the other direction, or for another machine. A flat blade without sail, stamp or dish shows by its edge alone.
 */
export function wayUp(signs: WaySigns): WayUp {
  const [face, turn] = [voteOf(signs, FACE), voteOf(signs, TURN)];
  const disagree = [...face.disagree, ...turn.disagree];
  if (disagree.length > 0) return { code: "signs-disagree", signs: disagree };
  if (face.isRight === undefined && turn.isRight === undefined) return { code: "untold" };
  if (face.isRight === undefined) {
    // Without a face to tell, an edge that leads is the right way up only where the faces are alike.
    if (turn.isRight === false) return { code: "upside-down" };
    return FACE.some((name) => SILENT.includes(signs[name] ?? "")) ? { code: "right" } : { code: "untold" };
  }
  if (turn.isRight === undefined) return face.isRight ? { code: "untold" } : { code: "upside-down" };
  if (face.isRight === turn.isRight) return { code: face.isRight ? "right" : "upside-down" };
  return { code: "another-blade", why: face.isRight ? "back-leads" : "edge-leads" };
}
