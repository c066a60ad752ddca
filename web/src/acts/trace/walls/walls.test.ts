import { beforeEach, describe, expect, it, vi } from "vitest";
import type { Row } from "../../../api/client";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { snapAt, wallUnder } from "../../../board/snap";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { arcChain, besideCourse, courseOf, nearestOnLine, riseThrough, wallLine } from "../../../store/walls";
import { DRAWING, deskWithPlan, entered, row, type Sent, type Serving, STOREY } from "../../../testing/desk";
import { ask } from "../../asked";
import { copyWalls, outerWalls } from "../copying";
import { copy, move } from "../Elsewhere";
import { changeBuildUp, removeBuildUp, setBuildUp } from "./buildUps";
import { reverse, setLength, setThickness } from "./editing";
import { useWallOptions } from "./options";

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

describe("walls", () => {
  it("hold to what somebody has stated before any ink: placed points and crossings of the grid", () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("controlPoint", "c", { drawing: DRAWING, pick: "p", x: 9000, y: 9000, text: "A/1" }),
        row("gridAxis", "a", { label: "C", along: "x", at: 12000 }),
        row("gridAxis", "b", { label: "3", along: "y", at: 8000 }),
      ]),
    }));
    setAct("walls");
    expect(snapAt([9020, 8990], false)).toEqual({ at: [9000, 9000], words: "the placed point A/1", sigmaPx: 0 });
    expect(snapAt([12015, 8010], false)).toMatchObject({ at: [12000, 8000], words: "C/3", sigmaPx: 0 });
    expect(snapAt([9020, 8990], true), "not while Alt is down").toBeNull();
  });

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
    expect(drafted("chain")).toBeNull();
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
      words: "square, along x · in line with the start 2\u2009000 mm below",
    });
  });

  it("are found by their body, whichever is nearest", () => {
    expect(wallUnder([90, 2000], 0)?.id).toBe("west");
    expect(wallUnder([3000, 101], 0)).toBeNull();
    expect(wallUnder([3000, 101], 5)?.id).toBe("south");
    expect(wallUnder([90, 2000], 0, ["west"])).toBeNull();
  });
});

describe("shapes of walls", () => {
  it("set a rectangle by two typed sides, towards the pointer, counter-clockwise", async () => {
    setAct("walls");
    useWallOptions.setState({ shape: "rectangle" });
    clickAt([10_000, 5000], false);
    useDesk.setState({ pointer: [9000, 4000] });
    await entered("3600 x 4200");
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
    useWallOptions.setState({ shape: "arc" });
    clickAt([10_000, 0], false);
    clickAt([14_000, 300], false);
    useDesk.setState({ pointer: [12_000, -900] });
    await entered("500");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.trace?.rises).toEqual([-500]);
  });

  it("take their direction from the ink that runs there, with the length typed", async () => {
    setAct("walls");
    clickAt([10_000, 10_000], false);
    useDesk.setState({ pointer: [13_000, 11_100], snap: null });
    // 68° clockwise from up is 22° from x; the pointer is at 20°.
    server.bearing = { bearing: "N 68 E", degrees: 68, plusMinusDegrees: 0.1 };
    await entered("3000");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    const [, to] = sent[0]?.operations[0]?.trace?.points ?? [];
    const rad = (22 * Math.PI) / 180;
    expect(to?.[0]).toBeCloseTo(10_000 + 3000 * Math.cos(rad));
    expect(to?.[1]).toBeCloseTo(10_000 + 3000 * Math.sin(rad));
  });

  it("come in steps of a module where that is wanted", () => {
    setAct("walls");
    useWallOptions.setState({ roundTo: 125 });
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

  it("have a line beside them, straight or round, so far to their left", () => {
    const straight = besideCourse(courseOf([0, 0], [4000, 0], 0, 200), 1000, 3000, 100);
    expect(straight).toEqual([
      [1000, 100],
      [3000, 100],
    ]);
    const round = besideCourse(courseOf([0, 0], [2000, 0], 1000, 200), 0, 1000 * Math.PI, 100);
    expect(round.length).toBeGreaterThan(20);
    // Clockwise from the left: what is left of it is outside.
    for (const [x, y] of round) expect(Math.hypot(x - 1000, y)).toBeCloseTo(1100, 0);
  });
});

describe("walls of a storey", () => {
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
    const both = ["south", "north"].map((id) => ({ type: "wall", id }));
    expect(sent.at(-1)?.operations).toEqual([{ do: "copy", copy: { things: both, alone: true, to: "upper" } }]);
    const things = [{ type: "wall" as const, id: "south" }];
    await copy(things, "upper");
    expect(sent.at(-1)?.operations).toEqual([{ do: "copy", copy: { things, to: "upper" } }]);
    await move(things, "upper");
    expect(sent.at(-1)?.operations).toEqual([{ do: "toStorey", toStorey: { things, storey: "upper" } }]);
    expect(useDesk.getState().group).toEqual([]);
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
    const asked = (y: number) => {
      ask("beside", "south");
      useDesk.setState({ pointer: [3000, y] });
    };
    asked(700);
    await entered("900");
    asked(-700);
    await entered("900");
    expect(sent.map((s) => s.operations[0]?.rework)).toMatchObject([
      { kind: "beside", wall: "south", left: 1100 },
      { kind: "beside", wall: "south", left: -1100 },
    ]);
    asked(700);
    await entered("none");
    expect(useDesk.getState()).toMatchObject({ slipError: "No length.", draft: { kind: "beside" } });
    expect(sent).toHaveLength(2);
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
    useWallOptions.setState({ buildUp: "b" });
    await removeBuildUp("b");
    expect(sent[0]?.operations).toEqual([
      { do: "setMany", type: "wall", ids: ["south"], values: { buildUp: null } },
      { do: "remove", type: "buildUp", id: "b" },
    ]);
    expect(useWallOptions.getState().buildUp).toBeNull();
  });
});
