import { beforeEach, describe, expect, it, vi } from "vitest";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, page, report, row, type Serving, STOREY } from "../testing/desk";
import { clickAt, showOther, stepBack } from "./acts";
import { setAct, useDesk } from "./desk";
import { closeOutline, foursides } from "./elevation";
import { removeOpening, setDoorWidth } from "./openings";
import { stateWhatIsPicked } from "./picking";

const SIDE = "00000000-0000-7000-8000-0000000000ee";

let server: Serving;

const onSide = () =>
  useProject.setState((s) => ({
    rows: withRows(s.rows, [
      row("side", SIDE, { name: "South", fromX: null, fromY: null, toX: null, toY: null }),
      row("drawing", DRAWING, { ...s.rows.drawing.get(DRAWING), storey: null, side: SIDE }),
    ]),
  }));

const sent = () => server.sent.at(-1);

beforeEach(() => {
  server = deskWithPlan();
  useProject.setState({
    fits: new Map([[DRAWING, report()]]),
    pages: new Map([["g", page("g")]]),
  });
  useDesk.setState({ openingKind: "as drawn", placing: "point" });
});

describe("openings by their ink", () => {
  it("take width, kind and leaf from one click", async () => {
    server.gap = { kind: "door", offset: 2000, width: 910, plusMinusMm: 4, leafAt: "far", leafSide: "right" };
    setAct("openings");
    clickAt([2400, 10], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(sent()?.operations[0]?.values).toMatchObject({
      ...{
        wall: "south",
        kind: "door" as const,
        offset: 2000,
        width: 910,
        hand: "right",
        swing: "right",
        number: "D01",
      },
      ...{ sill: 0, height: 2040 },
    });
    expect(useDesk.getState().door).toBeNull();
  });

  it("become what is chosen, with its usual sill and the next free number", async () => {
    server.gap = { kind: "opening", offset: 1000, width: 1200, plusMinusMm: 4, leafAt: null, leafSide: null };
    useDesk.setState({ openingKind: "window" });
    const taken = { wall: "north", kind: "window" as const, offset: 0, width: 900, sill: 900, height: 1200 };
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "o", { ...taken, hand: "left", swing: "left", number: "W01" })]),
    }));
    setAct("openings");
    clickAt([1500, 10], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(sent()?.operations[0]?.values).toMatchObject({ kind: "window", number: "W02", sill: 900, height: 1200 });
  });

  it("leave a hand that goes on by itself alone", async () => {
    server.gap = { kind: "door", offset: 2000, width: 910, plusMinusMm: 4, leafAt: null, leafSide: "left" };
    setAct("openings");
    clickAt([3000, 0], false);
    // Typed before the ink has answered.
    useDesk.setState({ slip: "8", pointer: [2500, 40] });
    await vi.waitFor(() => expect(server.asked.some((u) => u.pathname.endsWith("/gap"))).toBe(true));
    await setDoorWidth("800");
    expect(server.sent).toHaveLength(1);
    expect(sent()?.operations[0]?.values).toMatchObject({ offset: 2200, width: 800 });
  });

  it("are removed by name", async () => {
    const values = { wall: "north", kind: "door" as const, offset: 0, width: 900, sill: 0, height: null };
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "o", { ...values, hand: "left", swing: "left", number: "D07" })]),
    }));
    removeOpening("o");
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(sent()).toMatchObject({ title: "Remove D07", operations: [{ do: "remove", type: "opening", id: "o" }] });
  });
});

describe("on a side", () => {
  beforeEach(() => {
    onSide();
    useDesk.setState({ storey: null, side: SIDE });
  });

  it("a level is a pick with its name, and the stated one its height", async () => {
    setAct("levels");
    clickAt([3000, 1000], true);
    expect(useDesk.getState().slip).toBe("");
    await stateWhatIsPicked("finished floor 0");
    const [pick, mark] = sent()?.operations ?? [];
    expect(pick?.type).toBe("pick");
    expect(mark).toMatchObject({
      type: "levelMark",
      values: { kind: "finished floor", name: "finished floor", text: "0", pick: pick?.id },
    });
  });

  it("a level without a word is asked for one", async () => {
    setAct("levels");
    clickAt([3000, 1000], true);
    await stateWhatIsPicked(" ");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().slipError).toContain("finished floor 0");
  });

  it("an outline is one change, its corners in order, and Escape throws an open one away", async () => {
    setAct("outline");
    const corners = [
      [0, 0],
      [8000, 0],
      [8000, 5000],
    ] as const;
    for (const p of corners) clickAt(p, true);
    await vi.waitFor(() => expect(useDesk.getState().ring).toHaveLength(3));
    await closeOutline();
    expect(sent()?.operations.map((o) => o.type)).toEqual(["outline", ...corners.map(() => "outlineCorner")]);
    expect(
      sent()
        ?.operations.slice(1)
        .map((o) => [o.values?.order, o.values?.x, o.values?.y]),
    ).toEqual(corners.map(([x, y], i) => [i, x, y]));
    clickAt([0, 0], true);
    await vi.waitFor(() => expect(useDesk.getState().ring).toHaveLength(1));
    stepBack();
    expect(useDesk.getState().ring).toHaveLength(0);
    await closeOutline();
    expect(server.sent).toHaveLength(1);
  });

  it("one drawing shows for another", async () => {
    const other = "00000000-0000-7000-8000-0000000000dc";
    const { id: _, ...values } = useProject.getState().rows.drawing.get(DRAWING) ?? { id: "" };
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("drawing", other, { ...values, name: "section", hidden: true, order: 1 }),
        row("drawing", DRAWING, { ...values, hidden: false, order: 0 }),
      ]),
    }));
    await showOther();
    expect(useDesk.getState().drawing).toBe(other);
    expect(sent()).toMatchObject({ title: "Show section" });
    expect(sent()?.operations.map((o) => [o.id, o.values?.hidden])).toEqual([
      [DRAWING, true],
      [other, false],
    ]);
  });
});

describe("sides on the plan", () => {
  it("get their lines round what is traced, each from its left end as it is looked at", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("side", SIDE, { name: "South side", fromX: null, fromY: null, toX: null, toY: null }),
      ]),
    }));
    await foursides(STOREY);
    const [south, east, north, west] = sent()?.operations ?? [];
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
    useDesk.setState({ placing: "side" });
    setAct("place");
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
    expect(useDesk.getState().slip).toBe("South");
    await stateWhatIsPicked("south");
    expect(sent()?.operations[0]).toMatchObject({ do: "set", type: "side", id: SIDE });
    const { fromX, fromY, toX, toY } = (sent()?.operations[0]?.values ?? {}) as Record<string, number>;
    expect([fromX, fromY, toX, toY].map((v) => Math.round(v ?? 1))).toEqual([0, 0, 6000, 0]);
  });
});
