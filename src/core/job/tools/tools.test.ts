import { describe, expect, it } from "vitest";
import { machineOf } from "@/core/checks/sheets.fixtures";
import { toolsFor } from ".";

describe("what to take from the bench", () => {
  it("names each tool once, with everything it is for", () => {
    const tools = toolsFor(machineOf("ZT-1"), { checks: ["blade-edge", "blade-overlap", "deck-level"], fixes: ["replace-blades"] });
    const gloves = tools.filter(({ tool }) => tool.code === "plain" && tool.words === "cut-resistant gloves");
    expect(gloves).toEqual([
      { tool: { code: "plain", words: "cut-resistant gloves" }, for: ["blade-edge", "deck-level", "replace-blades"] },
    ]);
  });

  it("takes sizes from the sheet: the socket for a 15/16 in head, and the 24 mm that fits it with 0.19 mm (worked example: bolt)", () => {
    const tools = toolsFor(machineOf("ZT-1"), { checks: ["blade-fit"], fixes: ["replace-blades"] });
    const socket = tools.map(({ tool }) => tool).find(({ code }) => code === "blade-socket");
    expect(socket).toMatchObject({
      fits: [
        { system: "inch", stamped: 15 },
        { system: "metric", stamped: 24, playMetres: expect.closeTo(0.00019, 5) },
      ],
    });
    expect(tools.find(({ tool }) => tool.code === "torque-wrench")).toMatchObject({ tool: { torqueNewtonMetres: expect.closeTo(122, 0) } });
    expect(tools.find(({ tool }) => tool.code === "blades")).toMatchObject({ tool: { count: 3 } });
  });

  it("does not invent a torque, and takes nothing for nothing", () => {
    const bare = { ...machineOf("ZT-1"), sheet: {} } as ReturnType<typeof machineOf>;
    const wrench = toolsFor(bare, { checks: ["blade-fit"], fixes: [] }).find(({ tool }) => tool.code === "torque-wrench");
    expect(wrench?.tool).toEqual({ code: "torque-wrench" });
    expect(toolsFor(bare, { checks: [], fixes: [] })).toEqual([]);
  });
});
