import { describe, expect, it } from "vitest";
import { way } from "./MisfitPanel";

describe("a misfit", () => {
  it("is told by the way the drawing has it", () => {
    expect([way(30, 2), way(-30, 2), way(1, 30), way(1, -30)]).toEqual(["to the right", "to the left", "up", "down"]);
  });
});
