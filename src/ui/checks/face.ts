import type { ComponentType } from "react";
import type { Point } from "@/core/basics/geometry";
import type { UnitSystem } from "@/core/basics/units";
import type { Assessment, Check, Of, Said } from "@/core/checks";
import type { Machine, Standpoint } from "@/core/machine";

/** To whom something is said: of which machine, in whose units. */
export type Told = { machine: Machine; system: UnitSystem };
/** As well as from where it is looked at. */
export type ToldFrom = Told & { standpoint: Standpoint };

/** What a check draws with: what stands typed or taken, and what it comes to. */
export type PictureArgs = ToldFrom & { readings: unknown; assessment: Assessment | undefined };
/** On the plan: as an SVG group over the machine. `toPage`: metres as seen from the standpoint, to the drawing's own units. */
export type OverlayArgs = PictureArgs & { toPage: (point: Point) => Point };
/** Beneath the plan and in line with it across: an SVG group of this size. */
export type BeneathArgs = OverlayArgs & { pixelsPerMetre: number; width: number; height: number };

type Say<Codes extends Said, To> = { [Code in Codes["code"]]: (said: Extract<Codes, { code: Code }>, told: To) => string };
/** A sentence for every code of a kind; nothing where the check has none. */
type Sentences<Name extends string, Codes extends Said, To> = [Codes] extends [never] ? object : { [N in Name]: Say<Codes, To> };

type Drawn = {
  /** What it draws of its own beneath the plan, or in its place. */
  picture?: ComponentType<PictureArgs>;
  over?: ComponentType<OverlayArgs>;
  beneath?: ComponentType<BeneathArgs>;
  /** Its own picture is the plan. */
  isPlanless?: boolean;
  /** What of the machine the plan shows: the deck, unless said. */
  plan?: "deck" | "machine";
  /** Of the machine as it is when right, taken before: which pictures it is compared with. */
  keptPictures?: string;
  /** What a photograph taken with it shows. */
  photographs?: string;
  /** Beneath the answer. */
  more?: ComponentType<PictureArgs>;
  /** What its readings over time are called. */
  trend?: { title: string; lines: Readonly<Record<string, string>> };
};

type Words<Detail, S> = {
  /** The verdict first, as one says it at the machine. */
  answer: (found: Assessment<Detail, S>, told: Told) => string;
  /** What a place can be found to be, by the finding's code. */
  states?: Readonly<Record<string, string>>;
  figures?: Readonly<Record<string, string>>;
  /** Places that the machine's sheet does not name: parts of a deck, the turf. */
  parts?: Readonly<Record<string, string>>;
} & Sentences<"actions", Of<S, "action"> & Said, ToldFrom> &
  Sentences<"warnings", Of<S, "warning"> & Said, Told> &
  Sentences<"provisional", Of<S, "provisional"> & Said, Told> &
  Sentences<"problems", Of<S, "problem"> & Said, UnitSystem>;

/** What a check says and draws. A code without a sentence does not compile. */
export type Face<C> = C extends Check<infer _Readings, infer Detail, infer S> ? Words<Detail, S> & Drawn : never;

type Loosely<To> = Readonly<Record<string, ((said: never, told: To) => string) | undefined>>;
/** A face as it is used by what knows no check by name. */
export type AnyFace = Drawn & {
  answer: (found: Assessment, told: Told) => string;
  states?: Readonly<Record<string, string>>;
  figures?: Readonly<Record<string, string>>;
  parts?: Readonly<Record<string, string>>;
} & { [Kind in "actions" | "warnings" | "provisional" | "problems"]?: Loosely<never> };
