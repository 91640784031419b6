"use client";

import { kindById } from "@/core/kinds";
import { cuttingWidth, type Machine } from "@/core/machine";
import { formatQuantity, type UnitSystem } from "@/core/units";
import { useSeat } from "@/ui/person";
import { show } from "@/ui/words/quantities";

type Line = readonly [string, string];

const perTurn = (metres: number, system: UnitSystem) =>
  formatQuantity({ valueSi: metres, dimension: "length", system, instrument: "fine" }).text;

type Section = { title: string; lines: Line[] };

function linesOf(machine: Machine, system: UnitSystem): Section[] {
  const { sheet } = machine;
  const length = (value: number | undefined) => (value === undefined ? "not on the sheet" : show(value, "length", system));
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
        ...(sheet.capacitorWaitSeconds ? ([["Wait after the pack is out", `${sheet.capacitorWaitSeconds} s`]] as Line[]) : []),
        [
          "Blade bolt torque",
          sheet.bladeBoltTorqueNewtonMetres === undefined
            ? "not on the sheet: no figure is made up"
            : show(sheet.bladeBoltTorqueNewtonMetres, "torque", system),
        ],
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
        `${perTurn(hanger.liftPerTurnMetres, system)} a turn; ${hanger.turnsLeftUp} turns left up, ${hanger.turnsLeftDown} down`,
      ]),
    },
  ];
  return sections.filter(({ lines }) => lines.length > 0);
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
    </>
  );
}
