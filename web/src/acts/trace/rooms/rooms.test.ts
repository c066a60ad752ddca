import { beforeEach, describe, expect, it, vi } from "vitest";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import type { Derived, Leak } from "../../../store/shapes";
import { DRAWING, deskWithPlan, dragged, json, row, type Serving, STOREY } from "../../../testing/desk";
import { mendLeak, nameRoom, nextNumber, numberAndName, openRooms, setCeiling, useRoomOptions } from "./rooms";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

const refusing = (message: string) =>
  vi.stubGlobal("fetch", async () => json({ error: { code: "refused", message, at: "" } }, 422));

describe("the name of a room", () => {
  it("is read as number and name, and the next number goes on from it", () => {
    expect(numberAndName("3 Tank room")).toEqual({ number: "3", name: "Tank room" });
    expect(numberAndName("Tank room")).toEqual({ number: "", name: "Tank room" });
    expect(numberAndName("9 9 Study")).toEqual({ number: "9", name: "Study" });
    expect(numberAndName("9 90 Study")).toEqual({ number: "9", name: "90 Study" });
    expect(numberAndName(" 12 ")).toEqual({ number: "12", name: "Room 12" });
    expect(numberAndName("  ")).toEqual({ number: "", name: "" });
    expect(nextNumber()).toBe("1");
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("room", "r", { storey: STOREY, number: "7", name: "x" })]),
    }));
    expect(nextNumber()).toBe("8");
  });

  it("counts from a hundred more on every storey above the ground, and from one below it", () => {
    const storey = (id: string, elevation: number) => row("storey", id, { name: id, elevation, height: 2700 });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [storey(STOREY, 0), storey("cellar", -2600), storey("first", 2900), storey("loft", 5800)]),
    }));
    const numbers = ["cellar", STOREY, "first", "loft"].map((id) => {
      useDesk.setState({ storey: id });
      return nextNumber();
    });
    expect(numbers).toEqual(["1", "1", "101", "201"]);
  });

  it("is asked for where the room is clicked, and what it is called already is there to be changed", async () => {
    setAct("rooms");
    clickAt([3000, 2000], false);
    expect(useDesk.getState()).toMatchObject({ slip: "1 ", draft: { of: "name", at: [3000, 2000], room: null } });
    await nameRoom("1 Tank room");
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({ name: "Tank room", number: "1", x: 3000, y: 2000 });
    expect(drafted("name")).toBeNull();
    useDesk.setState({ draft: { of: "name", at: [3000, 2000], room: "r" } });
    await nameRoom("2 Store");
    expect(server.sent[1]?.operations).toEqual([
      { do: "set", type: "room", id: "r", values: { name: "Store", number: "2" } },
    ]);
  });

  it("that is empty is not sent, and one that is refused comes back with the reason", async () => {
    useDesk.setState({ draft: { of: "name", at: [3000, 2000], room: null }, slip: " " });
    await nameRoom(" ");
    expect(server.sent).toEqual([]);
    expect(useDesk.getState().slipError).toMatch(/needs a name/);
    useDesk.setState({ slip: "1 Tank", slipError: null });
    refusing("Such a room is there.");
    await nameRoom("1 Tank");
    expect(useDesk.getState()).toMatchObject({ slip: "1 Tank", slipError: "Such a room is there." });
    useDesk.setState({ slipError: null });
    const late = nameRoom("1 Tank");
    useDesk.setState({ draft: { of: "name", at: [1, 1], room: null }, slip: "another" });
    await late;
    expect(useDesk.getState().slip, "but not over what the hand has gone on to").toBe("another");
  });

  it("goes with a ceiling height as typed", async () => {
    await setCeiling("r", "2450");
    expect(server.sent[0]?.operations[0]).toMatchObject({ id: "r", values: { height: 2450 } });
    await setCeiling("r", "0");
    expect(server.sent).toHaveLength(1);
    expect(useDesk.getState().slipError).toMatch(/longer than zero/);
  });
});

describe("a divider", () => {
  it("is set by two clicks, from wall to wall, and none of no length", async () => {
    setAct("rooms");
    useRoomOptions.setState({ mode: "divider" });
    clickAt([2000, 90], false);
    const from = drafted("divider")?.from;
    clickAt([2000, 90], true);
    expect(server.sent).toEqual([]);
    clickAt([2030, 3920], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    const values = server.sent[0]?.operations[0]?.values;
    expect([values?.x1, values?.y1]).toEqual(from);
    expect(values?.x2, "held square").toBeCloseTo(Number(from?.[0]));
  });
});

describe("a divider that is there", () => {
  const divider = (id: string, x1: number, y1: number, x2: number, y2: number) =>
    row("divider", id, { storey: STOREY, drawing: null, x1, y1, x2, y2, rise: 0 });

  beforeEach(() => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [divider("d", 2000, 100, 2000, 2000), divider("e", 2000, 2000, 5900, 2000)]),
    }));
    useDesk.setState({ selected: { type: "divider", id: "d" } });
  });

  it("goes with its end wherever that is dragged, and what meets it there as well", async () => {
    expect(await dragged([2000, 2000], [2400, 1800])).toBe(true);
    expect(server.sent[0]?.operations.map((o) => [o.id, o.values])).toEqual([
      ["d", { x2: 2400, y2: 1800 }],
      ["e", { x1: 2400, y1: 1800 }],
    ]);
  });

  it("gets a corner where its middle is pulled", async () => {
    await dragged([2000, 1050], [1600, 1000]);
    expect(server.sent[0]?.operations).toMatchObject([
      { do: "set", id: "d", values: { x2: 1600, y2: 1000 } },
      { do: "add", values: { x1: 1600, y1: 1000, x2: 2000, y2: 2000 } },
    ]);
  });
});

describe("a leak", () => {
  const leak = (walls: string[]) =>
    ({
      walls,
      end: "to",
      neck: [
        [2000, 0],
        [2000, 150],
      ],
      widthMm: 150,
    }) as unknown as Leak;

  it("is closed by letting the wall that ends go on to the one it misses", async () => {
    await mendLeak(leak(["south", "east"]));
    expect(server.sent[0]?.operations[0]?.rework).toMatchObject({
      kind: "end",
      wall: "south",
      other: "east",
      atStart: false,
    });
  });

  it("is closed across where there are no two walls, or they never meet", async () => {
    const across = { storey: STOREY, drawing: DRAWING, x1: 2000, y1: 0, x2: 2000, y2: 150 };
    await mendLeak(leak(["south"]));
    expect(server.sent[0]?.operations[0]).toMatchObject({ type: "divider", values: across });
    const bodies: string[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      bodies.push(await request.text());
      return json({ error: { code: "never-meet", message: "They never meet.", at: "" } }, 422);
    });
    await mendLeak(leak(["south", "east"]));
    expect(bodies.map((b) => JSON.parse(b).operations[0].do)).toEqual(["rework", "add"]);
  });
});

describe("a leak between walls that touch at a corner alone", () => {
  it("is closed from one's centre line to the other's, across the corner", async () => {
    const bodies: string[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      bodies.push(await request.text());
      return json({ error: { code: "never-meet", message: "They never meet.", at: "" } }, 422);
    });
    const touching = {
      room: "r",
      gapMm: 0,
      neck: [
        [5900, 100],
        [5900, 100],
      ],
      walls: ["south", "east"],
      end: "to",
    };
    await mendLeak(touching as unknown as Leak);
    expect(JSON.parse(bodies[1] ?? "").operations[0].values).toMatchObject({ x1: 5900, y1: 0, x2: 6000, y2: 100 });
  });
});

describe("rooms that are open", () => {
  it("are those that nothing encloses, or that run into another room", () => {
    const named = ["a", "b", "c"].map((id) => row("room", id, { name: id }));
    useProject.setState((s) => ({ rows: withRows(s.rows, named) }));
    const shapes = {
      unplaced: new Map([["c", {}]]),
      findings: [
        { code: "two-names", things: ["a", "b"] },
        { code: "leak", things: ["a"] },
      ],
    } as unknown as Derived;
    expect(openRooms(useProject.getState().rows, shapes).map((r) => r.id)).toEqual(["c", "b"]);
  });
});
