import { beforeEach, describe, expect, it } from "vitest";
import type { ReadRoom } from "../../../acts/searches";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row, type Serving, STOREY } from "../../../testing/desk";
import { listRooms, nameRooms, placeOf, roomsToName, roomsUnclosed, titled } from "./names";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

describe("names that were read", () => {
  const room = (name: string, at: [number, number], areaM2: number | null = null): ReadRoom =>
    ({ id: name, name, at, areaM2, confidence: 0.9 }) as unknown as ReadRoom;

  it("are for rooms that have none yet, and count on from the last number", async () => {
    // The rectangle's middle, and a place beside it, in pixels of the turned picture.
    const inside = room("WASH ROOM", [307, -189]);
    const outside = room("YARD", [2000, 0]);
    expect(roomsToName([inside, outside])).toEqual([inside]);
    const doubtful = { ...room("ASH", [310, -180]), confidence: 0.6 };
    expect(roomsToName([doubtful, inside]), "one name to a room").toEqual([inside]);
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("room", "r", { storey: STOREY, number: "4", name: "Store" })]),
    }));
    await nameRooms([{ ...inside, name: "Wash room" }, room("WC", [400, -100])]);
    expect(server.sent[0]?.title).toBe("Name rooms");
    expect(server.sent[0]?.operations.map((o) => [o.values?.number, o.values?.name])).toEqual([
      ["5", "Wash room"],
      ["6", "WC"],
    ]);
    expect(server.sent[0]?.operations[0]?.values?.x).toBeCloseTo(
      3070 * Math.cos(Math.PI / 90) - 1890 * Math.sin(Math.PI / 90),
      3,
    );
  });

  it("are told where nothing closes round them, so that named they show where it is open", () => {
    const open = room("CELL", [400, -100]);
    expect(roomsUnclosed([open]), "alone in a region it is no such one").toEqual([]);
    const doubtful = { ...room("ASH", [410, -110]), confidence: 0.6 };
    expect(roomsUnclosed([open, doubtful]), "of two in one region one is").toEqual([doubtful]);
    useProject.setState((s) => ({
      derived: new Map([...s.derived].map(([id, shapes]) => [id, { ...shapes, regions: new Map() }])),
    }));
    expect(roomsUnclosed([open, room("YARD", [20_000, 0])])).toEqual([open]);
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("room", "c", { storey: STOREY, number: "1", name: "Cell", x: 0, y: 9e6 })]),
    }));
    expect(roomsUnclosed([open]), "once it is named").toEqual([]);
    const misread = room("00 CELLAR", [300, -90]);
    expect(roomsUnclosed([misread])).toEqual([misread]);
    const [x = 0, y = 0] = placeOf(misread) ?? [];
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("room", "d", { storey: STOREY, number: "2", name: "Cellar", x, y })]),
    }));
    expect(roomsUnclosed([misread]), "corrected and taken").toEqual([]);
  });

  it("become the rooms table where an area was read with them; with none there is no change", async () => {
    await listRooms([room("STUDY", [0, 0], 12.5), room("HALL", [0, 0])]);
    expect(server.sent[0]?.operations.map((o) => [o.values?.name, o.values?.areaM2])).toEqual([["Study", 12.5]]);
    await listRooms([room("HALL", [0, 0])]);
    expect(server.sent).toHaveLength(1);
  });

  it("are written as names are, but short ones stay in capitals", () => {
    expect(["BED ROOM", "WC", "W.C.", "ENS", "Hall"].map(titled)).toEqual(["Bed room", "WC", "W.C.", "ENS", "Hall"]);
  });
});
