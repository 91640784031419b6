"use client";

import { useMemo } from "react";
import type { Assessment, DeckDetail, TyreDetail } from "@/core/checks";
import { fitPlane, type Plane } from "@/core/geometry";
import { cuttingWidth, type Machine, pointOf, STANDPOINT_LABELS, type Standpoint } from "@/core/machine";
import type { UnitSystem } from "@/core/units";
import { fitInto } from "@/drawings/fit";
import { MachinePlan } from "@/drawings/plan";
import { planScene } from "@/drawings/plan/scene";
import { SwathSection } from "@/drawings/section";
import { sectionScene } from "@/drawings/section/scene";
import { useSeat } from "@/ui/person";
import { Standpoints } from "@/ui/standpoints";
import { show, showSize } from "@/ui/words/checks";
import { Compass, HangerTurns, Tilt, Tips } from "./marks";
import { Spots } from "./spots";
import type { Worksheet } from "./use-worksheet";

const WIDTH = 620;
const PLAN_HEIGHT = 400;
const SECTION_HEIGHT = 132;
/** A sixteenth of an inch or two millimetres between contour lines. */
const CONTOUR = { us: 0.0254 / 16, metric: 0.002 } as const;

export type Surface = { plane: Plane; target: Plane; isEstimate: boolean };

/** The tips' plane to draw: measured, or what the tyres alone are reckoned to do to a level deck. */
function surfaceOf(machine: Machine, assessment: Assessment | undefined): Surface | undefined {
  if (assessment?.check === "deck-level") {
    const { plane, target } = assessment.detail as DeckDetail;
    return plane && target ? { plane, target, isEstimate: false } : undefined;
  }
  if (assessment?.check !== "tyre-pressure") return undefined;
  const { tipChanges } = assessment.detail as TyreDetail;
  if (!tipChanges) return undefined;
  const height = machine.sheet.heightLeastMetres ?? 0.06;
  const fitted = fitPlane(tipChanges.map(({ x, y, change }) => ({ x, y, z: change + height })));
  return fitted.kind === "fitted"
    ? { plane: fitted.planeFit.plane, target: { height, slopeRight: 0, slopeForward: 0 }, isEstimate: true }
    : undefined;
}

export type DrawingArgs = {
  machine: Machine;
  standpoint: Standpoint;
  onStandpoint: (standpoint: Standpoint) => void;
  worksheet: Worksheet;
  assessment: Assessment | undefined;
  active: string | undefined;
  onActive: (key: string) => void;
  onStep: (by: 1 | -1) => void;
  canEnter: boolean;
};

/** The machine from above, to scale, where readings go in; beneath it, aligned, the section of the swath. */
export function DrawingPanel(args: DrawingArgs) {
  const { machine, standpoint, worksheet, assessment } = args;
  const { system } = useSeat();
  const scene = useMemo(() => planScene(machine, standpoint), [machine, standpoint]);
  // What is read at the blades is drawn near.
  const isDeck = worksheet.checkId === "deck-level";
  const fit = useMemo(
    () => fitInto({ bounds: isDeck ? scene.deckBounds : scene.bounds, width: WIDTH, height: PLAN_HEIGHT, margin: isDeck ? 58 : 46 }),
    [scene, isDeck],
  );
  const surface = surfaceOf(machine, assessment);
  const section = surface && machine.spindles.length > 0 ? sectionScene({ machine, standpoint, ...surface }) : undefined;
  const ledge =
    section?.ledgeMetres !== undefined && Math.abs(section.ledgeMetres) > 0.0008
      ? `ledge ${showSize(section.ledgeMetres, system)}`
      : undefined;
  const hotWheels =
    assessment?.check === "tyre-pressure"
      ? assessment.figures.flatMap(({ id, place, verdict }) =>
          id === "pressure" && place && (verdict === "out" || verdict === "stop") ? [place] : [],
        )
      : [];
  return (
    <section aria-label="Drawing" className="dye flex min-h-0 flex-col overflow-hidden">
      <Standpoints standpoint={standpoint} onStandpoint={args.onStandpoint} />
      <div className="grid min-h-0 flex-1 place-items-center [container-type:size] max-lg:aspect-[620/532] max-lg:flex-none">
        <div
          className="relative"
          style={{
            width: `min(100cqw, 100cqh * ${WIDTH / (PLAN_HEIGHT + SECTION_HEIGHT)})`,
            aspectRatio: `${WIDTH} / ${PLAN_HEIGHT + SECTION_HEIGHT}`,
          }}
        >
          <svg
            viewBox={`0 0 ${WIDTH} ${PLAN_HEIGHT + SECTION_HEIGHT}`}
            className="h-full w-full"
            role="img"
            aria-label={`${STANDPOINT_LABELS[standpoint]}: plan of the machine to scale, and the section beneath it. The same figures stand in the table.`}
          >
            <clipPath id="plan-area">
              <rect x={0} y={0} width={WIDTH} height={PLAN_HEIGHT} />
            </clipPath>
            <g clipPath="url(#plan-area)">
              <MachinePlan scene={scene} fit={fit} hot={{ wheels: hotWheels }} />
              {surface && machine.deck && (
                <Tilt
                  surface={surface}
                  outline={machine.deck.outline.map(pointOf)}
                  standpoint={standpoint}
                  toPage={fit.toPage}
                  every={CONTOUR[system]}
                />
              )}
              <Tips machine={machine} standpoint={standpoint} toPage={fit.toPage} assessment={assessment} />
              <HangerTurns machine={machine} standpoint={standpoint} toPage={fit.toPage} assessment={assessment} />
              <Compass standpoint={standpoint} unit={unitWord(worksheet.checkId, system)} />
            </g>
            <g transform={`translate(0 ${PLAN_HEIGHT})`}>
              {section ? (
                <SwathSection
                  scene={section}
                  toAcross={(across) => fit.toPage({ x: across, y: 0 }).x}
                  pixelsPerMetre={fit.scale}
                  width={WIDTH}
                  height={SECTION_HEIGHT}
                  ledge={ledge}
                  isEstimate={surface?.isEstimate ?? false}
                />
              ) : (
                <text x={WIDTH / 2} y={SECTION_HEIGHT / 2} textAnchor="middle" fontSize={14} fill="var(--chalk-soft)">
                  {emptyWords(worksheet.checkId, show(cuttingWidth(machine), "length", system))}
                </text>
              )}
            </g>
          </svg>
          <div className="pointer-events-none absolute inset-0">
            <Spots {...args} toShare={(p) => shareOf(fit.toPage(p))} />
          </div>
        </div>
      </div>
    </section>
  );
}

function unitWord(checkId: string, system: UnitSystem): string {
  if (checkId === "tyre-pressure") return system === "us" ? "psi" : "kPa";
  if (checkId === "deck-level") return system === "us" ? "inches" : "mm";
  return "";
}

function emptyWords(checkId: string, width: string): string {
  if (checkId === "deck-level") return "Read three tips that are not on one line: the cut appears here";
  return checkId === "tyre-pressure" ? "Read every tyre: what they do to the deck appears here" : `Cuts ${width} wide`;
}

const shareOf = ({ x, y }: { x: number; y: number }) => ({ left: x / WIDTH, top: y / (PLAN_HEIGHT + SECTION_HEIGHT) });
