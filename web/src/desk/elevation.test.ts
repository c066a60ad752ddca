import { beforeEach, describe, expect, it, vi } from "vitest";
import type { XY } from "../board/geometry";
import { way } from "../ledger/MisfitPanel";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, page, row, type Serving, STOREY } from "../testing/desk";
import { clickAt } from "./acts";
import { setAct, useDesk } from "./desk";
import {
  closeOutline,
  foursides,
  levelOf,
  nearestCorners,
  outlinePoint,
  planCorners,
  sideWithoutLine,
  stateLevel,
  stateSide,
  wallCornerNear,
} from "./elevation";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

const picked = (x: number, y: number) => ({
  at: [x, y] as [number, number],
  sigmaPx: 0.3,
  words: "by hand",
  thicknessPx: null,
});
const side = (id: string, name: string, fromX: number | null = null) =>
  row("side", id, { name, fromX, fromY: fromX, toX: fromX, toY: fromX });

describe("a level on a side", () => {
  it("is stated where it was picked, and asked for in words where nothing was typed", async () => {
    setAct("levels");
    useDesk.setState({ picks: [picked(120, 340)], slip: "" });
    await stateLevel(" ");
    expect(useDesk.getState().slipError).toMatch(/^Say what lies here/);
    await stateLevel("eaves +5.49 m");
    expect(server.sent[0]?.operations.map((o) => o.values)).toMatchObject([
      { drawing: DRAWING, x: 120, y: 340, sigmaPx: 0.3 },
      { kind: "eaves", name: "eaves", text: "5.49 m", unit: "mm" },
    ]);
    useDesk.setState({ picks: [picked(120, 340)] });
    await stateLevel("2.40 m");
    expect(server.sent[1]?.operations[1]?.values, "a height alone is a level").toMatchObject({ name: "level" });
  });
});

describe("an outline", () => {
  const corners: [number, number][] = [
    [20_000, 0],
    [24_000, 0],
    [24_000, 3000],
  ];

  it("goes from corner to corner and is closed on its first one, as thick and high as such a thing usually is", async () => {
    setAct("outline");
    useDesk.setState({ outlineKind: "slab" });
    for (const corner of corners) {
      clickAt(corner, true);
      await vi.waitFor(() => expect(useDesk.getState().ring.at(-1)).toEqual(corner));
    }
    clickAt([20_030, 30], true);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    const [outline, ...ring] = server.sent[0]?.operations ?? [];
    expect(outline?.values).toEqual({
      storey: STOREY,
      side: null,
      kind: "slab",
      name: "Floor",
      thickness: 200,
      top: 0,
    });
    expect(ring.map((o) => [o.values?.order, o.values?.x, o.values?.y])).toEqual(corners.map(([x, y], i) => [i, x, y]));
  });

  it("holds to the corners of traced faces, and is told apart from those before it", async () => {
    const shapes = useProject.getState().derived.get(STOREY);
    if (!shapes) throw new Error("There are no shapes.");
    const stretch = { from: [0, 0], to: [6000, 0], right: [[-100, -100]], left: [[100, 100]] };
    const walls = new Map([["south", { id: "south", stretches: [stretch], openings: [], findings: [] }]]);
    useProject.setState((s) => ({
      derived: new Map([[STOREY, { ...shapes, walls: walls as never }]]),
      rows: withRows(s.rows, [row("outline", "o", { storey: STOREY, side: null, kind: "slab", name: "Floor" })]),
    }));
    expect(wallCornerNear([120, 90])).toEqual([100, 100]);
    expect(wallCornerNear([1000, 90])).toBeNull();
    useDesk.setState({ ring: corners, outlineKind: "slab" });
    await closeOutline();
    expect(server.sent[0]?.operations[0]?.values?.name).toBe("Floor 2");
    useDesk.setState({ ring: corners.slice(0, 2) });
    await closeOutline();
    expect(server.sent, "two corners are none").toHaveLength(1);
  });

  it("takes corners one after the other, however late the ink is known, and its end waits for them", async () => {
    const paper = { cell: 24, columns: 1, rows: 1, levels: "" };
    const made = {
      tileSuffix: ".png",
      cuts: [],
      lightOnDark: false,
      contrast: 200,
      paper,
      lines: 0,
      bytes: 0,
      skew: { degrees: 0, sigmaDegrees: 0.002, confidence: 0.8 },
    };
    useProject.setState({ pages: new Map([["g", page("g", { made })]]) });
    const answer = globalThis.fetch;
    let asked = 0;
    vi.stubGlobal("fetch", async (...call: Parameters<typeof fetch>) => {
      const [input] = call;
      if (String(input instanceof Request ? input.url : input).includes("/found"))
        await new Promise((later) => setTimeout(later, asked++ === 0 ? 40 : 5));
      return answer(...call);
    });
    const hand: XY[] = [
      [9000, 9000],
      [9900, 9000],
      [9900, 9700],
      [9000, 9700],
    ];
    for (const corner of hand) void outlinePoint(corner, false, false);
    await closeOutline();
    expect(asked).toBe(4);
    expect(server.sent[0]?.operations.slice(1).map((o) => [o.values?.x, o.values?.y])).toEqual(hand);
    // Stepped back meanwhile, a corner belongs to nothing any more.
    void outlinePoint([9000, 9000], true, false);
    const late = outlinePoint([9500, 9500], false, false);
    await new Promise((later) => setTimeout(later, 1));
    useDesk.setState({ ring: [] });
    await late;
    expect(useDesk.getState().ring).toEqual([]);
  });

  it("on a side is a face", async () => {
    useDesk.setState({ storey: null, side: "s", ring: corners });
    await closeOutline();
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({
      storey: null,
      side: "s",
      kind: "face",
      name: "Face",
    });
  });
});

describe("the line of a side on the plan", () => {
  it("is put on the side of that name, or on one that is made for it", async () => {
    useDesk.setState({ picks: [picked(0, 0), picked(600, 0)] });
    await stateSide("South");
    expect(server.sent[0]?.operations[0]).toMatchObject({
      do: "add",
      type: "side",
      values: { name: "South", fromX: 0 },
    });
    expect(server.sent[0]?.operations[0]?.values?.toX).toBeCloseTo(6000 * Math.cos(Math.PI / 90));
    useProject.setState((s) => ({ rows: withRows(s.rows, [side("s", "South")]) }));
    useDesk.setState({ picks: [picked(0, 0), picked(600, 0)] });
    await stateSide("south");
    expect(server.sent[1]?.operations[0]).toMatchObject({ do: "set", type: "side", id: "s" });
    useDesk.setState({ picks: [picked(0, 0), picked(600, 0)] });
    await stateSide(" ");
    expect(useDesk.getState().slipError).toMatch(/^Which side/);
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

describe("what is typed at a level", () => {
  it("is a name, and a height where one is known", () => {
    expect(levelOf("finished floor 0")).toEqual({ name: "finished floor", kind: "finished floor", height: "0" });
    expect(levelOf("eaves +5.49 m")).toEqual({ name: "eaves", kind: "eaves", height: "5.49 m" });
    expect(levelOf("Ridge 7 900")).toEqual({ name: "Ridge", kind: "ridge", height: "7 900" });
    expect(levelOf("window sill")).toEqual({ name: "window sill", kind: "sill", height: "" });
    expect(levelOf("ground −150")).toEqual({ name: "ground", kind: "ground", height: "-150" });
    expect(levelOf("head 6'8\"")).toEqual({ name: "head", kind: "head", height: "6'8\"" });
    expect(levelOf("string course")).toEqual({ name: "string course", kind: "other", height: "" });
    expect(levelOf("  ")).toEqual({ name: "", kind: "other", height: "" });
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

describe("a misfit", () => {
  it("is told by the way the drawing has it", () => {
    expect([way(30, 2), way(-30, 2), way(1, 30), way(1, -30)]).toEqual(["to the right", "to the left", "up", "down"]);
  });
});
