import { formatFraction, type UnitSystem } from "@/core/basics/units";
import type { Tool } from "@/core/job/tools";
import { show } from "./quantities";

const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

/** A tool as it is asked for at the bench. */
export function sayTool(tool: Tool, system: UnitSystem): string {
  switch (tool.code) {
    case "plain":
      return capital(tool.words);
    case "blade-socket": {
      const fits = tool.fits.map(({ system: kind, stamped }) => (kind === "inch" ? `${formatFraction(stamped / 16)} in` : `${stamped} mm`));
      return fits.length > 0
        ? `Socket for the blade bolt, ${fits.join(" or ")}`
        : `Socket for the blade bolt, head ${show(tool.headMetres, "length", system, "fine")}`;
    }
    case "torque-wrench":
      return tool.torqueNewtonMetres === undefined
        ? "Torque wrench, and the manual: the sheet gives no torque"
        : `Torque wrench, to ${show(tool.torqueNewtonMetres, "torque", system)}`;
    case "blades":
      return `${tool.count} new ${tool.count === 1 ? "blade" : "blades"}, ${show(tool.lengthMetres, "length", system)}`;
    case "hanger-wrench":
      return `Wrenches for the hangers: ${tool.heads.join(", ")}`;
    case "pressures":
      return `Pressures of the sheet: ${tool.wheels.map(({ label, pascals }) => `${label.toLowerCase()} ${show(pascals, "pressure", system)}`).join(", ")}`;
  }
}
