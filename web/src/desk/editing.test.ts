import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Row } from "../api/client";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { arcChain, nearestOnLine, riseThrough, wallLine } from "../store/walls";
import { deskWithPlan, page, row, type Sent, type Serving, STOREY } from "../testing/desk";
import { clickAt } from "./acts";
import { type Held, setAct, useDesk } from "./desk";
import {
  changeBuildUp,
  copyWalls,
  dropHeld,
  heldAt,
  moveToStorey,
  outerWalls,
  preview,
  removeBuildUp,
  removeSelected,
  reverse,
  selectedWalls,
  selectWithin,
  setBeside,
  setBuildUp,
  setLength,
  setThickness,
  storeysInOrder,
} from "./editing";
import { snapAt } from "./snap";
import { setWallFigure } from "./tracing";

let sent: Sent[];
let server: Serving;

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
    removeSelected();
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations).toMatchObject([{ do: "removeMany", type: "wall" }]);
    expect(sent[0]?.operations[0]?.ids).toHaveLength(4);
  });
});

describe("dragging", () => {
  it("takes hold of a selected wall only, and moves it across itself", async () => {
    setAct(null);
    expect(heldAt([3000, 20])).toBeNull();
    clickAt([3000, 20], false);
    const grip = heldAt([3000, 20]);
    expect(grip).toMatchObject({ kind: "wall", id: "south" });
    useDesk.setState({ held: { kind: "wall", id: "south", part: 0, from: [3000, 0], to: [3200, -250] } });
    await dropHeld();
    expect(sent[0]?.operations[0]?.shift).toEqual({ wall: "south", left: -250 });
  });

  it("takes hold of an end, and of nothing for somebody who only reads", () => {
    setAct(null);
    clickAt([3000, 20], false);
    expect(heldAt([40, 30])).toMatchObject({ kind: "node", id: "n1" });
    useProject.setState({ role: "read" });
    expect(heldAt([40, 30])).toBeNull();
    useProject.setState({ role: "owner" });
  });

  it("widens an opening by its jamb and leaves the other one", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "d", { wall: "south", kind: "door", offset: 1000, width: 900 })]),
    }));
    useDesk.setState({ held: { kind: "jamb", id: "d", part: 0, from: [1000, 0], to: [700, 30] } });
    await dropHeld();
    expect(sent[0]?.operations[0]?.values).toEqual({ offset: 700, width: 1200 });
  });
});

describe("what is dragged", () => {
  const dragged = (held: Partial<Held> & Pick<Held, "kind" | "id">) =>
    useDesk.setState({ held: { part: 0, from: [0, 0], to: [300, 200], ...held } });

  it("is shown where it would go, with the walls that meet it, before it is let go", () => {
    dragged({ kind: "wall", id: "south" });
    // Across itself only; the two beside it follow with the ends that they share.
    expect(preview()).toEqual([
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
    dragged({ kind: "node", id: "n3", to: [6500, 4100] });
    expect(preview()).toHaveLength(2);
    useDesk.setState({ held: null });
    expect(preview()).toEqual([]);
  });

  it("moves several walls as they stand, a shared corner once", async () => {
    useDesk.setState({ group: ["south", "east"] });
    dragged({ kind: "wall", id: "south" });
    expect(preview(), "and the two that hang on to them").toHaveLength(4);
    await dropHeld();
    expect(sent[0]?.operations[0]?.shift?.nodes).toEqual([
      { id: "n1", x: 300, y: 200 },
      { id: "n2", x: 6300, y: 200 },
      { id: "n3", x: 6300, y: 4200 },
    ]);
  });

  it("moves a corner to where it is let go", async () => {
    dragged({ kind: "node", id: "n3", to: [6500, 4100] });
    await dropHeld();
    expect(sent[0]?.operations[0]?.shift).toEqual({ nodes: [{ id: "n3", x: 6500, y: 4100 }] });
  });

  it("keeps an opening within its wall, and no narrower than a hand could pass", async () => {
    const door = row("opening", "d", { wall: "south", kind: "door", offset: 1000, width: 900, number: "D1" });
    const drop = async (held: Partial<Held> & Pick<Held, "kind">) => {
      useProject.setState((s) => ({ rows: withRows(s.rows, [door]) }));
      dragged({ id: "d", ...held });
      expect(preview(), "drawn on its wall").toHaveLength(1);
      await dropHeld();
      return [sent.at(-1)?.title, sent.at(-1)?.operations[0]?.values];
    };
    expect(await drop({ kind: "opening", part: 400, to: [9000, 0] })).toEqual([
      "Move D1",
      { offset: 5100, width: 900 },
    ]);
    expect(await drop({ kind: "opening", part: 400, to: [-900, 0] })).toEqual(["Move D1", { offset: 0, width: 900 }]);
    expect(await drop({ kind: "jamb", part: 1, to: [200, 0] })).toEqual(["Width of D1", { offset: 1000, width: 50 }]);
    expect(await drop({ kind: "jamb", part: 1, to: [9000, 0] })).toEqual([
      "Width of D1",
      { offset: 1000, width: 5000 },
    ]);
    expect(await drop({ kind: "jamb", part: 0, to: [1880, 0] })).toEqual(["Width of D1", { offset: 1850, width: 50 }]);
  });

  it("is taken hold of at its jambs and within, where an opening is selected", () => {
    setAct(null);
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "d", { wall: "south", kind: "door", offset: 1000, width: 900 })]),
    }));
    useDesk.setState({ selected: { type: "opening", id: "d" } });
    expect(heldAt([1010, 40])).toEqual({ kind: "jamb", id: "d", part: 0 });
    expect(heldAt([1890, -40])).toEqual({ kind: "jamb", id: "d", part: 1 });
    expect(heldAt([1450, 0])).toEqual({ kind: "opening", id: "d", part: 450 });
    expect(heldAt([1450, 400])).toBeNull();
    expect(heldAt([3000, 0])).toBeNull();
  });
});

describe("what is typed at walls", () => {
  it("keeps the end where others join", async () => {
    await setLength("south", 5900);
    expect(sent[0]?.operations[0]?.shift).toEqual({ wall: "south", length: 5900, holds: "from" });
    const alone = row("node", "n5", { storey: STOREY, drawing: null, x: -2000, y: 0 });
    const spur = likeSouth("spur", "n5", "n1");
    useProject.setState((s) => ({ rows: withRows(s.rows, [alone, spur]) }));
    await setLength("spur", 1500);
    expect(sent[1]?.operations[0]?.shift).toEqual({ wall: "spur", length: 1500, holds: "to" });
  });

  it("sets a thickness of several and turns them round, each as one change", async () => {
    await setThickness(["south", "east"], 240);
    await reverse(["south", "east"]);
    expect(sent.map((s) => s.operations)).toEqual([
      [{ do: "shift", shift: { walls: ["south", "east"], thickness: 240 } }],
      ["south", "east"].map((wall) => ({ do: "rework", rework: { kind: "reverse", wall } })),
    ]);
  });

  it("lays a copy beside one, clear of both bodies, on the side where the pointer is", async () => {
    const ask = (y: number) =>
      useDesk.setState({ asked: { kind: "beside", wall: "south" }, pointer: [3000, y], slip: "900" });
    ask(700);
    await setBeside("900");
    ask(-700);
    await setBeside("900");
    expect(sent.map((s) => s.operations[0]?.rework)).toMatchObject([
      { kind: "beside", wall: "south", left: 1100 },
      { kind: "beside", wall: "south", left: -1100 },
    ]);
    ask(700);
    await setBeside("none");
    expect(useDesk.getState()).toMatchObject({ slipError: "No length.", asked: { kind: "beside" } });
    expect(sent).toHaveLength(2);
  });
});

describe("acts that ask for a place or another wall", () => {
  const ask = (kind: "split" | "join" | "end", wall: string) => useDesk.setState({ asked: { kind, wall } });

  it("split a wall where it was clicked", async () => {
    ask("split", "south");
    clickAt([2200, 30], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.rework).toMatchObject({ kind: "split", wall: "south", along: 2200 });
    expect(useDesk.getState().asked).toBeNull();
  });

  it("wait on while nothing is hit, and take no wall as the other of itself", () => {
    ask("join", "south");
    clickAt([3000, 2000], false);
    clickAt([3000, 20], false);
    expect(useDesk.getState().asked).toEqual({ kind: "join", wall: "south" });
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

describe("build-ups", () => {
  const kind = row("buildUp", "b", { name: "Outer, 300", thickness: 300, height: 2800, enclosing: true });
  const given = () =>
    useProject.setState((s) => ({
      rows: withRows(s.rows, [kind, row("wall", "south", { ...s.rows.wall.get("south"), buildUp: "b" })]),
    }));

  it("give walls their thickness, height and whether they enclose; taken off, they leave the walls as they are", async () => {
    given();
    await setBuildUp(["east"], "b");
    expect(sent[0]?.operations).toEqual([
      { do: "shift", shift: { walls: ["east"], thickness: 300 } },
      { do: "set", type: "wall", id: "east", values: { buildUp: "b", height: 2800, enclosing: true } },
    ]);
    await setBuildUp(["east"], null);
    expect(sent[1]?.operations).toEqual([{ do: "setMany", type: "wall", ids: ["east"], values: { buildUp: null } }]);
  });

  it("change with every wall that has them; a new name alone changes no wall", async () => {
    given();
    await changeBuildUp("b", { thickness: 320 });
    expect(sent[0]?.operations).toEqual([
      { do: "set", type: "buildUp", id: "b", values: { thickness: 320 } },
      { do: "shift", shift: { walls: ["south"], thickness: 320 } },
      { do: "set", type: "wall", id: "south", values: { buildUp: "b" } },
    ]);
    given();
    await changeBuildUp("b", { name: "Outer" });
    expect(sent[1]?.operations).toEqual([{ do: "set", type: "buildUp", id: "b", values: { name: "Outer" } }]);
  });

  it("go without their walls", async () => {
    given();
    useDesk.setState({ buildUp: "b" });
    await removeBuildUp("b");
    expect(sent[0]?.operations).toEqual([
      { do: "setMany", type: "wall", ids: ["south"], values: { buildUp: null } },
      { do: "remove", type: "buildUp", id: "b" },
    ]);
    expect(useDesk.getState().buildUp).toBeNull();
  });
});

describe("storeys", () => {
  it("are told from the lowest up, alternatives after what they are one of", () => {
    const storey = (id: string, elevation: number, alternativeOf: string | null = null) =>
      row("storey", id, { name: id, elevation, height: 2700, alternativeOf });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        storey(STOREY, 0),
        storey("upper B", 2900, "upper"),
        storey("upper", 2900),
        storey("cellar", -2600),
      ]),
    }));
    expect(storeysInOrder().map((s) => s.id)).toEqual(["cellar", STOREY, "upper", "upper B"]);
  });
});

describe("columns and dividers", () => {
  const column = (x: number, y: number) =>
    row("column", "c", { storey: STOREY, x, y, width: 500, depth: 300, round: false });

  it("a column stands where the ink shows its centre, or where the hand put it, with the sides typed", async () => {
    setAct("rooms");
    useDesk.setState({ roomMode: "column", columnSize: "500 × 300" });
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
    const divider = row("divider", "v", { storey: STOREY, drawing: null, x1: 3000, y1: 0, x2: 3000, y2: 4000 });
    useProject.setState((s) => ({ rows: withRows(s.rows, [column(1000, 0), divider]) }));
    setAct(null);
    clickAt([3010, 2000], false);
    expect(useDesk.getState().selected).toEqual({ type: "divider", id: "v" });
    clickAt([1100, 50], false);
    expect(useDesk.getState().selected).toEqual({ type: "column", id: "c" });
    expect(heldAt([1100, 50])).toMatchObject({ kind: "column", id: "c" });
    useDesk.setState({ held: { kind: "column", id: "c", part: 0, from: [1100, 50], to: [1350, -50] } });
    await dropHeld();
    expect(sent[0]?.operations[0]?.values).toEqual({ x: 1250, y: -100 });
  });
});

describe("shapes of walls", () => {
  it("set a rectangle by two typed sides, towards the pointer, counter-clockwise", async () => {
    setAct("walls");
    useDesk.setState({ wallShape: "rectangle" });
    clickAt([10_000, 5000], false);
    useDesk.setState({ pointer: [9000, 4000] });
    await setWallFigure("3600 x 4200");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    const trace = sent[0]?.operations[0]?.trace;
    expect(trace?.closed).toBe(true);
    expect(trace?.points).toEqual([
      [6400, 800],
      [10_000, 800],
      [10_000, 5000],
      [6400, 5000],
    ]);
  });

  it("set an arc by a rise on the pointer's side", async () => {
    setAct("walls");
    useDesk.setState({ wallShape: "arc" });
    clickAt([10_000, 0], false);
    clickAt([14_000, 300], false);
    useDesk.setState({ pointer: [12_000, -900] });
    await setWallFigure("500");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.trace?.rises).toEqual([-500]);
  });

  it("take their direction from the ink that runs there, with the length typed", async () => {
    setAct("walls");
    clickAt([10_000, 10_000], false);
    useDesk.setState({ pointer: [13_000, 11_100], snap: null });
    // 68° clockwise from up is 22° from x; the pointer is at 20°.
    server.bearing = { bearing: "N 68 E", degrees: 68, plusMinusDegrees: 0.1 };
    await setWallFigure("3000");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    const [, to] = sent[0]?.operations[0]?.trace?.points ?? [];
    const rad = (22 * Math.PI) / 180;
    expect(to?.[0]).toBeCloseTo(10_000 + 3000 * Math.cos(rad));
    expect(to?.[1]).toBeCloseTo(10_000 + 3000 * Math.sin(rad));
  });

  it("come in steps of a module where that is wanted", () => {
    setAct("walls");
    useDesk.setState({ roundTo: 125 });
    clickAt([10_000, 10_000], false);
    expect(snapAt([11_190, 10_010], false)?.at[0]).toBeCloseTo(11_250);
  });

  it("pass through three points, and a place on an arc is told by its distance along it", () => {
    const rise = riseThrough([0, 0], [1000, 1000], [2000, 0]);
    expect(rise).toBeCloseTo(1000);
    for (const [x, y] of arcChain([0, 0], [2000, 0], rise)) expect(Math.hypot(x - 1000, y)).toBeCloseTo(1000);
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("wall", "south", { ...s.rows.wall.get("south"), rise: -3000 })]),
    }));
    const line = wallLine(useProject.getState().rows, "south");
    expect(line?.length).toBeCloseTo(3000 * Math.PI);
    if (line) expect(nearestOnLine([3000, -3300], line).along).toBeCloseTo(1500 * Math.PI, 0);
  });
});

describe("walls", () => {
  it("know the walls round the building from those between rooms", () => {
    const stretch = (from: number[], to: number[], right: number[][], left: number[][]) => ({ from, to, right, left });
    const shapes = useProject.getState().derived.get(STOREY);
    if (!shapes) throw new Error("There are no shapes.");
    // Inside the room on both sides, and along its south.
    const middle = stretch([3000, 1000], [3000, 3000], [[3050, 1000]], [[2950, 1000]]);
    const south = stretch([0, 0], [6000, 0], [[0, -100]], [[0, 100]]);
    const walls = new Map(
      [
        ["middle", middle],
        ["south", south],
      ].map(([id, s]) => [
        id as string,
        { id: id as string, stretches: [s as typeof middle], openings: [], findings: [] },
      ]),
    );
    useProject.setState({ derived: new Map([[STOREY, { ...shapes, walls }]]) });
    expect([...outerWalls(STOREY)]).toEqual(["south"]);
  });

  it("copy the walls that are wanted to another storey, and move them there, in one operation", async () => {
    await copyWalls(STOREY, "upper", (id) => id === "south" || id === "north");
    expect(sent.at(-1)?.operations).toEqual([{ do: "copy", copy: { walls: ["south", "north"], to: "upper" } }]);
    await moveToStorey(["south"], "upper");
    expect(sent.at(-1)?.operations).toEqual([{ do: "toStorey", toStorey: { walls: ["south"], storey: "upper" } }]);
    expect(useDesk.getState().group).toEqual([]);
  });
});
