import { describe, expect, it } from "vitest";
import type { PageMade } from "../../api/client";
import { noRows, type Rows, type Thing, withRows } from "../../store/rows";
import { type Looked, row } from "../../testing/desk";
import { belongings, belongingWords, placings } from "./belonging";
import { basementBelow, Places, placeFor, storeyAt } from "./places";

const page = (id: string, number: number) =>
  row("page", id, { source: "q", number, width: 1000, height: 800, replaces: null });
const drawing = (id: string, of: string, values: object = {}) =>
  row("drawing", id, {
    ...{ page: of, storey: "ground", side: null, name: id, kind: "plan", left: 0, top: 0, width: 1000, height: 800 },
    ...{ fade: 0.75, turns: 0, inkOnly: false, tint: "ink", before: false, order: 0, hidden: id !== "d1" },
    ...values,
  });
const storey = (id: string, name: string, elevation: number) =>
  row("storey", id, { name, elevation, height: 2700, alternativeOf: null });
const rows: Rows = withRows(noRows(), [
  storey("ground", "Ground", 0),
  ...["p1", "p2", "p3", "p4"].map((id, i) => page(id, i + 1)),
  ...["p1", "p2", "p3", "p4"].map((id, i) => drawing(`d${i + 1}`, id)),
]);
const title = (words: string, values: object) => ({
  ...{ words, kind: "plan", storey: null, level: null, side: null, box: [400, 700, 600, 730] },
  ...values,
});
const made = (id: string, values: object): [string, PageMade] => [
  id,
  { page: id, made: { cuts: [], titles: [], named: null, isScene: false, ...values } } as unknown as PageMade,
];
const pages = new Map([
  made("p1", { titles: [title("Ground floor plan", { storey: "Ground", level: 0 })] }),
  made("p2", { titles: [title("Second floor plan", { storey: "Second floor", level: 2 })] }),
  made("p3", { titles: [title("First floor plan", { storey: "First floor", level: 1 })] }),
  made("p4", { isScene: true }),
]);

describe("where drawings belong", () => {
  it("is said by their titles, file names and pixels, of those that nobody has moved", () => {
    const words = belongings({ rows, pages }).map((b) => belongingWords(rows, b));
    expect(words).toEqual([
      "d2 seems to be a plan, as “Second floor plan” is written on it. It goes to a new storey, Second floor.",
      "d3 seems to be a plan, as “First floor plan” is written on it. It goes to a new storey, First floor.",
      "d4 seems to be an elevation, as it is a photograph of a building. It goes to a new side, d4.",
    ]);
    const moved = withRows(rows, [{ ...drawing("d4", "p4"), revision: 7 } as never]);
    expect(belongings({ rows: moved, pages }).map((b) => b.drawing.id)).toEqual(["d2", "d3"]);
    const several = new Map([
      made("p2", {
        cuts: [
          [0, 0, 500, 800],
          [500, 0, 500, 800],
        ],
        titles: [title("Section", { kind: "section" })],
      }),
    ]);
    expect(belongings({ rows, pages: several }), "a sheet of several drawings is cut first").toEqual([]);
  });

  it("puts all of them there in one change, new storeys from the lowest up, and seen where they come to lie", () => {
    const operations = placings(rows, belongings({ rows, pages })) as Looked[];
    expect(operations.map((o) => [o.do, o.type, o.values?.name ?? o.id, o.values?.elevation])).toEqual([
      ["add", "side", "d4", undefined],
      ["add", "storey", "First floor", 2700],
      ["add", "storey", "Second floor", 5400],
      ["set", "drawing", "d4", undefined],
      ["set", "drawing", "d3", undefined],
      ["set", "drawing", "d2", undefined],
    ]);
    expect(operations[3]?.values).toMatchObject({
      kind: "elevation",
      storey: null,
      side: operations[0]?.id,
      hidden: false,
    });
    expect(operations[4]?.values).toMatchObject({ storey: operations[1]?.id, side: null, hidden: false });
  });

  it("turns what lies on its side in the same click", () => {
    const onItsSide = {
      titles: [title("First floor", { storey: "First floor", level: 1 })],
      wayUp: { turns: 1, sure: true },
    };
    const found = belongings({ rows, pages: new Map([made("p3", onItsSide)]) });
    expect(found.map((b) => belongingWords(rows, b))).toEqual([
      "d3 seems to be a plan, as “First floor” is written on it. It goes to a new storey, First floor, turned the right way up.",
    ]);
    expect(placings(rows, found).at(-1)).toMatchObject({ id: "d3", values: { kind: "plan", turns: 1 } });
  });

  it("shows one that comes to where nothing is seen yet, and lets it wait where something is", () => {
    const upper = withRows(rows, [storey("upper", "Upper", 2700)]);
    const to = (place: string) => (id: string) => ({
      drawing: upper.drawing.get(id) as Thing<"drawing">,
      kind: "plan" as const,
      place: { storey: place },
    });
    const hidden = (all: ReturnType<ReturnType<typeof to>>[]) =>
      (placings(upper, all) as Looked[]).map((o) => [o.id, o.values?.hidden]);
    expect(hidden(["d2", "d3"].map(to("upper")))).toEqual([
      ["d2", false],
      ["d3", true],
    ]);
    expect(hidden(["d2"].map(to("ground")))).toEqual([["d2", true]]);
    expect(hidden(["d1"].map(to("upper"))), "one that is seen stays seen").toEqual([["d1", false]]);
  });

  it("calls a storey below all others by how deep it lies", () => {
    expect(basementBelow(rows)).toBe("Basement");
    expect(basementBelow(withRows(rows, [storey("b", "Basement", -2700)]))).toBe("Basement 2");
  });

  it("knows a storey by its name or its level, and takes a drawing off a side that it cannot stand on", () => {
    const upper = withRows(rows, [storey("upper", "Up the stairs", 2700)]);
    expect(storeyAt(upper, "First floor", 1)).toEqual({ storey: "upper" });
    expect(storeyAt(upper, "up the stairs", null)).toEqual({ storey: "upper" });
    expect(storeyAt(upper, "Basement", -1)).toEqual({ newStorey: "Basement", level: -1 });
    expect(placeFor(rows, "site", { side: "s" }, "x")).toEqual({ storey: "ground" });
    expect(placeFor(rows, "section", { storey: "ground" }, "A-A")).toEqual({ newSide: "A-A" });
    const places = new Places(rows);
    expect(places.at({ newStorey: "Basement", level: -1 })).toEqual(places.at({ newStorey: "Basement", level: -1 }));
    expect(places.operations).toMatchObject([{ values: { elevation: -2700 } }]);
  });
});
