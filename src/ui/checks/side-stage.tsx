import type { UnitSystem } from "@/core/basics/units";
import type { UnitSheet } from "@/core/machine";
import { LEAST_CLEARANCE_SHARE, type SideView, scalpingRadius, stanceOf, wheelbaseOf } from "@/core/physics/reel";
import { SideViewDrawing } from "@/drawings/side-view";
import { length, sayDegrees, sayRadius } from "./shared";

/** A unit from the side as it would stand, what stands faint behind it; beneath, in words, what the picture says. */
export function SideStage({
  label,
  sheet,
  stands,
  moved,
  system,
}: {
  label: string;
  sheet: UnitSheet;
  stands: SideView;
  moved: SideView;
  system: UnitSystem;
}) {
  const [stance, before] = [stanceOf(moved), stanceOf(stands)];
  const isMoved = moved !== stands && JSON.stringify(moved) !== JSON.stringify(stands);
  const crest = scalpingRadius(moved);
  const say = (metres: number) => length(metres, system);
  const mark = (clear: number | undefined) =>
    clear === undefined || !stance ? undefined : clear < stance.heightMetres * LEAST_CLEARANCE_SHARE ? ("bad" as const) : ("good" as const);
  const extra = { reel: sheet.sideView?.reel, reelRadiusMetres: sheet.reel && sheet.reel.newDiameterMetres / 2 };
  return (
    <>
      <div className="grid min-h-0 flex-1 place-items-center p-1">
        {stance ? (
          <SideViewDrawing
            parts={{ ...moved, ...extra }}
            before={isMoved ? { ...stands, ...extra } : undefined}
            crestRadiusMetres={crest?.radiusMetres}
            say={say}
            label={`${label} from its left side: ${say(stance.heightMetres)} high${stance.attitudeRadians === undefined ? "" : `, attitude ${sayDegrees(stance.attitudeRadians)}`}`}
            heel={mark(stance.heelMetres)}
            toe={mark(stance.toeMetres)}
          />
        ) : (
          <p>So far the rollers lie in one another: nothing can stand on them.</p>
        )}
      </div>
      <p className="px-2 text-sm text-[var(--chalk-soft)]" aria-live="polite">
        {stance && (
          <>
            {stance.attitudeRadians !== undefined && <>Attitude {sayDegrees(stance.attitudeRadians)}. </>}
            {isMoved && before && (
              <b className="text-[var(--chalk)]">
                What if: {say(stance.heightMetres - before.heightMetres)} on the height,{" "}
                {sayDegrees(stance.tiltRadians - before.tiltRadians)} on the attitude.{" "}
              </b>
            )}
            {length(wheelbaseOf(moved), system, "gauge")} between the rollers: scalps crests sharper than{" "}
            {crest ? `${sayRadius(crest.radiusMetres, system)}, at the ${crest.touches}` : "level ground"}.
          </>
        )}
      </p>
    </>
  );
}
