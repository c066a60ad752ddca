import { beforeEach, describe, expect, it } from "vitest";
import { currentAct } from "../../../board/act";
import { setAct, useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import type { Derived } from "../../../store/shapes";
import { deskWithPlan, row, type Serving, STOREY } from "../../../testing/desk";
import { addFinish, layFinish, patterned, removeFinish, surfacesHere, useNextFinish, whereInWords } from "./finishes";

let server: Serving;

/** The room within the walls, named or not. */
function room(id: string | null): void {
  const region = { key: "k", id, polygon: [[100, 100], [5900, 100], [5900, 3900], [100, 3900]], holes: [] }; // biome-ignore format: one line
  useProject.setState((s) => {
    const shapes = s.derived.get(STOREY) ?? { walls: new Map(), regions: new Map() };
    const derived = { ...shapes, regions: new Map([["k", region]]) } as unknown as Derived;
    return {
      derived: new Map([[STOREY, derived]]),
      rows: withRows(s.rows, [
        ...(id ? [row("room", id, { storey: STOREY, number: "3", name: "Hall" })] : []),
        row("finish", "t", { name: "Tiles", colour: "#c08a6e", pattern: "tiles", width: 200, height: 200, joint: 8 }),
        row("finish", "p", { name: "Plain", colour: "#e6e0d2", pattern: "plain", width: 0, height: 0, joint: 0 }),
      ]),
    };
  });
}

const inside = [3000, 2000] as const;
const words = () => currentAct()?.snap?.(inside, 0, false)?.words;

beforeEach(() => {
  server = deskWithPlan();
  useNextFinish.setState({ finish: "t", on: "floor", bottom: null, top: null });
  setAct("finishes");
});

describe("a finish", () => {
  it("is laid by a click where a room is named, its pattern from the room's corner, and selected", async () => {
    room("r");
    expect(words()).toBe("Tiles on 3 Hall, floor");
    await layFinish(inside, 0);
    expect(server.sent[0]?.operations[0]).toMatchObject({
      do: "add",
      type: "surface",
      values: { finish: "t", room: "r", wall: null, on: "floor", x: 100, y: 100, bottom: null, top: null },
    });
    expect(useDesk.getState().selected?.type).toBe("surface");
  });

  it("is not laid where nothing names the room, and says so before the click", async () => {
    room(null);
    expect(words()).toBe("name this room first");
    await layFinish(inside, 0);
    expect(server.sent).toEqual([]);
    expect(useProject.getState().trouble).toContain("name this room first");
  });

  it("becomes another where one lies already, and only selects it where it is the same", async () => {
    room("r");
    const laid = { finish: "t", room: "r", wall: null, on: "floor" as const, bottom: null, top: null };
    useProject.setState((s) => ({ rows: withRows(s.rows, [row("surface", "s", laid)]) }));
    await layFinish(inside, 0);
    expect(server.sent).toEqual([]);
    expect(useDesk.getState().selected).toEqual({ type: "surface", id: "s" });
    useNextFinish.setState({ finish: "p" });
    await layFinish(inside, 0);
    expect(server.sent[0]?.operations).toEqual([{ do: "set", type: "surface", id: "s", values: { finish: "p" } }]);
  });

  it("goes up walls from one height to another, beside what lies elsewhere on them", async () => {
    room("r");
    useNextFinish.setState({ on: "walls", bottom: 900, top: 1500 });
    await layFinish(inside, 0);
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({ on: "walls", bottom: 900, top: 1500, x: 0, y: 900 });
  });

  it("lies on the face of a wall that is pointed at, left and right as seen from its start", async () => {
    room("r");
    useNextFinish.setState({ on: "face" });
    await layFinish([3000, 60], 0);
    room("r");
    await layFinish([3000, -60], 0);
    expect(server.sent.map((s) => s.operations[0]?.values?.on)).toEqual(["left", "right"]);
  });

  it("is new with a name that is free, and goes with all that has it", async () => {
    room("r");
    await addFinish("tiles");
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({ name: "Tiles 2", pattern: "tiles", width: 300 });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("surface", "s", { finish: "t", room: "r", on: "floor" })]),
    }));
    await removeFinish("t");
    expect(server.sent[1]?.operations).toEqual([
      { do: "removeMany", type: "surface", ids: ["s"] },
      { do: "remove", type: "finish", id: "t" },
    ]);
  });

  it("of another pattern has what that cannot be without", () => {
    room("r");
    const finish = (id: string) => {
      const found = useProject.getState().rows.finish.get(id);
      if (!found) throw new Error(id);
      return found;
    };
    expect(patterned(finish("p"), "tiles")).toEqual({ pattern: "tiles", width: 300, height: 300, joint: 3 });
    expect(patterned(finish("t"), "boards")).toEqual({ pattern: "boards", width: 200, height: 200, joint: 8 });
  });

  it("is listed with its own storey only, by what it is and where", () => {
    room("r");
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        row("surface", "a", { finish: "t", room: "r", wall: null, on: "walls" }),
        row("surface", "b", { finish: "p", room: "r", wall: null, on: "ceiling" }),
        row("surface", "c", { finish: "p", room: "elsewhere", wall: null, on: "floor" }),
      ]),
    }));
    const { rows } = useProject.getState();
    expect(surfacesHere(rows, STOREY).map((s) => s.id)).toEqual(["b", "a"]);
    expect(whereInWords(rows, { room: null, on: "left" })).toBe("a wall, its left face");
  });
});
