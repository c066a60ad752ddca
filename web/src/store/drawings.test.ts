import { beforeEach, describe, expect, it } from "vitest";
import { apply, mapOf } from "../geometry/maps";
import { DRAWING, deskWithPlan, page, row, STOREY } from "../testing/desk";
import { drawingsOn, mmPerPixel, pagesOf, pageWhole, pictureOf, placeName } from "./drawings";
import { useProject } from "./project";
import { withRows } from "./rows";
import type { Rectified } from "./straightened";

const drawing = (id: string, values: object) =>
  row("drawing", id, { storey: STOREY, side: null, order: 0, hidden: false, name: id, ...values });

beforeEach(() => {
  deskWithPlan();
});

function given(...rows: Parameters<typeof withRows>[1]): void {
  useProject.setState((s) => ({ rows: withRows(s.rows, rows) }));
}

describe("the picture of a drawing", () => {
  it("is its part of the page as its fit lays it; the whole page lies by the same fit", () => {
    given(row("page", "g", { source: "s", number: 1, width: 2000, height: 1500 }));
    useProject.setState({ pages: new Map([["g", page("g")]]) });
    const project = useProject.getState();
    const picture = pictureOf(project, DRAWING);
    expect(picture).toMatchObject({ crop: { left: 0, top: 0, width: 900, height: 900 }, ready: true, width: 2000 });
    const whole = pageWhole(project, DRAWING);
    expect(whole?.crop).toEqual({ left: 0, top: 0, width: 2000, height: 1500 });
    for (const at of [
      [0, 0],
      [900, 450],
    ] as const) {
      expect(apply(whole?.pixelToMm ?? [1, 0, 0, 0, 1, 0], at)).toEqual(
        apply(picture?.pixelToMm ?? [1, 0, 0, 0, 1, 0], at),
      );
    }
  });

  it("is none where the page or the fit is unknown", () => {
    expect(pictureOf(useProject.getState(), DRAWING)).toBeNull();
    expect(pictureOf(useProject.getState(), "another")).toBeNull();
    expect(pageWhole(useProject.getState(), null)).toBeNull();
  });

  it("of a slanted drawing is the straightened one where that was made, and its page until then", () => {
    given(
      row("page", "g", { source: "s", number: 1, width: 2000, height: 1500 }),
      row("fit", DRAWING, {
        ...{ model: "projective", isGuess: false, plusMinusMmPer10m: 10 },
        ...{ m00: 10, m01: 0, m02: 0, m10: 0, m11: -10, m12: 0, m20: 1e-5, m21: 0, m22: 1 },
      }),
    );
    useProject.setState({ pages: new Map([["g", page("g")]]) });
    expect(pictureOf(useProject.getState(), DRAWING)?.tiles).toContain("/pages/g/");
    const fit = useProject.getState().rows.fit.get(DRAWING);
    if (!fit) throw new Error("There is no fit.");
    const straight: Rectified = {
      shape: "abc",
      width: 800,
      height: 700,
      pixelToMm: [10, 0, 0, 0, -10, 0],
      under: mapOf(fit),
    };
    useProject.setState({ rectified: new Map([[DRAWING, straight]]) });
    expect(pictureOf(useProject.getState(), DRAWING)).toMatchObject({
      tiles: expect.stringMatching(/rectified\/abc\/tiles$/),
      crop: { left: 0, top: 0, width: 800, height: 700 },
      cutFrom: { left: 0, top: 0, width: 900, height: 900 },
    });
  });

  it("has a scale, told in its middle; one that is unknown counts as one", () => {
    expect(mmPerPixel(useProject.getState().rows, DRAWING)).toBeCloseTo(10);
    expect(mmPerPixel(useProject.getState().rows, "another")).toBe(1);
  });
});

describe("what lies on a storey or side", () => {
  it("is told from the lowest drawing up, with those of the storey that it is an alternative of", () => {
    given(
      row("storey", "other", { name: "Other", elevation: 0, height: 2700, alternativeOf: STOREY }),
      row("side", "south", { name: "South" }),
      drawing("top", { order: 2 }),
      drawing("own", { storey: "other", order: 1 }),
      drawing("front", { storey: null, side: "south" }),
    );
    const { rows } = useProject.getState();
    const ids = (place: Parameters<typeof drawingsOn>[1]) => drawingsOn(rows, place).map((d) => d.id);
    expect(ids({ storey: STOREY, side: null })).toContain("top");
    expect(ids({ storey: STOREY, side: null })).not.toContain("own");
    expect(ids({ storey: "other", side: null })).toEqual(expect.arrayContaining(["own", "top"]));
    expect(ids({ storey: null, side: "south" })).toEqual(["front"]);
    expect(ids({ storey: null, side: null }), "nowhere is no side").toEqual([]);
    expect([
      placeName(rows, { storey: "other", side: null }),
      placeName(rows, { storey: null, side: "south" }),
    ]).toEqual(["Other", "South"]);
  });

  it("knows the pages of a source by their number", () => {
    const of = (id: string, source: string, number: number) => row("page", id, { source, number });
    given(of("p2", "s", 2), of("p1", "s", 1), of("q", "t", 1));
    expect(pagesOf(useProject.getState().rows, "s").map((p) => p.id)).toEqual(["p1", "p2"]);
  });
});
