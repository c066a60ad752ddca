import { beforeEach, describe, expect, it, vi } from "vitest";
import { setAct, useDesk } from "../board/desk";
import { clickAt, stepBack } from "../board/hand";
import { chooseDrawing, choosePlace, keepLeft, showOther, whereLeft } from "../board/place";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, openSide, row, type Sent, type Serving, STOREY } from "../testing/desk";

let server: Serving;
let sent: Sent[];

beforeEach(() => {
  server = deskWithPlan();
  sent = server.sent;
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

  it("puts down what cannot be done there, and keeps what can", () => {
    useDesk.setState({ step: "trace" });
    setAct("stairs");
    choosePlace({ storey: null, side: "s" });
    expect(useDesk.getState().act).toBeNull();
    setAct("outline");
    choosePlace({ storey: STOREY, side: null });
    expect(useDesk.getState().act).toBe("outline");
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
    expect(useDesk.getState()).toMatchObject({ draft: null, slip: null, act: "calibrate" });
    stepBack();
    expect(useDesk.getState().act).toBeNull();
    expect(sent).toEqual([]);
  });
});

describe("a place", () => {
  const side = "00000000-0000-7000-8000-0000000000ef";

  it("is looked at as it was left, and anew where its picture has come to lie elsewhere", () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("storey", STOREY, { name: "Ground", elevation: 0, height: 2700, alternativeOf: null }),
        row("side", side, { name: "South" }),
        row("page", "g", { number: 1, width: 900, height: 900 }),
      ]),
    }));
    const left = { x: 1234, y: 567, k: 0.4 };
    useDesk.setState({ view: left });
    choosePlace({ storey: null, side });
    choosePlace({ storey: STOREY, side: null });
    expect(useDesk.getState().view).toEqual(left);
    choosePlace({ storey: null, side });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("fit", DRAWING, { ...s.rows.fit.get(DRAWING), ...{ revision: 9 }, m02: 90_000 })]),
    }));
    choosePlace({ storey: STOREY, side: null });
    expect(useDesk.getState().view, "the whole picture, where it lies now").not.toEqual(left);
    expect(useDesk.getState().view.x).toBeGreaterThan(80_000);
  });

  it("is found again when the project is opened again, with the step", () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [row("storey", STOREY, { name: "Ground" })]) }));
    useDesk.setState({ step: "prove" });
    const kept = new Map<string, string>();
    vi.stubGlobal("localStorage", {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
    });
    expect(whereLeft()).toBeNull();
    keepLeft();
    expect(whereLeft()).toMatchObject({ storey: STOREY, side: null, step: "prove", drawing: DRAWING });
    vi.stubGlobal("localStorage", { getItem: () => "{" });
    expect(whereLeft(), "what cannot be read is nothing").toBeNull();
  });
});

describe("on a side", () => {
  beforeEach(() => {
    openSide();
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
    expect(server.sent.at(-1)).toMatchObject({ title: "Show section" });
    expect(server.sent.at(-1)?.operations.map((o) => [o.id, o.values?.hidden])).toEqual([
      [DRAWING, true],
      [other, false],
    ]);
  });
});
