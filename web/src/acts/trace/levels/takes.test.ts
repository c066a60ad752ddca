import { describe, expect, it } from "vitest";
import type { FitReport } from "../../../api/client";
import type { Rows, Thing } from "../../../store/rows";
import { differing, takeOf } from "./takes";

type Level = FitReport["levels"][number];

const storey = (id: string, name: string, elevation: number, height: number) =>
  [id, { id, name, elevation, height, alternativeOf: null, wing: null, revision: 1 }] as const;
const node = (id: string, x: number, y: number) => [id, { id, x, y, storey: "g", drawing: null, revision: 1 }] as const;
const wall = (id: string, fromNode: string, toNode: string) =>
  [id, { id, storey: "g", fromNode, toNode, thickness: 300, height: null, revision: 1 }] as const;
const window = (id: string, of: string, sill: number, height: number) =>
  [id, { id, wall: of, kind: "window", number: id, offset: 500, width: 900, sill, height, revision: 1 }] as const;
const mark = (id: string, drawing: string, kind: string) =>
  [id, { id, drawing, kind, name: kind, text: "", pick: "p", unit: "mm", revision: 1 }] as const;

/** Two storeys, a room of four walls with a window in front and one behind, a roof, two sides with a drawing each. */
const rows = {
  storey: new Map([storey("g", "Ground", 0, 2700), storey("u", "Upper", 2700, 2500)]),
  node: new Map([node("a", 0, 0), node("b", 8000, 0), node("c", 8000, 5000), node("d", 0, 5000)]),
  wall: new Map([wall("front", "a", "b"), wall("right", "b", "c"), wall("back", "c", "d"), wall("left", "d", "a")]),
  opening: new Map([window("W01", "front", 900, 1200), window("W02", "back", 900, 1200)]),
  outline: new Map([["r", { id: "r", kind: "roof", name: "Roof", storey: "u", side: null, top: null, revision: 1 }]]),
  side: new Map([
    ["s", { id: "s", name: "South", fromX: -500, fromY: -200, toX: 9000, toY: -200, revision: 1 }],
    ["e", { id: "e", name: "East", fromX: 8200, fromY: -500, toX: 8200, toY: 6000, revision: 1 }],
  ]),
  drawing: new Map([
    ["ds", { id: "ds", side: "s" }],
    ["de", { id: "de", side: "e" }],
  ]),
  levelMark: new Map([
    mark("floor", "ds", "finished floor"),
    mark("eaves", "ds", "eaves"),
    mark("sill", "ds", "sill"),
    mark("head", "ds", "head"),
    mark("ridge", "ds", "ridge"),
    mark("east", "de", "finished floor"),
  ]),
} as unknown as Rows;

const level = (id: string, heightMm: number, plusMinusMm: number | null = 8, statedMm: number | null = null): Level =>
  ({ id, heightMm, plusMinusMm, statedMm }) as Level;
const taken = (id: string, ...of: readonly [number, (number | null)?, (number | null)?]) =>
  takeOf(rows, rows.levelMark.get(id) as Thing<"levelMark">, level(id, ...of));
const values = (take: ReturnType<typeof taken>) =>
  take?.operations.map((o) => ("values" in o ? [("id" in o && o.id) || "", o.values] : []));

describe("a level on a side", () => {
  it("sets the floor that it lies at, with the height of the storey below", () => {
    const take = taken("floor", 2764.4);
    expect(take).toMatchObject({ of: "Upper’s floor", nowMm: 2700, agrees: false });
    expect(values(take)).toEqual([
      ["g", { height: 2764 }],
      ["u", { elevation: 2764 }],
    ]);
  });

  it("says so where the building agrees with it within its ±", () => {
    expect(taken("floor", 2706)).toMatchObject({ agrees: true });
    expect(taken("floor", 2709)).toMatchObject({ agrees: false });
  });

  it("sets the eaves of the roof that lies nearest", () => {
    const take = taken("eaves", 5100);
    expect(take).toMatchObject({ of: "Roof’s eaves", nowMm: 5200, agrees: false });
    expect(values(take)).toEqual([["r", { top: 2400 }]]);
  });

  it("sets sills and heads of the windows that the side shows, and of no others", () => {
    expect(values(taken("sill", 850))).toEqual([["W01", { sill: 850, height: 1250 }]]);
    expect(values(taken("head", 2150))).toEqual([["W01", { height: 1250 }]]);
    expect(taken("sill", 850)?.of).toBe("sill of W01 on South");
  });

  it("sets nothing where it is a guess, a ridge, or far from all that is there", () => {
    expect(taken("floor", 2764, null)).toBeNull();
    expect(taken("ridge", 7000)).toBeNull();
    expect(taken("floor", 9000)).toBeNull();
  });

  it("is told where another side has the same elsewhere", () => {
    const report = (heightMm: number) =>
      new Map([["de", { drawing: "de", levels: [level("east", heightMm, 6)] } as unknown as FitReport]]);
    const own = rows.levelMark.get("floor") as Thing<"levelMark">;
    expect(differing(rows, report(2790), own, level("floor", 2760))).toEqual([{ side: "East", byMm: 30 }]);
    expect(differing(rows, report(2767), own, level("floor", 2760))).toEqual([]);
    expect(differing(rows, report(5400), own, level("floor", 2760))).toEqual([]);
  });
});
