import { describe, expect, it } from "vitest";
import { way } from "../ledger/MisfitPanel";
import { levelOf, nearestCorners } from "./elevation";

describe("what is typed at a level", () => {
  it("is a name, and a height where one is known", () => {
    expect(levelOf("finished floor 0")).toEqual({ name: "finished floor", kind: "finished floor", height: "0" });
    expect(levelOf("eaves +5.49 m")).toEqual({ name: "eaves", kind: "eaves", height: "5.49 m" });
    expect(levelOf("Ridge 7 900")).toEqual({ name: "Ridge", kind: "ridge", height: "7 900" });
    expect(levelOf("window sill")).toEqual({ name: "window sill", kind: "sill", height: "" });
    expect(levelOf("ground −150")).toEqual({ name: "ground", kind: "ground", height: "-150" });
    expect(levelOf("head 6'8\"")).toEqual({ name: "head", kind: "head", height: "6'8\"" });
    expect(levelOf("string course")).toEqual({ name: "string course", kind: "other", height: "" });
    expect(levelOf("  ")).toEqual({ name: "", kind: "other", height: "" });
  });
});

describe("the plan's corners on a side", () => {
  it("are those of the near face, each once", () => {
    const corners = [
      { alongMm: 150, behindMm: 150 },
      { alongMm: 13050, behindMm: 150 },
      { alongMm: 152, behindMm: 300 },
      { alongMm: 5200, behindMm: 8450 },
    ];
    expect(nearestCorners(corners)).toEqual([150, 13050]);
    expect(nearestCorners([])).toEqual([]);
  });
});

describe("a misfit", () => {
  it("is told by the way the drawing has it", () => {
    expect([way(30, 2), way(-30, 2), way(1, 30), way(1, -30)]).toEqual(["to the right", "to the left", "up", "down"]);
  });
});
