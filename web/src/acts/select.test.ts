import { beforeEach, describe, expect, it, vi } from "vitest";
import { selectWithin } from "../acts/select";
import type { Row } from "../api/client";
import { currentAct, selectableOf } from "../board/act";
import { drafted, setAct, useDesk } from "../board/desk";
import { clickAt } from "../board/hand";
import { selectedWalls } from "../board/selection";
import type { XY } from "../geometry/plane";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { deskWithPlan, dragged, page, row, type Sent, type Serving, STOREY } from "../testing/desk";
import { ask } from "./asked";
import { useRoomOptions } from "./trace/rooms/rooms";

let server: Serving;
let sent: Sent[];

beforeEach(() => {
  server = deskWithPlan();
  sent = server.sent;
});

/** Another wall, as thick and on the same storey. */
function likeSouth(id: string, fromNode: string, toNode: string): Row {
  const south = useProject.getState().rows.wall.get("south");
  if (!south) throw new Error("There is no such wall.");
  const { id: _id, revision: _revision, ...values } = south;
  return row("wall", id, { ...values, fromNode, toNode });
}

describe("selecting", () => {
  it("takes one wall by a click, several by Shift, and gives one back by Shift again", () => {
    setAct(null);
    clickAt([3000, 20], false);
    expect(selectedWalls()).toEqual(["south"]);
    clickAt([6000, 2000], false, true);
    expect(selectedWalls()).toEqual(["south", "east"]);
    clickAt([3000, 20], false, true);
    expect(selectedWalls()).toEqual(["east"]);
  });

  it("by area takes walls that lie wholly in it, and takes them away", () => {
    selectWithin([-500, -500], [6500, 500], false);
    expect(selectedWalls()).toEqual(["south"]);
    selectWithin([-500, -500], [6500, 4500], false);
    expect(selectedWalls()).toHaveLength(4);
    selectWithin([-500, -500], [500, 4500], true);
    expect(selectedWalls()).not.toContain("west");
  });

  it("removes what is selected in one change", async () => {
    selectWithin([-500, -500], [6500, 4500], false);
    selectableOf("wall")?.remove?.("");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations).toMatchObject([{ do: "removeMany", type: "wall" }]);
    expect(sent[0]?.operations[0]?.ids).toHaveLength(4);
  });
});

describe("dragging", () => {
  const door = (values = {}) =>
    row("opening", "d", { wall: "south", kind: "door", offset: 1000, width: 900, number: "D1", ...values });
  const withDoor = () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [door()]) }));
    useDesk.setState({ selected: { type: "opening", id: "d" } });
  };

  it("takes hold of a selected wall only, and moves it across itself", async () => {
    expect(await dragged([3000, 20], [3200, -230])).toBe(false);
    clickAt([3000, 20], false);
    expect(await dragged([3000, 20], [3200, -230])).toBe(true);
    expect(sent[0]?.operations[0]?.shift).toEqual({ wall: "south", left: -250 });
  });

  it("takes hold of an end, and of nothing for somebody who only reads", async () => {
    clickAt([3000, 20], false);
    expect(await dragged([40, 30], [500, 100])).toBe(true);
    expect(sent[0]?.operations[0]?.shift).toEqual({ nodes: [{ id: "n1", x: 500, y: 100 }] });
    useProject.setState({ role: "read" });
    expect(await dragged([40, 30], [500, 100])).toBe(false);
    useProject.setState({ role: "owner" });
  });

  it("shows where it would go, with the walls that meet it, before it is let go", async () => {
    clickAt([3000, 20], false);
    const drag = currentAct()?.drag?.([3000, 0], { shiftKey: false });
    drag?.move([3000, 0], [3300, 200], false);
    // Across itself only; the two beside it follow with the ends that they share.
    expect(drafted("moved")?.lines).toEqual([
      [
        [0, 200],
        [6000, 200],
      ],
      [
        [0, 4000],
        [0, 200],
      ],
      [
        [6000, 200],
        [6000, 4000],
      ],
    ]);
    await drag?.drop();
    expect(drafted("moved")).toBeNull();
  });

  it("moves several walls as they stand, a shared corner once", async () => {
    useDesk.setState({ group: ["south", "east"] });
    const drag = currentAct()?.drag?.([3000, 0], { shiftKey: false });
    drag?.move([0, 0], [300, 200], false);
    expect(drafted("moved")?.lines, "and the two that hang on to them").toHaveLength(4);
    await drag?.drop();
    expect(sent[0]?.operations[0]?.shift?.nodes).toEqual([
      { id: "n1", x: 300, y: 200 },
      { id: "n2", x: 6300, y: 200 },
      { id: "n3", x: 6300, y: 4200 },
    ]);
  });

  it("keeps an opening within its wall, and no narrower than a hand could pass", async () => {
    const drop = async (from: XY, to: XY) => {
      withDoor();
      await dragged(from, to);
      return [sent.at(-1)?.title, sent.at(-1)?.operations[0]?.values];
    };
    expect(await drop([1400, 0], [9000, 0])).toEqual(["Move D1", { offset: 5100, width: 900 }]);
    expect(await drop([1400, 0], [-900, 0])).toEqual(["Move D1", { offset: 0, width: 900 }]);
    expect(await drop([1900, 0], [200, 0])).toEqual(["Width of D1", { offset: 1000, width: 50 }]);
    expect(await drop([1900, 0], [9000, 0])).toEqual(["Width of D1", { offset: 1000, width: 5000 }]);
    expect(await drop([1000, 0], [1880, 0])).toEqual(["Width of D1", { offset: 1850, width: 50 }]);
    expect(await drop([1000, 0], [700, 30]), "the other jamb stays").toEqual([
      "Width of D1",
      { offset: 700, width: 1200 },
    ]);
  });

  it("takes hold of an opening at its jambs and within, and of nothing beside it", async () => {
    for (const from of [
      [1010, 40],
      [1890, -40],
      [1450, 0],
    ] as const) {
      withDoor();
      expect(await dragged(from, [from[0] + 10, from[1]])).toBe(true);
    }
    withDoor();
    expect(await dragged([1450, 400], [1500, 400])).toBe(false);
    expect(await dragged([3000, 0], [3100, 0])).toBe(false);
  });
});

describe("acts that ask for a place or another wall", () => {
  it("split a wall where it was clicked", async () => {
    ask("split", "south");
    clickAt([2200, 30], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.rework).toMatchObject({ kind: "split", wall: "south", along: 2200 });
    expect(drafted("asked")).toBeNull();
  });

  it("split a wall on the line of the one that meets it under the pointer", async () => {
    const nodes = [
      row("node", "n7", { storey: STOREY, drawing: null, x: 2170, y: 40 }),
      row("node", "n8", { storey: STOREY, drawing: null, x: 2170, y: 3000 }),
    ];
    useProject.setState((s) => ({ rows: withRows(s.rows, nodes) }));
    useProject.setState((s) => ({ rows: withRows(s.rows, [likeSouth("partition", "n7", "n8")]) }));
    ask("split", "south");
    clickAt([2200, -30], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.rework).toMatchObject({ wall: "south", along: 2170 });
  });

  it("wait on while nothing is hit, and take no wall as the other of itself", () => {
    ask("join", "south");
    clickAt([3000, 2000], false);
    clickAt([3000, 20], false);
    expect(drafted("asked")).toMatchObject({ kind: "join", wall: "south" });
  });

  it("end a wall at another one with the end that is nearer to where they meet", async () => {
    const nodes = [
      row("node", "n7", { storey: STOREY, drawing: null, x: 2000, y: 1000 }),
      row("node", "n8", { storey: STOREY, drawing: null, x: 2000, y: 3000 }),
    ];
    const part = likeSouth("part", "n7", "n8");
    for (const [click, atStart] of [
      [[4000, -20], true],
      [[4000, 4020], false],
    ] as const) {
      useProject.setState((s) => ({ rows: withRows(s.rows, [...nodes, part]) }));
      ask("end", "part");
      clickAt(click, false);
      await vi.waitFor(() => expect(sent.at(-1)?.operations[0]?.rework).toMatchObject({ kind: "end", atStart }));
    }
  });
});

describe("columns and dividers", () => {
  const column = (x: number, y: number) =>
    row("column", "c", { storey: STOREY, x, y, width: 500, depth: 300, round: false });

  it("a column stands where the ink shows its centre, or where the hand put it, with the sides typed", async () => {
    setAct("rooms");
    useRoomOptions.setState({ mode: "column", columnSize: "500 × 300" });
    useProject.setState({ pages: new Map([["g", page("g")]]) });
    server.found = { kind: "column centre", x: 100, y: -150, sigmaPx: 0.3, alongDegrees: null, thicknessPx: null };
    clickAt([1000, 1480], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    const [x, y] = [1000 * Math.cos(Math.PI / 90), 1500 * Math.cos(Math.PI / 90)];
    const [dx, dy] = [1500 * Math.sin(Math.PI / 90), 1000 * Math.sin(Math.PI / 90)];
    expect([
      Math.abs(Number(sent[0]?.operations[0]?.values?.x) - x),
      Math.abs(Number(sent[0]?.operations[0]?.values?.y) - y),
    ]).toEqual([expect.closeTo(dx), expect.closeTo(dy)]);
    expect(sent[0]?.operations[0]?.values).toMatchObject({ width: 500, depth: 300, round: false });
    clickAt([2000, 1000], true);
    await vi.waitFor(() => expect(sent).toHaveLength(2));
    expect(sent[1]?.operations[0]?.values).toMatchObject({ x: 2000, y: 1000 });
  });

  it("are selected where they stand, before the wall beneath, and a column is dragged", async () => {
    const divider = row("divider", "v", {
      storey: STOREY,
      drawing: null,
      x1: 3000,
      y1: 0,
      x2: 3000,
      y2: 4000,
      rise: 0,
    });
    useProject.setState((s) => ({ rows: withRows(s.rows, [column(1000, 0), divider]) }));
    setAct(null);
    clickAt([3010, 2000], false);
    expect(useDesk.getState().selected).toEqual({ type: "divider", id: "v" });
    clickAt([1100, 50], false);
    expect(useDesk.getState().selected).toEqual({ type: "column", id: "c" });
    expect(await dragged([1100, 50], [1350, -50])).toBe(true);
    expect(sent[0]?.operations[0]?.values).toEqual({ x: 1250, y: -100 });
  });
});
