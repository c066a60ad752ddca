import { beforeEach, describe, expect, it } from "vitest";
import type { XY } from "../geometry/plane";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { deskWithPlan, row, STOREY } from "../testing/desk";
import { setAct, useDesk } from "./desk";
import { onGrid, useGrid } from "./grid";
import { clickAt } from "./hand";
import { held } from "./held";

beforeEach(() => {
  deskWithPlan();
  useGrid.setState(useGrid.getInitialState());
});

/** The storey's wing runs so many degrees from x, with a wall of it far from the rest. */
function wing(degrees: number): void {
  const way = (degrees * Math.PI) / 180;
  const at = (mm: number): XY => [20_000 + mm * Math.cos(way), 10_000 + mm * Math.sin(way)];
  const node = (id: string, [x, y]: XY) => row("node", id, { storey: STOREY, drawing: null, x, y });
  const storey = { name: "Ground", elevation: 0, height: 2700, alternativeOf: null, wing: degrees };
  useProject.setState((s) => ({
    rows: withRows(s.rows, [
      row("storey", STOREY, storey),
      node("w1", at(0)),
      node("w2", at(5000)),
      row("wall", "skew", { storey: STOREY, fromNode: "w1", toNode: "w2", thickness: 200, rise: 0, line: "centre" }),
    ]),
  }));
}

const towards = ([x, y]: XY, degrees: number, mm = 3000): XY => [
  x + mm * Math.cos((degrees * Math.PI) / 180),
  y + mm * Math.sin((degrees * Math.PI) / 180),
];

describe("a direction", () => {
  it("is held to the wing's grid where it runs near it, along and across, and to the building's near that", () => {
    wing(20);
    const from: XY = [50_000, 50_000];
    expect(held(from, towards(from, 22))).toMatchObject({ words: "along the wing" });
    expect(held(from, towards(from, 108))).toMatchObject({ words: "across the wing" });
    expect(held(from, towards(from, 2))).toMatchObject({ words: "square, along x" });
    expect(held(from, towards(from, 12))).toBeNull();
    const [x = 0, y = 0] = held(from, towards(from, 22))?.at ?? [];
    expect(Math.atan2(y - 50_000, x - 50_000)).toBeCloseTo((20 * Math.PI) / 180);
  });

  it("between two grids is held to the one that the walls round it run with", () => {
    wing(5);
    // Beside the skew wall, and beside the rectangle's south.
    expect(held([21_000, 9000], towards([21_000, 9000], 2.2))).toMatchObject({ words: "along the wing" });
    expect(held([1000, -900], towards([1000, -900], 2.8))).toMatchObject({ words: "square, along x" });
    // Where there is neither, to the nearer of the two.
    expect(held([60_000, 0], towards([60_000, 0], 2.2))).toMatchObject({ words: "square, along x" });
    expect(held([60_000, 0], towards([60_000, 0], 2.8))).toMatchObject({ words: "along the wing" });
  });
});

describe("the regular grid", () => {
  it("holds corners to its crossings from where it begins, once it is there and wanted", () => {
    expect(onGrid([1030, 980])).toBeNull();
    useGrid.setState({ spacing: 625, origin: [100, 0], holds: true });
    expect(onGrid([1330, 640])).toEqual([1350, 625]);
    setAct("walls");
    clickAt([11_330, 9400], false);
    expect(useDesk.getState().draft).toMatchObject({ of: "chain", points: [[11_350, 9375]] });
    useGrid.setState({ holds: false });
    expect(onGrid([1330, 640])).toBeNull();
  });
});
