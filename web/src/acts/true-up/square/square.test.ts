import { beforeEach, describe, expect, it } from "vitest";
import { setAct } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { DRAWING, deskWithPlan, page, report, type Sent, type Serving } from "../../../testing/desk";
import { squareBy } from "../squaring";
import { gridTurn, setGridLine } from "./gridLine";

let server: Serving;
let _sent: Sent[];

beforeEach(() => {
  server = deskWithPlan();
  _sent = server.sent;
  const made = {
    tileSuffix: ".png",
    cuts: [],
    lightOnDark: false,
    contrast: 200,
    paper: { cell: 24, columns: 1, rows: 1, levels: "" },
    lines: 0,
    bytes: 0,
    skew: { degrees: -2, sigmaDegrees: 0.002, confidence: 0.8 },
  };
  useProject.setState({
    fits: new Map([[DRAWING, report({ rotationDegrees: 2 })]]),
    pages: new Map([["g", page("g", { made })]]),
  });
});

const _found = (x: number, y: number) => ({
  kind: "corner",
  x,
  y,
  sigmaPx: 0.15,
  alongDegrees: null,
  thicknessPx: null,
});

describe("squaring", () => {
  it("tells the axis and which way the picture will turn", () => {
    setAct("square");
    clickAt([0, 0], false);
    clickAt([5000, 100], false);
    expect(gridTurn()?.axis).toBe("x");
    expect(gridTurn()?.degrees).toBeCloseTo((-Math.atan2(100, 5000) * 180) / Math.PI, 9);
    setAct("square");
    clickAt([0, 0], false);
    clickAt([60, -4000], false);
    expect(gridTurn()?.axis).toBe("y");
    expect(gridTurn()?.degrees).toBeCloseTo((-Math.atan2(60, 4000) * 180) / Math.PI, 9);
  });
});

describe("squaring by", () => {
  it("states the ink's direction as a line through the middle, as sure as the ink is", async () => {
    await squareBy(-2, 0.002, "ink");
    const [a, b, line] = server.sent[0]?.operations ?? [];
    const [dx, dy] = [Number(b?.values?.x) - Number(a?.values?.x), Number(b?.values?.y) - Number(a?.values?.y)];
    expect((Math.atan2(-dy, dx) * 180) / Math.PI, "counter-clockwise as seen, pixels run down").toBeCloseTo(-2, 9);
    const sigma = (Number(a?.values?.sigmaPx) * Math.SQRT2) / Math.hypot(dx, dy);
    expect((sigma * 180) / Math.PI).toBeCloseTo(0.002, 3);
    expect(line?.values).toMatchObject({ axis: "x", hand: "ink", bearing: null });
  });

  it("takes a bearing for a picked line", async () => {
    setAct("square");
    clickAt([0, 0], true);
    clickAt([4000, 2000], true);
    await setGridLine({ bearing: 63.5 });
    expect(server.sent[0]?.operations[2]?.values).toMatchObject({ bearing: 63.5, hand: "picked" });
  });
});
