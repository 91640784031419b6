"use client";

import { formatQuantity, type UnitSystem } from "@/core/basics/units";
import { kindById } from "@/core/catalogue/kinds";
import { cuttingWidth, type Machine, type UnitSheet } from "@/core/machine";
import { stanceOf } from "@/core/physics/reel";
import { useSeat } from "@/ui/person";
import { asWritten, show } from "@/ui/words/quantities";
import { saidOtherwise, WORD_LABELS } from "@/ui/words/sheet";

type Line = readonly [string, string];

const perTurn = (metres: number, system: UnitSystem) =>
  formatQuantity({ valueSi: metres, dimension: "length", system, instrument: "fine" }).text;

type Section = { title: string; lines: Line[] };

function linesOf(machine: Machine, system: UnitSystem): Section[] {
  const { sheet } = machine;
  const length = (value: number | undefined) => (value === undefined ? "not on the sheet" : asWritten(value, system));
  const pressure = (value: number | undefined) => (value === undefined ? "not on the sheet" : show(value, "pressure", system, "gauge"));
  const sections: Section[] = [
    {
      title: "Cut",
      lines: [
        ["Kind", kindById(machine.kind).label],
        ["Width of cut", show(cuttingWidth(machine), "length", system)],
        ["Height of cut", `${length(sheet.heightLeastMetres)} to ${length(sheet.heightMostMetres)}`],
        ...(machine.deck && machine.deck.mount !== "fixed"
          ? ([
              [
                "Rake wanted",
                sheet.rakeTargetMetres === undefined
                  ? "not on the sheet: common practice is used"
                  : show(sheet.rakeTargetMetres, "length", system),
              ],
            ] as Line[])
          : []),
        ...(sheet.tipSide ? ([["Tipped", sheet.tipSide]] as Line[]) : []),
        ...(sheet.standsOnEnd ? ([["Tipped", "stood on its end"]] as Line[]) : []),
        ...(sheet.jackingPoints?.length ? ([["Lifted at", sheet.jackingPoints.join(", ")]] as Line[]) : []),
        ...(sheet.isolationPoints?.length ? ([["Isolated at, in this order", sheet.isolationPoints.join(", ")]] as Line[]) : []),
        ...(sheet.capacitorWaitSeconds ? ([["Wait after the pack is out", `${sheet.capacitorWaitSeconds} s`]] as Line[]) : []),
        ...(machine.spindles.length === 0 ? [] : [torqueLine(sheet.bladeBoltTorqueNewtonMetres, system)]),
        ...(sheet.notes ? ([["Note", sheet.notes]] as Line[]) : []),
      ],
    },
    {
      title: "Wheels",
      lines: machine.wheels.map((wheel) => [
        wheel.label,
        wheel.isPneumatic
          ? `${pressure(wheel.sheetPressurePascals)}; least ${pressure(wheel.leastPressurePascals)}; tyre's own maximum ${pressure(wheel.mouldedMaximumPascals)}`
          : "solid",
      ]),
    },
    {
      title: "Blades",
      lines: machine.spindles.map((spindle) => [spindle.label, `tip circle ${show(spindle.tipCircleDiameterMetres, "length", system)}`]),
    },
    { title: "Units", lines: machine.units.map((unit) => [unit.label, `${show(unit.widthMetres, "length", system)} wide`]) },
    { title: "Every unit", lines: unitLines(machine.sheet.unit, system) },
    ...machine.units.flatMap(({ label, own }) => (own ? [{ title: `${label}, its own`, lines: unitLines(own, system) }] : [])),
    { title: "Reel drive", lines: reelDriveLines(machine, system) },
    {
      title: "Drive",
      lines: [
        ...(sheet.drive?.engineRevolutionsPerMinute === undefined
          ? []
          : ([["Input, full throttle", show(sheet.drive.engineRevolutionsPerMinute, "rotation", system)]] as Line[])),
        ...(sheet.drive?.toothRatio === undefined
          ? []
          : ([["Blade turns for one of the input", String(sheet.drive.toothRatio)]] as Line[])),
        ...(sheet.drive?.usualDroop === undefined
          ? []
          : ([["Usual loss under load", show(sheet.drive.usualDroop, "share", system)]] as Line[])),
        ...(sheet.belt?.lengthMetres === undefined ? [] : ([["Belt", show(sheet.belt.lengthMetres, "length", system, "gauge")]] as Line[])),
        ...(sheet.belt?.pulleys ?? []).map(
          ({ label, pitchDiameterMetres, side }): Line => [
            label,
            `${show(pitchDiameterMetres, "length", system, "gauge")} pitch diameter, ${side === "inside" ? "belt's inside" : "belt's back"}`,
          ],
        ),
        ...(sheet.gearboxes ?? []).map(
          ({ label, oil, coverToOilMetres, splineTeeth, isConnected }): Line => [
            label,
            [
              oil,
              coverToOilMetres === undefined ? undefined : `oil ${show(coverToOilMetres, "length", system, "gauge")} under the cover`,
              splineTeeth === undefined ? undefined : `${splineTeeth} teeth on the spline`,
              isConnected ? "connected" : undefined,
            ]
              .filter(Boolean)
              .join(", "),
          ],
        ),
      ],
    },
    {
      title: "Hangers",
      lines: (machine.deck?.hangers ?? []).map((hanger) => [
        hanger.label,
        `${hanger.liftPerTurnMetres === undefined ? "lift per turn not on the sheet" : `${perTurn(hanger.liftPerTurnMetres, system)} a turn`}; ${hanger.turnsLeftUp} turns left up, ${hanger.turnsLeftDown} down`,
      ]),
    },
  ];
  return sections.filter(({ lines }) => lines.length > 0);
}

const torqueLine = (torque: number | undefined, system: UnitSystem): Line => [
  "Blade bolt torque",
  torque === undefined ? "not on the sheet: no figure is made up" : show(torque, "torque", system),
];

const SCHOOL_WORDS = {
  "no-contact": "set without contact",
  "light-contact": "set to light contact",
  "firm-contact": "set to firm contact",
} as const;

/** What a unit has to be, line by line; what its sheet does not say is left out. */
function unitLines(unit: UnitSheet | undefined, system: UnitSystem): Line[] {
  if (!unit) return [];
  const fine = (metres: number) => show(metres, "length", system, "fine");
  const roller = (name: string, one: UnitSheet["frontRoller"]): Line[] =>
    one ? [[name, `${one.kind}, ${one.hasSolidEnds ? "solid ends" : "open ends"}`]] : [];
  const stance = unit.sideView && stanceOf(unit.sideView);
  return [
    ...(unit.reel
      ? ([
          [
            "Reel",
            `${unit.reel.blades} blades, ${fine(unit.reel.newDiameterMetres)} new, scrap under ${fine(unit.reel.scrapDiameterMetres)}`,
          ],
        ] as Line[])
      : []),
    ...(unit.bedknife
      ? ([
          [
            "Bedknife",
            `${unit.bedknife.type}, ${fine(unit.bedknife.thicknessMetres)} thick${unit.bedknife.leastThicknessMetres === undefined ? "" : `, least ${fine(unit.bedknife.leastThicknessMetres)}`}${unit.bedknife.hoursBetweenGrinds === undefined ? "" : `; ground every ${unit.bedknife.hoursBetweenGrinds} h`}`,
          ],
        ] as Line[])
      : []),
    ...(stance ? ([["Stands at", `${fine(stance.heightMetres)} by its side view`]] as Line[]) : []),
    ...roller("Front roller", unit.frontRoller),
    ...roller("Rear roller", unit.rearRoller),
    ...(unit.groomer ? ([["Groomer or brush", unit.groomer]] as Line[]) : []),
    ...(unit.school ? ([["Contact", SCHOOL_WORDS[unit.school]]] as Line[]) : []),
    ...(unit.brackets ?? []).map(
      (row): Line => [
        `Bracket, ${fine(row.fromHeightMetres)} to ${fine(row.toHeightMetres)}${row.withGroomer ? ", groomer" : ""}`,
        `hole ${row.number}, facing ${row.facing}`,
      ],
    ),
    ...(unit.adjusters?.knifeThrowMetres === undefined
      ? []
      : ([["Knife screw", `${fine(unit.adjusters.knifeThrowMetres)} a turn`]] as Line[])),
    ...(unit.adjusters?.heightThrowMetres === undefined
      ? []
      : ([
          ["Height screw", `${fine(unit.adjusters.heightThrowMetres)} a turn, at the ${unit.adjusters.heightEnd ?? "rear"} roller`],
        ] as Line[])),
    ...(unit.adjusters?.heightTravel === undefined
      ? []
      : ([
          ["Height travel", `${fine(unit.adjusters.heightTravel.mostZMetres - unit.adjusters.heightTravel.leastZMetres)} of the roller`],
        ] as Line[])),
    ...(unit.adjusters?.squareThrowMetres === undefined
      ? []
      : ([["Squaring adjuster", `${fine(unit.adjusters.squareThrowMetres)} a turn`]] as Line[])),
  ];
}

const FALLS_WORDS = {
  reel: "reels slow with the engine",
  "reel-and-travel": "reels and travel slow with the engine",
  nothing: "held by its motors",
} as const;

function reelDriveLines({ sheet: { reelDrive } }: Machine, system: UnitSystem): Line[] {
  if (!reelDrive) return [];
  return [
    ...(reelDrive.revolutionsPerMinute === undefined
      ? []
      : ([["Reels", show(reelDrive.revolutionsPerMinute, "rotation", system)]] as Line[])),
    ...(reelDrive.isGroundDriven ? ([["Driven", "by the ground"]] as Line[]) : []),
    ...(reelDrive.fallsWithEngine ? ([["When the engine sags", FALLS_WORDS[reelDrive.fallsWithEngine]]] as Line[]) : []),
  ];
}

/** The machine's own sheet in words. */
export function SheetTable({ machine }: { machine: Machine }) {
  const { system } = useSeat();
  return (
    <>
      {linesOf(machine, system).map(({ title, lines }) => (
        <table key={title} className="mb-3 w-full">
          <caption className="caps text-left">{title}</caption>
          <tbody className="ruled">
            {lines.map(([name, value]) => (
              <tr key={name} className="align-top">
                <th scope="row" className="w-2/5 py-1 pr-3 text-left font-medium">
                  {name}
                </th>
                <td className="py-1">{value}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ))}
      <WhoseWord machine={machine} system={system} />
    </>
  );
}

/** Whose word the values are that are not the manual's; where all are, that is said. */
function WhoseWord({ machine, system }: { machine: Machine; system: UnitSystem }) {
  const otherwise = saidOtherwise(machine, system);
  return (
    <section aria-label="Whose word" className="mb-3">
      <h3 className="caps">Whose word</h3>
      {otherwise.map(({ word, values }) => (
        <details key={word} open={values.length <= 6} className="border-b border-rule py-1">
          <summary>
            <b>{WORD_LABELS[word]}</b>: {values.length} {values.length === 1 ? "value" : "values"}
          </summary>
          <ul className="ml-4 list-disc">
            {values.map((value) => (
              <li key={value}>{value}</li>
            ))}
          </ul>
        </details>
      ))}
      <p className="py-1">{otherwise.length === 0 ? "Every value is its manual's." : "All the rest is its manual's."}</p>
    </section>
  );
}
