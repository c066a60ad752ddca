import { beforeEach, describe, expect, it } from "vitest";
import { setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { DRAWING, deskTurned, entered, openSide, picked, type Serving } from "../../../testing/desk";
import { levelOf, stateLevel } from "./levels";

let server: Serving;

beforeEach(() => {
  server = deskTurned();
});

describe("a level on a side", () => {
  it("is stated where it was picked, and asked for in words where nothing was typed", async () => {
    setAct("levels");
    picked([120, 340]);
    await stateLevel(" ");
    expect(useDesk.getState().slipError).toMatch(/^Say what lies here/);
    await stateLevel("eaves +5.49 m");
    expect(server.sent[0]?.operations.map((o) => o.values)).toMatchObject([
      { drawing: DRAWING, x: 120, y: 340, sigmaPx: 0.3 },
      { kind: "eaves", name: "eaves", text: "5.49 m", unit: "mm" },
    ]);
    picked([120, 340]);
    await stateLevel("2.40 m");
    expect(server.sent[1]?.operations[1]?.values, "a height alone is a level").toMatchObject({ name: "level" });
  });
});

describe("what is typed at a level", () => {
  it("is a name, and a height where one is known", () => {
    expect(levelOf("finished floor 0")).toEqual({ name: "finished floor", kind: "finished floor", height: "0" });
    expect(levelOf("eaves +5.49 m")).toEqual({ name: "eaves", kind: "eaves", height: "5.49 m" });
    expect(levelOf("Ridge 7 900")).toEqual({ name: "Ridge", kind: "ridge", height: "7 900" });
    expect(levelOf("window sill")).toEqual({ name: "window sill", kind: "sill", height: "" });
    expect(levelOf("ground −150")).toEqual({ name: "ground", kind: "ground", height: "-150" });
    expect(levelOf("head 6'8\"")).toEqual({ name: "head", kind: "head", height: "6'8\"" });
    expect(levelOf("string course")).toEqual({ name: "string course", kind: "other", height: "" });
    expect(levelOf("  ")).toEqual({ name: "", kind: "other", height: "" });
  });
});

describe("on a side", () => {
  beforeEach(() => {
    openSide();
  });

  it("a level is a pick with its name, and the stated one its height", async () => {
    setAct("levels");
    clickAt([3000, 1000], true);
    expect(useDesk.getState().slip, "the first is what all heights count from").toBe("finished floor 0");
    await entered("finished floor 0");
    const [pick, mark] = server.sent.at(-1)?.operations ?? [];
    expect(pick?.type).toBe("pick");
    expect(mark).toMatchObject({
      type: "levelMark",
      values: { kind: "finished floor", name: "finished floor", text: "0", pick: pick?.id },
    });
  });

  it("a level without a word is asked for one", async () => {
    setAct("levels");
    clickAt([3000, 1000], true);
    await entered(" ");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().slipError).toContain("finished floor 0");
  });
});
