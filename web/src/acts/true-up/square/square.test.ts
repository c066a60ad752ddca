import { beforeEach, describe, expect, it } from "vitest";
import { setAct } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { deskTurned, type Serving } from "../../../testing/desk";
import { squareBy } from "../squaring";
import { gridTurn, setGridLine } from "./gridLine";

let server: Serving;

beforeEach(() => {
  server = deskTurned();
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
