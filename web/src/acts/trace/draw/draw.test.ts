import { beforeEach, describe, expect, it, vi } from "vitest";
import { clearDraft, drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import type { XY } from "../../../geometry/plane";
import { cornersIn, dimensionLine, lineOf } from "../../../store/drawn";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, dragged, entered, openSide, row, type Serving, SIDE, STOREY } from "../../../testing/desk";
import { askPlaces, middleOf, thingsChosen } from "../../arranging";
import { selectAt, selectWithin } from "../../select";
import { cornersNow, drawInk, drawSnap, endLine, takeBack, useDrawOptions } from "./draw";

let server: Serving;

const click = (...at: XY[]) => {
  for (const p of at) clickAt(p, true);
};
const drawn = (id: string, line: string, values = {}) =>
  row("drawnLine", id, {
    storey: STOREY,
    side: null,
    drawing: null,
    name: "",
    line,
    closed: false,
    kind: "continuous narrow",
    fill: "none",
    ...values,
  });
const there = (...rows: ReturnType<typeof row>[]) => useProject.setState((s) => ({ rows: withRows(s.rows, rows) }));
const latest = () => server.sent.at(-1)?.operations[0];

beforeEach(() => {
  server = deskWithPlan();
  useDrawOptions.setState(useDrawOptions.getInitialState());
});

describe("a line", () => {
  it("goes from corner to corner, by clicks, a typed length, and a typed length with its angle", async () => {
    setAct("draw");
    click([10_000, 0], [11_000, 0]);
    useDesk.setState({ pointer: [11_000, 500], snap: null });
    await entered("250");
    await entered("1000 30°");
    expect(cornersNow().map((c) => c.at.map((v) => Math.round(v * 10) / 10))).toEqual([
      [10_000, 0],
      [11_000, 0],
      [11_000, 250],
      [11_866, 750],
    ]);
    await endLine();
    expect(latest()?.values).toMatchObject({ storey: STOREY, side: null, closed: false, kind: "continuous narrow" });
    expect(cornersIn(String(latest()?.values?.line))).toHaveLength(4);
    expect(drafted("line")).toBeNull();
  });

  it("closes on its first corner, with what fills it, and bows where a place says so", async () => {
    setAct("draw");
    useDrawOptions.setState({ fill: "hatched" });
    click([10_000, 0], [12_000, 0]);
    useDrawOptions.setState({ stretch: "arc" });
    click([10_000, 0]);
    expect(drafted("line")?.arcTo).toEqual([10_000, 0]);
    click([11_000, 1000]);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(latest()?.values).toMatchObject({ closed: true, fill: "hatched" });
    const [, bowed] = cornersIn(String(latest()?.values?.line));
    expect(bowed?.rise, "half a circle, to the right of the way back").toBeCloseTo(-1000, 6);
  });

  it("takes its last corner back, and an arc's end before that", () => {
    setAct("draw");
    click([10_000, 0], [12_000, 0]);
    useDrawOptions.setState({ stretch: "arc" });
    click([12_000, 2000]);
    expect(takeBack()).toBe(true);
    expect(cornersNow()).toHaveLength(2);
    takeBack();
    expect(cornersNow()).toHaveLength(1);
    takeBack();
    expect(takeBack()).toBe(false);
  });

  it("holds to what was drawn, then to the grid, and keeps to that where the ink is", () => {
    there(drawn("a", "10000 0; 12000 0"));
    setAct("draw");
    expect(drawSnap([10_040, 30], 90, false)).toMatchObject({ at: [10_000, 0], sigmaPx: 0 });
    expect(drawSnap([11_000, 30], 90, false)).toMatchObject({ at: [11_000, 0], words: "on a line" });
    expect(drawSnap([11_000, 30], 90, true)).toBeNull();
    click([10_000, 5000]);
    const held = drawSnap([12_000, 5020], 90, false);
    expect(held).toMatchObject({ at: [expect.closeTo(12_000, -1), 5000], words: "square, along x" });
    useDesk.setState({ snap: held });
    expect(drawInk({ at: [12_300, 5030], words: "corner, on the scan" }).at).toEqual([12_300, 5000]);
    clearDraft();
  });
});

describe("other shapes", () => {
  it("are a rectangle by both sides, towards the pointer, and a circle by its radius: two half circles", async () => {
    setAct("draw");
    useDrawOptions.setState({ shape: "rectangle" });
    click([10_000, 1000]);
    useDesk.setState({ pointer: [9000, 1500], snap: null });
    await entered("800 300");
    expect(latest()?.values?.line).toBe("9200 1000; 10000 1000; 10000 1300; 9200 1300");
    useDrawOptions.setState({ shape: "circle" });
    click([20_000, 0]);
    useDesk.setState({ pointer: [20_100, 0], snap: null });
    await entered("450");
    expect(latest()?.values).toMatchObject({ line: "19550 0 -450; 20450 0 -450", closed: true });
  });

  it("are dimensions, whose line stands where the third click says", async () => {
    openSide();
    setAct("draw");
    useDrawOptions.setState({ shape: "dimension", measures: "level" });
    click([1000, 900], [2500, 1000], [1700, 2000]);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(latest()?.values).toEqual({
      storey: null,
      side: SIDE,
      x1: 1000,
      y1: 900,
      x2: 2500,
      y2: 1000,
      direction: 0,
      off: 1100,
    });
    const { mm, from, to } = dimensionLine({ x1: 1000, y1: 900, x2: 2500, y2: 1000, direction: 0, off: 1100 });
    expect([mm, from, to]).toEqual([1500, [1000, 2000], [2500, 2000]]);
  });
});

describe("what was drawn", () => {
  const note = row("note", "n", { storey: STOREY, side: null, x: 10_500, y: 600, toX: null, toY: null, words: "Look" });

  it("is moved by a corner, given a further one, or dragged as it is", async () => {
    there(drawn("a", "10000 0; 12000 0; 12000 2000"));
    useDesk.setState({ selected: { type: "drawnLine", id: "a" } });
    await dragged([12_000, 2000], [12_500, 2600]);
    expect(latest()?.values?.line).toBe("10000 0; 12000 0; 12500 2600");
    there(drawn("a", "10000 0; 12000 0; 12000 2000"));
    await dragged([11_000, 0], [11_000, -700]);
    expect(latest()?.values?.line).toBe("10000 0; 11000 -700; 12000 0; 12000 2000");
    there(drawn("a", "10000 0; 12000 0; 12000 2000"));
    await dragged([10_500, 0], [10_700, 100]);
    expect(latest()).toMatchObject({
      do: "arrange",
      arrange: { things: [{ type: "drawnLine", id: "a" }], by: [200, 100] },
    });
    expect(await dragged([15_000, 3000], [16_000, 3000]), "beside it there is nothing to take hold of").toBe(false);
  });

  it("is selected with what lies in an area, and is then arranged together, over a line of two places", async () => {
    there(
      drawn("a", "10000 0; 12000 0"),
      drawn("b", "10000 500; 12000 500"),
      drawn("c", "10000 9000; 12000 9000"),
      note,
    );
    selectWithin([9000, -500], [13_000, 1000], false);
    const things = thingsChosen();
    expect(things.map((t) => t.id)).toEqual(["a", "b", "n"]);
    expect(middleOf(things)).toEqual([11_000, 300]);
    selectAt({ pointer: [11_000, 500], corners: true });
    expect(thingsChosen().map((t) => t.id)).toEqual(["a", "n"]);
    askPlaces("mirror", 1);
    click([13_000, 0], [13_000, 0]);
    expect(server.sent, "one place is no line").toHaveLength(0);
    click([13_000, 1000]);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    const arrange = {
      mirror: [
        [13_000, 0],
        [13_000, 1000],
      ],
      copies: 1,
    };
    expect(latest()).toMatchObject({ do: "arrange", arrange });
    selectAt({ pointer: [30_000, 30_000], corners: false });
    expect(thingsChosen()).toEqual([]);
  });

  it("is put from a place of it to where that goes, holding to what is there, as often as was asked", async () => {
    there(drawn("a", "10000 0; 12000 0"), drawn("b", "20000 500; 22000 500"));
    useDesk.setState({ selected: { type: "drawnLine", id: "a" } });
    askPlaces("move", 2);
    clickAt([10_020, 15], false);
    clickAt([20_015, 480], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(latest()).toMatchObject({ arrange: { by: [10_000, 500], copies: 2 } });
  });

  it("reads back as it was written", () => {
    const line = "0 0 12.5; -300 40; 7.25 9";
    expect(lineOf(cornersIn(line))).toBe(line);
  });
});
