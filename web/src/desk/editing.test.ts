import { beforeEach, describe, expect, it, vi } from "vitest";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { arcChain, nearestOnLine, riseThrough, wallLine } from "../store/walls";
import { deskWithPlan, page, row, type Sent, type Serving, STOREY } from "../testing/desk";
import { clickAt } from "./acts";
import { setAct, useDesk } from "./desk";
import {
  copyWalls,
  dropHeld,
  heldAt,
  moveToStorey,
  outerWalls,
  removeSelected,
  selectedWalls,
  selectWithin,
} from "./editing";
import { apartMm, faceAt } from "./figures";
import { nextNumber, numberAndName } from "./rooms";
import { snapAt } from "./snap";
import { setWallFigure } from "./tracing";

let sent: Sent[];
let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
  sent = server.sent;
});

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

describe("figures and rooms", () => {
  it("mean the face on the side that was clicked, and know what lies between two", () => {
    expect(faceAt([3000, 60])).toEqual({ wall: "south", side: "left" });
    expect(faceAt([3000, -60])).toEqual({ wall: "south", side: "right" });
    expect(faceAt([3000, 5])).toEqual({ wall: "south", side: "centre" });
    const { rows } = useProject.getState();
    expect(apartMm(rows, { wall: "south", side: "left" }, { wall: "north", side: "left" })).toBeCloseTo(3800);
    expect(apartMm(rows, { wall: "south", side: "left" }, { wall: "east", side: "left" })).toBeNull();
  });

  it("read number and name, and go on counting", () => {
    expect(numberAndName("3 Tank room")).toEqual({ number: "3", name: "Tank room" });
    expect(numberAndName("Tank room")).toEqual({ number: "", name: "Tank room" });
    expect(numberAndName(" 12 ")).toEqual({ number: "12", name: "Room 12" });
    expect(nextNumber()).toBe("1");
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("room", "r", { storey: STOREY, number: "7", name: "x" })]),
    }));
    expect(nextNumber()).toBe("8");
  });

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
