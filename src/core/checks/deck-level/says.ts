export type Says = {
  action:
    | { code: "tyres-first" }
    | { code: "block-deck" }
    | { code: "take-up-hanger"; place: string }
    | {
        code: "turn-hanger";
        place: string;
        turns: number;
        exactTurns: number;
        liftMetres: number;
        endsShort: boolean;
        slackMetres?: number;
      }
    | { code: "height-by-lift"; liftMetres: number }
    | { code: "read-next"; place: string; why: "settle-side" | "settle-rake" | "make-a-plane" | "spare-reading" | "tell-apart" };
  warning:
    | { code: "no-spare-reading" }
    | { code: "rake-from-one-blade" }
    | { code: "height-over-range"; place: string; mostMetres: number }
    | { code: "height-under-range"; place: string; leastMetres: number }
    | { code: "adjuster-ends-short"; place: string }
    | { code: "hanger-would-hang-free"; place: string; slackMetres: number };
  provisional:
    | { code: "tyres-not-checked" }
    | { code: "tyres-not-right" }
    | { code: "floor-not-mapped"; count: number }
    | { code: "level-without-floor" }
    | { code: "blades-not-known-straight" }
    | { code: "hangers-first" }
    | { code: "hanger-loose"; place: string }
    | { code: "rake-wanted-on-both-outer-blades" };
  problem:
    | { code: "unknown-spindle"; place: string }
    | { code: "unknown-place"; place: string }
    | { code: "unknown-wheel"; place: string }
    | { code: "unknown-hanger"; place: string }
    | { code: "height-above-deck-range"; place: string; mostMetres: number }
    | { code: "height-below-deck-range"; place: string; leastMetres: number };
};
