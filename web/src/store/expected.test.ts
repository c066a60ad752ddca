import { describe, expect, it } from "vitest";
import type { Operation } from "../api/client";
import { plan, row, STOREY } from "../testing/desk";
import type { Edit } from "./edits";
import { expected, type Picture, wallsOf } from "./expected";
import { noRows, withRows } from "./rows";
import { withShapes } from "./shapes";

const square = [
  [100, 100],
  [5900, 100],
  [5900, 3900],
  [100, 3900],
];

/** The rectangle as the server told it: a body for each wall, one region, a door in the south wall, a name for nothing yet. */
function told(): Picture {
  const door = {
    ...{ wall: "south", kind: "door" as const, offset: 1000, width: 900, sill: 0, height: null },
    ...{ hand: "left" as const, swing: "left" as const, leaf: "single" as const, number: "D01" },
  };
  const rows = withRows(noRows(), [...plan(), row("opening", "door", door)]);
  const shape = (id: string) => ({ id, stretches: [], openings: [], findings: [] });
  const region = {
    ...{
      key: "inside",
      id: null,
      polygon: square,
      holes: [],
      netAreaM2: 22.04,
      label: [3000, 2000],
      clear: [5800, 3800],
    },
    ...{ walls: ["south", "east", "north", "west"], leaks: [], findings: [] },
  };
  const none = { walls: [], regions: [], unplaced: [] };
  const areas = { grossFloorM2: 0, netFloorM2: 0, structureM2: 0 };
  const shapes = { storey: STOREY, whole: true, areas, removed: none, unplaced: [], regions: [region] };
  const walls = ["south", "east", "north", "west"].map(shape);
  return { rows, derived: new Map([[STOREY, withShapes(undefined, { ...shapes, walls })]]) };
}

let count = 0;
const edit = (...operations: Operation[]): Edit => ({
  ...{ id: `e${++count}`, kind: "change", title: "Edit", operations, carry: false, base: 1, after: [], target: null },
});
const step = (kind: "undo" | "redo", target: Edit): Edit => ({ ...edit(), kind, target: target.id });
const wallOf = (shown: Picture, id: string) => shown.derived.get(STOREY)?.walls.get(id);
const corners = (shown: Picture, id: string) => {
  const [stretch] = wallOf(shown, id)?.stretches ?? [];
  return [...(stretch?.right ?? []), ...(stretch?.left ?? [])].map((p) => p.map((v) => Math.round(v)));
};

describe("what is not acknowledged yet", () => {
  it("is nothing where nothing waits: not an object is new", () => {
    const before = told();
    expect(expected(before, [])).toBe(before);
  });

  it("leaves what it does not touch as it was told, object by object", () => {
    const before = told();
    const shown = expected(before, [edit({ do: "set", type: "opening", id: "door", values: { offset: 2000 } })]);
    expect(shown.rows.node).toBe(before.rows.node);
    expect(shown.rows.wall).toBe(before.rows.wall);
    expect(wallOf(shown, "north")).toBe(wallOf(before, "north"));
    expect(before.rows.opening.get("door")?.offset).toBe(1000);
  });

  it("shows a door where it was put, cut out of its wall", () => {
    const shown = expected(told(), [edit({ do: "set", type: "opening", id: "door", values: { offset: 2000 } })]);
    expect(shown.rows.opening.get("door")).toMatchObject({ offset: 2000, width: 900, number: "D01" });
    const [door] = wallOf(shown, "south")?.openings ?? [];
    expect(door?.polygon.map((p) => p.map((v) => Math.round(v)))).toEqual([
      [2000, -100],
      [2900, -100],
      [2900, 100],
      [2000, 100],
    ]);
  });

  it("shows walls that are traced, with the ends where they were clicked", () => {
    const trace = {
      ...{
        storey: STOREY,
        drawing: null,
        points: [
          [3000, 100],
          [3000, 3900],
        ],
        nodes: ["a", "b"],
        walls: ["new"],
      },
      ...{ line: "centre" as const, thickness: 120, joins: [] },
    };
    const shown = expected(told(), [edit({ do: "trace", trace })]);
    expect(shown.rows.wall.get("new")).toMatchObject({ fromNode: "a", toNode: "b", thickness: 120, evidence: "ink" });
    expect(corners(shown, "new")).toEqual([
      [3060, 100],
      [3060, 3900],
      [2940, 3900],
      [2940, 100],
    ]);
  });

  it("closes a chain from its last point to its first", () => {
    const points = [
      [0, 0],
      [1, 0],
      [1, 1],
    ].map(([x = 0, y = 0]) => [x * 1000 + 7000, y * 1000]);
    const trace = {
      ...{ storey: STOREY, drawing: null, points, nodes: ["a", "b", "c"], walls: ["x", "y", "z"], closed: true },
      ...{ line: "left" as const, thickness: 100 },
    };
    const shown = expected(told(), [edit({ do: "trace", trace })]);
    expect(shown.rows.wall.get("z")).toMatchObject({ fromNode: "c", toNode: "a", line: "left" });
  });

  it("moves every wall at a corner that is moved", () => {
    const shown = expected(told(), [edit({ do: "shift", shift: { nodes: [{ id: "n1", x: -500, y: 0 }] } })]);
    expect(corners(shown, "south")[0]).toEqual([-500, -100]);
    expect(corners(shown, "west").at(-1)).not.toEqual(corners(told(), "west").at(-1));
    expect(wallOf(shown, "north")?.stretches).toEqual([]);
  });

  it("moves a wall to its left, and makes it longer at the end that does not hold", () => {
    const left = expected(told(), [edit({ do: "shift", shift: { wall: "south", left: 250 } })]);
    expect([left.rows.node.get("n1")?.y, left.rows.node.get("n2")?.y]).toEqual([250, 250]);
    const held = expected(told(), [edit({ do: "shift", shift: { wall: "south", length: 7000, holds: "to" } })]);
    expect([held.rows.node.get("n1")?.x, held.rows.node.get("n2")?.x]).toEqual([-1000, 6000]);
  });

  it("makes walls thicker, all those that were named", () => {
    const shift = { walls: ["south", "north"], thickness: 300 };
    const shown = expected(told(), [edit({ do: "shift", shift })]);
    expect(["south", "east", "north"].map((id) => shown.rows.wall.get(id)?.thickness)).toEqual([300, 200, 300]);
    expect(corners(shown, "south")[0]).toEqual([0, -150]);
  });

  it("takes a wall away with its doors, and nothing else", () => {
    const shown = expected(told(), [edit({ do: "removeMany", type: "wall", ids: ["south"] })]);
    expect([...shown.rows.wall.keys()]).toEqual(["east", "north", "west"]);
    expect(shown.rows.opening.size).toBe(0);
    expect(wallOf(shown, "south")).toBeUndefined();
    expect(shown.rows.node.size, "the server says which corners nothing needs").toBe(4);
  });

  it("names the room in which the name was put, and unnames it again", () => {
    const name = { storey: STOREY, drawing: null, name: "Log room", number: "1", x: 3000, y: 2000, height: null };
    const added = edit({ do: "add", type: "room", id: "r", values: name });
    const shown = expected(told(), [added]);
    expect(shown.derived.get(STOREY)?.regions.get("inside")?.id).toBe("r");
    const gone = expected(shown, [edit({ do: "remove", type: "room", id: "r" })]);
    expect(gone.derived.get(STOREY)?.regions.get("inside")?.id).toBeNull();
    const outside = edit({ do: "add", type: "room", id: "r", values: { ...name, x: 9000 } });
    expect(expected(told(), [outside]).derived.get(STOREY)?.regions.get("inside")?.id).toBeNull();
  });

  it("moves things that have a place by so much, ends of a divider both", () => {
    const divider = row("divider", "d", { storey: STOREY, drawing: null, x1: 0, y1: 10, x2: 100, y2: 20 });
    const before = { ...told(), rows: withRows(told().rows, [divider]) };
    const shown = expected(before, [edit({ do: "move", type: "divider", ids: ["d"], by: [5, -5] })]);
    expect(shown.rows.divider.get("d")).toMatchObject({ x1: 5, y1: 5, x2: 105, y2: 15 });
  });

  it("takes walls to another storey", () => {
    const shown = expected(told(), [
      edit({ do: "toStorey", toStorey: { things: [{ type: "wall", id: "south" }], storey: "loft" } }),
    ]);
    expect(shown.rows.wall.get("south")?.storey).toBe("loft");
    expect(wallOf(shown, "south"), "off this one").toBeUndefined();
  });

  it("stands one upon the other, in the order in which it was made", () => {
    const first = edit({ do: "set", type: "opening", id: "door", values: { offset: 2000, width: 800 } });
    const second = edit({ do: "set", type: "opening", id: "door", values: { offset: 3000 } });
    expect(expected(told(), [first, second]).rows.opening.get("door")).toMatchObject({ offset: 3000, width: 800 });
    expect(expected(told(), [second, first]).rows.opening.get("door")).toMatchObject({ offset: 2000, width: 800 });
  });

  it("counts no more once it is taken back, and again when that is taken back", () => {
    const made = edit({ do: "set", type: "opening", id: "door", values: { offset: 2000 } });
    const undone = step("undo", made);
    expect(expected(told(), [made, undone]).rows.opening.get("door")?.offset).toBe(1000);
    expect(expected(told(), [made, undone, step("redo", made)]).rows.opening.get("door")?.offset).toBe(2000);
  });

  it("that only the server can work out is not guessed", () => {
    const before = told();
    const split = { kind: "split" as const, wall: "south", along: 3000, node: "m", newWall: "w" };
    const shown = expected(before, [
      edit({ do: "rework", rework: split }, { do: "settle", settle: { storey: STOREY } }),
    ]);
    expect(shown.rows.wall).toEqual(before.rows.wall);
    expect(shown.derived.get(STOREY)).toBe(before.derived.get(STOREY));
  });

  it("of something that is gone meanwhile changes nothing", () => {
    const before = told();
    const shown = expected(before, [
      edit({ do: "set", type: "wall", id: "nowhere", values: { thickness: 1 } }),
      edit({ do: "remove", type: "room", id: "nowhere" }, { do: "shift", shift: { wall: "nowhere", left: 3 } }),
    ]);
    expect(shown.rows).toEqual(before.rows);
  });
});

describe("beside somebody else's", () => {
  it("one's own walls are told where they would differ, and none where they would not", () => {
    const { rows } = told();
    const moved = wallsOf(rows, edit({ do: "shift", shift: { nodes: [{ id: "n1", x: -500, y: 0 }] } }));
    expect(moved.map((line) => line.wall.id).sort()).toEqual(["south", "west"]);
    expect(wallsOf(rows, edit({ do: "set", type: "opening", id: "door", values: { offset: 5 } }))).toEqual([]);
  });
});
