import { beforeEach, describe, expect, it, vi } from "vitest";
import { apply, toScreen } from "../board/geometry";
import { scaleOf } from "../ledger/trueup/CalibratePanel";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, type Looked, page, report, row, type Serving, STOREY } from "../testing/desk";
import { clickAt } from "./acts";
import { setAct, useDesk } from "./desk";
import { crossingNamed, stateWhatIsPicked } from "./picking";
import { nudgeMm, nudgePlace } from "./placing";
import { setGridLine, squareBy } from "./squaring";
import { removal, removeStatement, settlePendingFit, settlePendingSlip } from "./statements";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
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
  useDesk.setState({
    calibrateBy: "length",
    along: "straight",
    endsAt: "outer face",
    pickedAt: "outer face",
    wallText: "",
    heldOut: false,
    standing: "figured",
    placing: "point",
    pendingFit: null,
  });
});

const found = (x: number, y: number) => ({
  kind: "corner",
  x,
  y,
  sigmaPx: 0.15,
  alongDegrees: null,
  thicknessPx: null,
});

describe("picks", () => {
  it("move to what the ink shows, without zooming", async () => {
    setAct("calibrate");
    server.found = found(12.25, -3.5);
    clickAt([100, 40], false);
    await vi.waitFor(() => expect(useDesk.getState().picks[0]?.at).toEqual([12.25, -3.5]));
    expect(useDesk.getState().picks[0]).toMatchObject({ sigmaPx: 0.15, words: "corner, on the scan" });
    const asked = server.asked.find((u) => u.pathname.endsWith("/found"));
    expect(asked?.searchParams.get("mmPerPixel"), "its scale tells pens from walls").toBe("10");
  });

  it("stay where the hand put them when the ink is held off", async () => {
    setAct("calibrate");
    server.found = found(12, 3);
    clickAt([100, 0], true);
    await new Promise((done) => setTimeout(done, 20));
    expect(server.asked.filter((u) => u.pathname.endsWith("/found"))).toHaveLength(0);
    expect(useDesk.getState().picks[0]?.words).toBe("by hand");
  });

  it("lie where the ink showed them though a new fit comes in before it has answered", async () => {
    setAct("calibrate");
    server.found = found(12.25, -3.5);
    clickAt([100, 40], false);
    const { rows } = useProject.getState();
    const fit = { ...rows.fit.get(DRAWING), m00: 5, m01: 0, m10: 0, m11: -5, m02: 900, m12: 70 };
    useProject.setState({ rows: withRows(rows, [row("fit", DRAWING, fit, 2)]) });
    await vi.waitFor(() => expect(useDesk.getState().picks[0]?.words).toBe("corner, on the scan"));
    const [x, y] = useDesk.getState().picks[0]?.at ?? [];
    expect([x, y], "on the page, whatever lies where in the model").toEqual([
      expect.closeTo(12.25, 6),
      expect.closeTo(-3.5, 6),
    ]);
  });

  it("have the hand where it rests though a new fit comes in under it", () => {
    useDesk.setState({ pointer: [100, 40] });
    const before = useDesk.getState().view;
    const { rows } = useProject.getState();
    const fit = { ...rows.fit.get(DRAWING), m00: 5, m01: 0, m10: 0, m11: -5, m02: 900, m12: 70 };
    useProject.setState({ rows: withRows(rows, [row("fit", DRAWING, fit, 2)]) });
    const { pointer, view } = useDesk.getState();
    expect(view, "the fit has moved the view").not.toEqual(before);
    const size = { width: 800, height: 600 };
    const [x, y] = apply(toScreen(view, size), pointer ?? [0, 0]);
    expect([x, y]).toEqual(apply(toScreen(before, size), [100, 40]).map((v) => expect.closeTo(v, 6)));
  });

  it("are stated only when the ink has answered", async () => {
    setAct("calibrate");
    server.found = found(12.25, 3.5);
    clickAt([100, 0], false);
    clickAt([6000, 0], false);
    await stateWhatIsPicked("6 m");
    const [a] = server.sent[0]?.operations ?? [];
    expect(a?.values).toMatchObject({ x: 12.25, y: 3.5, sigmaPx: 0.15 });
  });

  it("ask for corners only while Shift is down", async () => {
    setAct("calibrate");
    clickAt([100, 0], false, true);
    await vi.waitFor(() => expect(server.asked.some((u) => u.searchParams.get("only") === "corners")).toBe(true));
  });
});

describe("a figure", () => {
  const pickTwo = () => {
    setAct("calibrate");
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
  };

  it("that looks like a slip is said first, and taken when it is meant", async () => {
    pickTwo();
    server.tried.slips = [{ id: "x", code: "factor-10", message: "A decimal point.", wouldBeMm: 6000 }];
    await stateWhatIsPicked("60 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().caution).toMatchObject({ text: "60 m", wouldBeMm: 6000 });
    expect(useDesk.getState().picks).toHaveLength(2);
    await stateWhatIsPicked("60 m");
    expect(server.sent).toHaveLength(1);
    expect(useDesk.getState().caution).toBeNull();
  });

  it("that looks like a slip when the hand has gone on is kept for the ledger", async () => {
    pickTwo();
    useDesk.setState({ slip: "60 m" });
    server.tried.slips = [{ id: "x", code: "factor-10", message: "A decimal point.", wouldBeMm: 6000 }];
    const sending = stateWhatIsPicked("60 m");
    await Promise.resolve();
    expect(useDesk.getState().picks, "the next pick need not wait").toHaveLength(0);
    clickAt([100, 100], true);
    await sending;
    expect(useDesk.getState().picks).toHaveLength(1);
    expect(server.sent).toHaveLength(0);
    settlePendingSlip("mended");
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.operations[2]?.values).toMatchObject({ text: "6000 mm", unit: "mm" });
  });

  it("mended after the warning is looked at again", async () => {
    pickTwo();
    server.tried.slips = [{ id: "x", code: "factor-10", message: "A decimal point.", wouldBeMm: 6000 }];
    await stateWhatIsPicked("60 m");
    await stateWhatIsPicked("61 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().caution?.text).toBe("61 m");
  });

  it("that runs between other lines than were picked needs the wall", async () => {
    pickTwo();
    useDesk.setState({ endsAt: "outer face", pickedAt: "inner face", wallText: "" });
    await stateWhatIsPicked("6 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().slipError).toContain("how thick the wall is");
    useDesk.setState({ wallText: "300", slipError: null });
    await stateWhatIsPicked("6 m");
    expect(server.sent[0]?.operations[2]?.values).toMatchObject({
      ends: "outer face",
      picked: "inner face",
      wall: 300,
    });
  });

  it("across runs from the third pick to the line of the first two", async () => {
    setAct("calibrate");
    useDesk.setState({ along: "across" });
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
    expect(useDesk.getState().slip).toBeNull();
    clickAt([3000, 4000], true);
    await stateWhatIsPicked("4 m");
    const [one, two, three, length] = server.sent[0]?.operations ?? [];
    expect(length?.values).toMatchObject({ a: one?.id, c: two?.id, b: three?.id, along: "across" });
  });

  it("that would move the picture under the tracing waits for the user's word", async () => {
    pickTwo();
    server.tried.moves = [{ drawing: DRAWING, mm: 12, traced: 4 }];
    await stateWhatIsPicked("6 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().pendingFit).toMatchObject({ mm: 12, traced: 4, title: "Known length" });
    settlePendingFit(true);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.tracing).toBe("carry");
  });
});

describe("a room and a count", () => {
  it("are stated by four corners with both sides", async () => {
    setAct("calibrate");
    useDesk.setState({ calibrateBy: "room" });
    for (const at of [
      [0, 0],
      [3600, 0],
      [3600, 4200],
      [0, 4200],
    ] as const)
      clickAt(at, true);
    await stateWhatIsPicked("3.6 m x 4.2 m");
    expect(server.sent[0]?.operations[4]?.values).toMatchObject({ width: "3.6 m", depth: "4.2 m" });
    clickAt([0, 0], true);
    await stateWhatIsPicked("3.6");
    expect(useDesk.getState().slipError).toContain("width and depth");
  });

  it("proposes the joints it found, up as courses and along as units", async () => {
    setAct("calibrate");
    useDesk.setState({ calibrateBy: "count" });
    server.ticks = {
      spaces: 23,
      pitchPx: 16,
      confidence: 0.6,
      ticks: [
        [1, 2],
        [1, 18],
      ],
    };
    clickAt([0, 0], true);
    clickAt([0, 4000], true);
    await vi.waitFor(() => expect(useDesk.getState().slip).toBe("23c"));
    expect(useDesk.getState().ticks).toHaveLength(2);
    setAct("calibrate");
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
    await vi.waitFor(() => expect(useDesk.getState().slip).toBe("23u"));
  });
});

describe("squaring and placing", () => {
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

  it("finds crossings of the grid by their labels, either way round", () => {
    const axis = (id: string, along: "x" | "y", at: number, label: string) => ({ id, revision: 1, along, at, label });
    const axes = [axis("1", "x", 0, "1"), axis("2", "x", 6000, "2"), axis("b", "y", 5400, "B")];
    expect(crossingNamed("B/2", axes)).toEqual([6000, 5400]);
    expect(crossingNamed("2 b", axes)).toEqual([6000, 5400]);
    expect(crossingNamed("C/2", axes)).toBeNull();
    expect(crossingNamed("12 000", axes)).toBeNull();
  });

  it("places a point by two coordinates, and says what is wanted otherwise", async () => {
    setAct("place");
    clickAt([10, 10], true);
    await stateWhatIsPicked("somewhere");
    expect(useDesk.getState().slipError).toContain("0 0");
    await stateWhatIsPicked("1200 -300");
    expect(server.sent[0]?.operations[1]?.values).toMatchObject({ x: 1200, y: -300, text: "1200 -300" });
  });
});

describe("placing onto something", () => {
  it("puts a point onto a traced corner of another drawing, or says that there is none", async () => {
    useProject.setState(({ rows }) => ({
      rows: withRows(rows, [row("node", "far", { storey: STOREY, drawing: "other", x: 9000, y: 500 })]),
    }));
    setAct("place");
    clickAt([10, 10], true);
    clickAt([3000, 7000], false);
    await vi.waitFor(() => expect(useDesk.getState().slipError).toContain("Nothing to place it onto"));
    clickAt([9020, 480], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.operations[1]?.values).toMatchObject({ x: 9000, y: 500, text: "traced corner" });
  });

  it("puts it onto what another drawing shows there", async () => {
    const other = {
      ...useProject.getState().rows.drawing.get(DRAWING),
      page: "g",
      name: "loft",
      order: 2,
      hidden: false,
    };
    const fit = useProject.getState().rows.fit.get(DRAWING);
    useProject.setState(({ rows }) => ({
      rows: withRows(rows, [
        row("drawing", "loft", { ...other, ...{ id: "loft" } }),
        row("fit", "loft", { ...fit, ...{ id: "loft" } }),
      ]),
    }));
    setAct("place");
    clickAt([10, 10], true);
    server.found = found(300, 0);
    clickAt([2990, 110], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.operations[1]?.values).toMatchObject({ text: "corner of loft" });
    expect(Number(server.sent[0]?.operations[1]?.values?.x)).toBeCloseTo(3000 * Math.cos(Math.PI / 90), 6);
  });

  it("nudges the drawing by its middle first, and by its placed points from then on", async () => {
    expect([nudgeMm("1 px"), nudgeMm("1 mm"), nudgeMm("10 mm")]).toEqual([expect.closeTo(10), 1, 10]);
    await nudgePlace(0, 10);
    const [pick, point] = server.sent[0]?.operations ?? [];
    expect(pick?.values).toMatchObject({ x: 450, y: 450 });
    expect(point?.values).toMatchObject({ text: "nudged" });
    useProject.setState(({ rows }) => ({
      rows: withRows(rows, [row("controlPoint", "c", { drawing: DRAWING, pick: "p", x: 100, y: 200, text: "origin" })]),
    }));
    await nudgePlace(-1, 0);
    expect(server.sent[1]?.operations).toEqual([
      { do: "set", type: "controlPoint", id: "c", values: { x: 99, y: 200 } },
    ]);
  });
});

describe("removing", () => {
  it("takes the picks along that nothing else uses", async () => {
    const length = (id: string, a: string, b: string) =>
      row("knownLength", id, { drawing: DRAWING, a, b, c: null, text: "1", heldOut: false });
    useProject.setState(({ rows }) => ({ rows: withRows(rows, [length("one", "p", "q"), length("two", "q", "r")]) }));
    expect((removal("knownLength", "one", ["p", "q", null]) as Looked[]).map((o) => o.id)).toEqual(["one", "p"]);
    await removeStatement("knownLength", "two");
    expect(server.sent[0]?.operations.map((o) => o.id)).toEqual(["two", "r"]);
  });
});

describe("a stated scale", () => {
  it.each([
    ["1:50", 50],
    ["1 : 96", 96],
    ["100", 100],
    ['1/4" = 1\'-0"', 48],
    ["1 1/2\" = 1'", 8],
    ["soon", null],
  ])("%s is 1 : %s", (text, n) => {
    expect(scaleOf(text)).toBe(n);
  });
});
