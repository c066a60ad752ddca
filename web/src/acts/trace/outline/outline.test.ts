import { beforeEach, describe, expect, it, vi } from "vitest";
import { setAct, useDesk } from "../../../board/desk";
import { clickAt, stepBack } from "../../../board/hand";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, openSide, page, row, type Serving, STOREY } from "../../../testing/desk";
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
