import { describe, expect, it } from "vitest";
import { noRows, withRows } from "../../store/rows";
import { row } from "../../testing/desk";
import { sidesOf, unheldWords } from "./heldSides";

const pick = (id: string, x: number, y: number) => row("pick", id, { drawing: "d", x, y, sigmaPx: 0.3 });
const line = (id: string, a: string, b: string) =>
  row("gridPick", id, { drawing: "d", a, b, axis: "x", bearing: null, hand: "picked" });
const rows = withRows(noRows(), [
  row("drawing", "d", { page: "p", left: 0, top: 0, width: 1000, height: 800, model: "perspective" }),
  row("fit", "d", { m00: 10, m01: 0, m02: 0, m10: 0, m11: -10, m12: 0, m20: 0, m21: 0, m22: 1 }),
  ...[pick("a", 100, 100), pick("b", 900, 110), pick("c", 905, 700), pick("e", 110, 720), pick("m", 150, 300)],
  line("upper", "a", "b"),
]);

describe("sides of a photograph", () => {
  it("are held by what runs along them, and the others are named as they are seen", () => {
    expect(sidesOf(rows, "d").map((s) => [s.name, s.heldBy])).toEqual([
      ["top", 1],
      ["bottom", 0],
      ["left", 0],
      ["right", 0],
    ]);
    expect(unheldWords(sidesOf(rows, "d"))).toContain("its bottom, left and right");
  });

  it("are all held by a rectangle round the drawing, and none by a length through its middle or one that only checks", () => {
    const rectangle = row("rectangle", "r", { drawing: "d", a: "a", b: "b", c: "c", d: "e" });
    expect(unheldWords(sidesOf(withRows(rows, [rectangle]), "d"))).toBeNull();
    const check = row("knownLength", "l", { drawing: "d", a: "b", b: "c", heldOut: true });
    const stub = row("knownLength", "s", { drawing: "d", a: "m", b: "e", heldOut: false });
    expect(sidesOf(withRows(rows, [check, stub]), "d").map((s) => s.heldBy)).toEqual([1, 0, 1, 0]);
  });
});
