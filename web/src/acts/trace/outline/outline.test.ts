import { beforeEach, describe, expect, it, vi } from "vitest";
import { setAct, useDesk } from "../../../board/desk";
import { clickAt, stepBack } from "../../../board/hand";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, dragged, openSide, page, row, type Serving, STOREY } from "../../../testing/desk";
import { halveEdge, removeCorner, setEdge } from "./corners";
import { closeOutline, outlinePoint, ringNow, wallCornerNear } from "./outline";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

describe("an outline", () => {
  const corners: [number, number][] = [
    [20_000, 0],
    [24_000, 0],
    [24_000, 3000],
  ];

  it("goes from corner to corner and is closed on its first one, as thick and high as such a thing usually is", async () => {
    setAct("outline");
    for (const corner of corners) {
      clickAt(corner, true);
      await vi.waitFor(() => expect(ringNow().at(-1)).toEqual(corner));
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
    useDesk.setState({ draft: { of: "outline", ring: corners } });
    await closeOutline();
    expect(server.sent[0]?.operations[0]?.values?.name).toBe("Floor 2");
    useDesk.setState({ draft: { of: "outline", ring: corners.slice(0, 2) } });
    await closeOutline();
    expect(server.sent, "two corners on one line are none").toHaveLength(1);
    const opposite: XY[] = [
      [24_000, 3000],
      [20_000, 0],
    ];
    useDesk.setState({ draft: { of: "outline", ring: opposite } });
    await closeOutline();
    expect(server.sent[1]?.operations.slice(1).map((o) => [o.values?.x, o.values?.y])).toEqual([
      [20_000, 0],
      [24_000, 0],
      [24_000, 3000],
      [20_000, 3000],
    ]);
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
    for (const corner of hand) void outlinePoint({ pointer: corner, snap: null, free: false, corners: false });
    await closeOutline();
    expect(asked).toBe(4);
    expect(server.sent[0]?.operations.slice(1).map((o) => [o.values?.x, o.values?.y])).toEqual(hand);
    // Stepped back meanwhile, a corner belongs to nothing any more.
    void outlinePoint({ pointer: [9000, 9000], snap: null, free: true, corners: false });
    const late = outlinePoint({ pointer: [9500, 9500], snap: null, free: false, corners: false });
    await new Promise((later) => setTimeout(later, 1));
    useDesk.setState({ draft: { of: "outline", ring: [] } });
    await late;
    expect(ringNow()).toEqual([]);
  });

  it("on a side is a face", async () => {
    useDesk.setState({ storey: null, side: "s", draft: { of: "outline", ring: corners } });
    await closeOutline();
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({
      storey: null,
      side: "s",
      kind: "face",
      name: "Face",
    });
  });
});

describe("on a side", () => {
  beforeEach(() => {
    openSide();
  });

  it("an outline is one change, its corners in order, and Escape throws an open one away", async () => {
    setAct("outline");
    const corners = [
      [0, 0],
      [8000, 0],
      [8000, 5000],
    ] as const;
    for (const p of corners) clickAt(p, true);
    await vi.waitFor(() => expect(ringNow()).toHaveLength(3));
    await closeOutline();
    expect(server.sent.at(-1)?.operations.map((o) => o.type)).toEqual([
      "outline",
      ...corners.map(() => "outlineCorner"),
    ]);
    expect(
      server.sent
        .at(-1)
        ?.operations.slice(1)
        .map((o) => [o.values?.order, o.values?.x, o.values?.y]),
    ).toEqual(corners.map(([x, y], i) => [i, x, y]));
    clickAt([0, 0], true);
    await vi.waitFor(() => expect(ringNow()).toHaveLength(1));
    stepBack();
    expect(ringNow()).toHaveLength(0);
    await closeOutline();
    expect(server.sent).toHaveLength(1);
  });
});

describe("a traced outline", () => {
  const ring = [
    [10_000, 0, 0],
    [14_000, 0, 0],
    [14_000, 3000, 0],
    [10_000, 3000, 0],
  ] as const;
  const corner = (i: number, [x, y, rise]: readonly [number, number, number]) =>
    row("outlineCorner", `c${i}`, { outline: "o", drawing: null, order: i, x, y, rise });

  beforeEach(() => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("outline", "o", { storey: STOREY, side: null, kind: "slab", name: "Floor" }),
        ...ring.map((c, i) => corner(i, c)),
      ]),
    }));
    useDesk.setState({
      selected: { type: "outline", id: "o" },
      group: [],
      things: [],
      view: { x: 12_000, y: 1500, k: 0.1 },
    });
  });

  const sets = () =>
    server.sent.at(-1)?.operations.map((o) => [o.do, o.id, o.values] as [string, string, Record<string, unknown>]);

  it("is selected by its edge, and a wrong corner is dragged to its place", async () => {
    useDesk.setState({ selected: null });
    clickAt([12_000, 20], true);
    expect(useDesk.getState().selected).toEqual({ type: "outline", id: "o" });
    expect(await dragged([14_000, 3000], [14_500, 3200])).toBe(true);
    expect(sets()).toEqual([["set", "c2", { x: 14_500, y: 3200 }]]);
    expect(await dragged([11_300, 1300], [12_000, 2000]), "Its inside takes no hold.").toBe(false);
  });

  it("gets a corner more where an edge is pulled, in its place among the others", async () => {
    await dragged([12_000, 0], [12_000, -500]);
    const added = server.sent.at(-1)?.operations.at(-1);
    expect(added).toMatchObject({ do: "add", values: { outline: "o", order: 1, x: 12_000, y: -500, rise: 0 } });
    expect(sets()?.slice(0, -1)).toEqual([
      ["set", "c1", { order: 2 }],
      ["set", "c2", { order: 3 }],
      ["set", "c3", { order: 4 }],
    ]);
  });

  it("has its edges typed", async () => {
    await setEdge("o", "c0", 5000);
    expect(sets()).toEqual([["set", "c1", { x: 15_000, y: 0 }]]);
  });

  it("keeps its shape where an arc is halved", async () => {
    // Half a circle of 2 m radius below the first edge: its halves rise by r (1 − cos 45°).
    useProject.setState((s) => ({ rows: withRows(s.rows, [corner(0, [10_000, 0, -2000])]) }));
    await halveEdge("o", "c0");
    const added = server.sent.at(-1)?.operations.at(-1)?.values;
    expect(added?.x).toBeCloseTo(12_000);
    expect(added?.y).toBeCloseTo(-2000);
    expect(added?.rise).toBeCloseTo(-2000 * (1 - Math.SQRT1_2));
  });

  it("keeps three corners at least", async () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [], [{ type: "outlineCorner", id: "c3" }]) }));
    await removeCorner("o", "c2");
    expect(server.sent).toEqual([]);
    expect(useProject.getState().trouble).toMatch(/three corners/);
  });
});
