import { beforeEach, describe, expect, it, vi } from "vitest";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, page, row, type Sent } from "../testing/desk";
import { chooseDrawing, choosePlace, clickAt, stepBack } from "./acts";
import { setAct, useDesk } from "./desk";
import { setDoorWidth } from "./openings";
import { nudgeEnd, stateWhatIsPicked } from "./picking";
import { snapAt, wallUnder } from "./snap";
import { gridTurn } from "./squaring";

let sent: Sent[];

beforeEach(() => {
  sent = deskWithPlan().sent;
});

describe("walls", () => {
  it("join the wall that an end is put on, and the chain ends there", async () => {
    setAct("walls");
    expect(snapAt([3000, 80], false)).toEqual({ at: [3000, 80], words: "joins this wall", wall: "south" });
    clickAt([3000, 80], false);
    expect(snapAt([3020, 3950], false)?.words).toBe("joins this wall, square, along y");
    clickAt([3020, 3950], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    const trace = sent[0]?.operations[0]?.trace;
    expect(trace?.points).toEqual([
      [3000, 80],
      [expect.closeTo(3000), expect.closeTo(3950)],
    ]);
    expect(trace?.joins).toEqual([
      { point: 0, wall: "south" },
      { point: 1, wall: "north" },
    ]);
    expect(useDesk.getState().chain).toBeNull();
  });

  it("are held square unless Alt says otherwise", () => {
    setAct("walls");
    clickAt([10000, 10000], false);
    expect(snapAt([14000, 10100], false)?.at).toEqual([14000, 10000]);
    expect(snapAt([14000, 10100], true)).toBeNull();
    expect(snapAt([14000, 12000], false)).toBeNull();
    useDesk.setState({ holdSquare: false });
    expect(snapAt([14000, 10100], false)).toBeNull();
  });

  it("close where they began", async () => {
    setAct("walls");
    for (const corner of [
      [10000, 0],
      [13000, 0],
      [13000, 2000],
      [10000, 2000],
    ] as const) {
      clickAt(corner, false);
    }
    expect(snapAt([10030, 40], false)?.words).toBe("closes the chain");
    clickAt([10030, 40], false);
    await vi.waitFor(() => expect(sent).toHaveLength(4));
    const trace = sent.at(-1)?.operations[0]?.trace;
    expect([trace?.closed, trace?.points.length, trace?.walls.length]).toEqual([true, 4, 4]);
  });

  it("fall into line with the chain's beginning", () => {
    setAct("walls");
    clickAt([10000, 0], false);
    clickAt([13000, 0], false);
    clickAt([13000, 2000], false);
    expect(snapAt([10050, 2020], false)).toEqual({
      at: [10000, expect.closeTo(2000)],
      words: "square, along x · in line with the start 2.00 m below",
    });
  });

  it("are found by their body, whichever is nearest", () => {
    expect(wallUnder([90, 2000], 0)?.id).toBe("west");
    expect(wallUnder([3000, 101], 0)).toBeNull();
    expect(wallUnder([3000, 101], 5)?.id).toBe("south");
    expect(wallUnder([90, 2000], 0, ["west"])).toBeNull();
  });
});

describe("doors", () => {
  it("run from the clicked edge to the second click, and swing to the pointer's side", async () => {
    setAct("openings");
    clickAt([1000, 20], false);
    clickAt([1910, -60], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.values).toMatchObject({
      wall: "south",
      offset: 1000,
      width: 910,
      swing: "right",
      number: "D01",
    });
  });

  it("take a typed width toward the pointer", async () => {
    setAct("openings");
    clickAt([3000, 0], false);
    useDesk.setState({ pointer: [2500, 40] });
    await setDoorWidth("800");
    expect(sent[0]?.operations[0]?.values).toMatchObject({ offset: 2200, width: 800, swing: "left" });
  });
});

describe("known lengths", () => {
  it("keep their picks in page pixels, with the text as typed", async () => {
    setAct("calibrate");
    clickAt([0, 0], false);
    clickAt([6000 * Math.cos(Math.PI / 90), 6000 * Math.sin(Math.PI / 90)], false);
    expect(useDesk.getState().picks[1]?.at[0]).toBeCloseTo(600, 9);
    expect(useDesk.getState().picks[1]?.at[1]).toBeCloseTo(0, 9);
    nudgeEnd(0.25, 0);
    await stateWhatIsPicked("6 m");
    expect(useDesk.getState().picks).toEqual([]);
    const [a, b, length] = sent[0]?.operations ?? [];
    expect(b?.values?.x).toBeCloseTo(600.25, 9);
    expect(length?.values).toMatchObject({ text: "6 m", a: a?.id, b: b?.id, heldOut: false, standing: "figured" });
  });

  it("come back with the reason when they are refused", async () => {
    setAct("calibrate");
    clickAt([0, 0], false);
    clickAt([3000, 0], false);
    useDesk.setState({ slip: "abc" });
    vi.stubGlobal(
      "fetch",
      async () =>
        new Response(JSON.stringify({ error: { code: "unreadable-length", message: "No length.", at: "0" } }), {
          status: 422,
          headers: { "Content-Type": "application/json" },
        }),
    );
    await stateWhatIsPicked("abc");
    expect(useDesk.getState()).toMatchObject({ slip: "abc", slipError: "No length." });
    expect(useDesk.getState().picks).toHaveLength(2);
    expect(useProject.getState().trouble).toBeNull();
  });
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

describe("rooms", () => {
  it("are offered where walls close, and may be named where they do not yet", () => {
    setAct("rooms");
    expect(snapAt([3000, 2000], false)?.words).toBe("name this room");
    expect(snapAt([9000, 9000], false)?.words).toContain("nothing closes round it");
  });
});

describe("line drawings", () => {
  const GREEN = { tileSuffix: ".png", cuts: [], lightOnDark: false, contrast: 200, lines: 2, bytes: 1 };

  it("are held to their own line ends, exactly, unless the hand is free", async () => {
    const fetching = globalThis.fetch;
    vi.stubGlobal("fetch", async (address: string | Request) =>
      String(address).endsWith("/lines")
        ? new Response(
            JSON.stringify([
              [100.25, 50, 700.5, 50],
              [700.5, 50, 700.5, 400],
            ]),
          )
        : fetching(address as Request),
    );
    const { rows } = useProject.getState();
    useProject.setState({
      rows: withRows(rows, [row("drawing", DRAWING, { ...rows.drawing.get(DRAWING), page: "exact" }, 2)]),
      pages: new Map([
        ["exact", page("exact", { made: { ...GREEN, paper: { cell: 9, columns: 1, rows: 1, levels: "" } } })],
      ]),
    });
    setAct("calibrate");
    const map = useProject.getState().rows.fit.get(DRAWING);
    const at = (x: number, y: number): [number, number] => [
      (map?.m00 ?? 0) * x + (map?.m01 ?? 0) * y + (map?.m02 ?? 0),
      (map?.m10 ?? 0) * x + (map?.m11 ?? 0) * y + (map?.m12 ?? 0),
    ];
    snapAt(at(100, 50), false); // asks for the lines
    await vi.waitFor(() => expect(snapAt(at(100.5, 50.3), false)?.words).toBe("end of a line, exact"));
    expect(snapAt(at(400, 50.4), false)).toMatchObject({ words: "on a line, exact", sigmaPx: 0.05 });
    expect(snapAt(at(100.5, 50.3), true)).toBeNull();
    clickAt(at(100.5, 50.3), false);
    clickAt(at(700.2, 49.8), false);
    expect(useDesk.getState().picks[0]?.at[0]).toBeCloseTo(100.25, 9);
    nudgeEnd(0.25, 0);
    await stateWhatIsPicked("3000");
    const picks = sent[0]?.operations.filter((o) => o.type === "pick").map((o) => o.values?.sigmaPx);
    expect(picks?.[0], "The file tells this end.").toBe(0.05);
    expect(picks?.[1], "This one was moved by hand.").toBeGreaterThan(0.3);
  });
});

describe("going about", () => {
  const add = (id: string, values: object) => row("drawing", id, { page: "g", name: id, ...values });

  it("works on the topmost drawing that shows, on a storey or on a side", () => {
    useProject.setState(({ rows }) => ({
      rows: withRows(rows, [
        add("low", { storey: "up", side: null, order: 1, hidden: false }),
        add("top", { storey: "up", side: null, order: 3, hidden: true }),
        add("mid", { storey: "up", side: null, order: 2, hidden: false }),
        add("south", { storey: null, side: "s", order: 0, hidden: false }),
      ]),
    }));
    choosePlace({ storey: "up", side: null });
    expect(useDesk.getState().drawing).toBe("mid");
    choosePlace({ storey: null, side: "s" });
    expect(useDesk.getState()).toMatchObject({ storey: null, side: "s", drawing: "south" });
    choosePlace({ storey: "nothing", side: null });
    expect(useDesk.getState().drawing).toBeNull();
  });

  it("shows a hidden drawing when it is chosen", async () => {
    useProject.setState(({ rows }) => ({
      rows: withRows(rows, [add("top", { storey: "up", side: null, order: 3, hidden: true })]),
    }));
    chooseDrawing("top");
    await vi.waitFor(() => expect(sent[0]?.operations[0]?.values).toEqual({ hidden: false }));
    expect(useDesk.getState()).toMatchObject({ storey: "up", drawing: "top" });
  });
});

describe("Escape", () => {
  it("takes one step back at a time and loses nothing that was saved", () => {
    setAct("calibrate");
    clickAt([0, 0], false);
    clickAt([3000, 0], false);
    useDesk.setState({ slip: "3 m" });
    stepBack();
    expect(useDesk.getState()).toMatchObject({ slip: "", act: "calibrate" });
    stepBack();
    expect(useDesk.getState()).toMatchObject({ picks: [], slip: null, act: "calibrate" });
    stepBack();
    expect(useDesk.getState().act).toBeNull();
    expect(sent).toEqual([]);
  });
});
