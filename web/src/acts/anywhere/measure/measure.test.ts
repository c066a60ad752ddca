import { beforeEach, describe, expect, it } from "vitest";
import { currentAct } from "../../../board/act";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { deskWithPlan } from "../../../testing/desk";

beforeEach(() => {
  deskWithPlan();
  useDesk.setState({ view: { x: 0, y: 0, k: 0.1 }, holdSquare: false });
  setAct("measure");
});

const at = (...points: readonly (readonly [number, number])[]) => {
  for (const p of points) clickAt(p, true);
};

describe("what is measured", () => {
  it("keeps its lengths on the board after the line has ended, until the next one begins", () => {
    at([20_000, 0], [23_000, 0], [23_000, 4000]);
    const words = currentAct()
      ?.words?.([20_000, 4000])
      .map((w) => w.replace(/\s/g, " "));
    expect(words).toEqual(["3 000 ±3 mm", "90.0° at the corner", "10 000 mm in all"]);
    at([23_020, 4010]);
    expect(drafted("measure")).toEqual({
      of: "measure",
      points: [
        [20_000, 0],
        [23_000, 0],
        [23_000, 4000],
      ],
      ends: "open",
    });
    expect(currentAct()?.words?.([0, 0])).toEqual([]);
    at([30_000, 0]);
    expect(drafted("measure")?.points).toEqual([[30_000, 0]]);
  });

  it("is an area where the line comes back to its beginning", () => {
    at([20_000, 0], [23_000, 0], [23_000, 4000], [20_010, 20]);
    expect(drafted("measure")).toMatchObject({ ends: "closed" });
    expect(drafted("measure")?.points).toHaveLength(3);
  });
});
