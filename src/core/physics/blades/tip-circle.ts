import { type Machine, type Spindle, wordOf } from "@/core/machine";

/** A blade's length and its tip circle are one size told twice: apart by more than this, one of the two is wrong. Estimate: a hundredth. */
const ALIKE_SHARE = 0.01;

/** The circle a blade's tips run on, metres, as far as the specification tells it. */
export type TipCircle = {
  metres: number;
  /** `estimated`: nobody measured or read it; `contradicted`: circle and blade length differ, and the larger, which runs faster, is taken. */
  doubt?: "estimated" | "contradicted";
  /** The other size where they differ. */
  otherMetres?: number;
};

/**
 * The tip circle of a spindle. A value somebody measured, read or has from the manual goes before an estimate, whichever of circle and blade length it is
 * said of; two that contradict each other are said, and the worse for a limit is taken.
 * @example blade 20 in on the specification, circle 16.531 in estimated by a template: 0.508 m.
 */
export function tipCircleOf(machine: Machine, spindle: Spindle): TipCircle {
  const circle = spindle.tipCircleDiameterMetres;
  const isGuessed = wordOf(machine, `spindles.${spindle.id}.tipCircleDiameterMetres`) === "estimated";
  const length = machine.sheet.blade?.lengthMetres;
  const guessed: Pick<TipCircle, "doubt"> = isGuessed ? { doubt: "estimated" } : {};
  if (length === undefined) return { metres: circle, ...guessed };
  const isLengthGuessed = wordOf(machine, "sheet.blade.lengthMetres") === "estimated";
  const isAlike = Math.abs(length - circle) <= ALIKE_SHARE * Math.max(length, circle);
  if (isGuessed && !isLengthGuessed) return { metres: length };
  if (isAlike || (isLengthGuessed && !isGuessed)) return { metres: circle, ...guessed };
  const [metres, otherMetres] = length > circle ? [length, circle] : [circle, length];
  return { metres, otherMetres, doubt: "contradicted" };
}
