import { beforeEach, describe, expect, it, vi } from "vitest";
import { currentAct } from "../../../board/act";
import { setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { cornerAt, DRAWING, deskTurned, entered, picked, row, type Serving, STOREY } from "../../../testing/desk";
import { useShown } from "../../useStairs";
import { crossingNamed, nudgeMm, nudgePlace, ontoHere, usePlacing } from "./placing";
import { foursides, nearestCorners, planCorners, sideWithoutLine, stateSide } from "./sides";

let server: Serving;

beforeEach(() => {
  server = deskTurned();
  usePlacing.setState({ placing: "point" });
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
    server.found = cornerAt(300, 0);
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

describe("what a point may be put onto", () => {
  const storey = row("storey", "below", { name: "Ground", elevation: -2700, height: 2700, alternativeOf: null });

  it("is what shows through of another storey: its corners and columns, and the grid's crossings", () => {
    const shapes = useProject.getState().derived.get(STOREY);
    if (!shapes) throw new Error("There are no shapes.");
    const stretch = { from: [0, 0], to: [6000, 0], right: [[-100, -100]], left: [[100, 100]] };
    const walls = new Map([["w", { id: "w", stretches: [stretch], openings: [], findings: [] }]]);
    useProject.setState((s) => ({
      derived: new Map([...s.derived, ["below", { ...shapes, storey: "below", walls: walls as never }]]),
      rows: withRows(s.rows, [
        storey,
        row("column", "c", { storey: "below", x: 3000, y: 1000, width: 400, depth: 400, round: false }),
        row("gridAxis", "1", { along: "x", at: 8000, label: "1" }),
        row("gridAxis", "A", { along: "y", at: 2000, label: "A" }),
      ]),
    }));
    useDesk.setState({ through: "below", view: { x: 3000, y: 2000, k: 0.1 } });
    expect(ontoHere([-70, -110])).toMatchObject({ at: [-100, -100], words: "corner of Ground" });
    expect(ontoHere([3010, 1010])).toMatchObject({ at: [3000, 1000], words: "column of Ground" });
    expect(ontoHere([3190, 1190])).toMatchObject({ at: [3200, 1200] });
    expect(ontoHere([8040, 2010])).toMatchObject({ at: [8000, 2000], words: "1/A" });
    expect(ontoHere([4500, 3000])).toBeNull();
    // What does not show is not held to.
    useDesk.setState({ through: null });
    expect(ontoHere([-70, -110])).toBeNull();
  });

  it("is a tread of a stair that both storeys share, but not of one that was traced over this drawing", () => {
    const ring = [[0, 0], [250, 0], [250, 900], [0, 900]]; // biome-ignore format: one line
    useShown.setState({ storey: STOREY, stairs: [{ id: "s", goesUp: false, rings: [ring] } as never] });
    useDesk.setState({ view: { x: 3000, y: 2000, k: 0.1 } });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("stair", "s", { storey: "below", drawing: "another" })]),
    }));
    expect(ontoHere([260, 890])).toMatchObject({ at: [250, 900], words: "tread of the stair below" });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("stair", "s", { storey: "below", drawing: DRAWING })]),
    }));
    expect(ontoHere([260, 890])).toBeNull();
    useShown.setState({ stairs: [] });
  });

  it("is sought in the ink of its drawing; where it goes is not", () => {
    setAct("place");
    const found = { at: [10, 20], words: "middle of a line" } as const;
    expect(currentAct()?.takesInk?.(found, [10, 20])).toBe(found);
    picked([100, 100]);
    useDesk.setState({ slip: "" });
    expect(currentAct()?.takesInk?.(found, [10, 20])).toBeNull();
  });
});

const side = (id: string, name: string, fromX: number | null = null) =>
  row("side", id, { name, fromX, fromY: fromX, toX: fromX, toY: fromX });

describe("the line of a side on the plan", () => {
  it("is put on the side of that name, or on one that is made for it", async () => {
    picked([0, 0], [600, 0]);
    await stateSide("South");
    expect(server.sent[0]?.operations[0]).toMatchObject({
      do: "add",
      type: "side",
      values: { name: "South", fromX: 0 },
    });
    expect(server.sent[0]?.operations[0]?.values?.toX).toBeCloseTo(6000 * Math.cos(Math.PI / 90));
    useProject.setState((s) => ({ rows: withRows(s.rows, [side("s", "South")]) }));
    picked([0, 0], [600, 0]);
    await stateSide("south");
    expect(server.sent[1]?.operations[0]).toMatchObject({ do: "set", type: "side", id: "s" });
    picked([0, 0], [600, 0]);
    await stateSide(" ");
    expect(useDesk.getState().slipError).toMatch(/^Which side/);
    picked([0, 0], [600, 0]);
    await stateSide("A", true);
    expect(server.sent[2]?.operations[0]?.values).toMatchObject({ name: "Section A", cut: true });
  });

  it("is laid round what is traced on all four at once, each from its left as it is looked at", async () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [side("s", "South side")]) }));
    await foursides(STOREY);
    const lines = server.sent[0]?.operations.map((o) => [
      o.do,
      o.values?.name ?? o.id,
      [o.values?.fromX, o.values?.fromY, o.values?.toX, o.values?.toY],
    ]);
    // Half a wall outside the centre lines.
    expect(lines).toEqual([
      ["set", "s", [-100, -100, 6100, -100]],
      ["add", "East", [6100, -100, 6100, 4100]],
      ["add", "North", [6100, 4100, -100, 4100]],
      ["add", "West", [-100, 4100, -100, -100]],
    ]);
    await foursides("empty");
    expect(server.sent).toHaveLength(1);
  });

  it("is asked of the first side that has none; corners only of one that has", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [side("a", "South", 0), side("b", "East"), side("c", "West")]),
    }));
    expect(sideWithoutLine(useProject.getState().rows.side.values())?.id).toBe("b");
    server.answers = { corners: { corners: [{ alongMm: 5, behindMm: 0 }] } };
    expect(await planCorners("b")).toBeNull();
    expect(await planCorners("a")).toEqual([{ alongMm: 5, behindMm: 0 }]);
  });
});

describe("the plan's corners on a side", () => {
  it("are those of the near face, each once", () => {
    const corners = [
      { alongMm: 150, behindMm: 150 },
      { alongMm: 13050, behindMm: 150 },
      { alongMm: 152, behindMm: 300 },
      { alongMm: 5200, behindMm: 8450 },
    ];
    expect(nearestCorners(corners)).toEqual([150, 13050]);
    expect(nearestCorners([])).toEqual([]);
  });
});

const SIDE = "00000000-0000-7000-8000-0000000000ee";

describe("sides on the plan", () => {
  it("get their lines round what is traced, each from its left end as it is looked at", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("side", SIDE, { name: "South side", fromX: null, fromY: null, toX: null, toY: null }),
      ]),
    }));
    await foursides(STOREY);
    const [south, east, north, west] = server.sent.at(-1)?.operations ?? [];
    // The rectangle of 6 × 4 m on its axes, 200 thick: its faces lie 100 mm outside.
    expect(south).toMatchObject({ do: "set", id: SIDE, values: { fromX: -100, fromY: -100, toX: 6100, toY: -100 } });
    expect(east?.values).toMatchObject({ name: "East", fromX: 6100, fromY: -100, toX: 6100, toY: 4100 });
    expect(north?.values).toMatchObject({ name: "North", fromX: 6100, fromY: 4100, toX: -100, toY: 4100 });
    expect(west?.values).toMatchObject({ name: "West", fromX: -100, fromY: 4100, toX: -100, toY: -100 });
  });

  it("are drawn by two picks and a name, which the first without a line is proposed for", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("side", SIDE, { name: "South", fromX: null, fromY: null, toX: null, toY: null })]),
    }));
    usePlacing.setState({ placing: "side" });
    setAct("place");
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
    expect(useDesk.getState().slip).toBe("South");
    await entered("south");
    expect(server.sent.at(-1)?.operations[0]).toMatchObject({ do: "set", type: "side", id: SIDE });
    const { fromX, fromY, toX, toY } = (server.sent.at(-1)?.operations[0]?.values ?? {}) as Record<string, number>;
    expect([fromX, fromY, toX, toY].map((v) => Math.round(v ?? 1))).toEqual([0, 0, 6000, 0]);
  });
});

describe("placing", () => {
  it("finds crossings of the grid by their labels, either way round", () => {
    const axis = (id: string, along: "x" | "y", at: number, label: string) => ({ id, revision: 1, along, at, label });
    const axes = [axis("1", "x", 0, "1"), axis("2", "x", 6000, "2"), axis("b", "y", 5400, "B")];
    expect(crossingNamed("B/2", axes)).toEqual([6000, 5400]);
    expect(crossingNamed("2 b", axes)).toEqual([6000, 5400]);
    expect(crossingNamed("C/2", axes)).toBeNull();
    expect(crossingNamed("12 000", axes)).toBeNull();
  });

  it("states a point where the ink has put it, however soon the figure is typed", async () => {
    setAct("place");
    server.found = cornerAt(12.25, -3.5);
    clickAt([100, 40], false);
    await entered("0 0");
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({ x: 12.25, y: -3.5, sigmaPx: 0.15 });
  });

  it("places a point by two coordinates, and says what is wanted otherwise", async () => {
    setAct("place");
    clickAt([10, 10], true);
    await entered("somewhere");
    expect(useDesk.getState().slipError).toContain("B/2");
    await entered("1200 -300");
    expect(server.sent[0]?.operations[1]?.values).toMatchObject({ x: 1200, y: -300, text: "1200 -300" });
  });
});
