import { beforeEach, describe, expect, it } from "vitest";
import { setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import {
  DRAWING,
  deskWithPlan,
  entered,
  page,
  picked,
  report,
  row,
  type Sent,
  type Serving,
} from "../../../testing/desk";
import { levelOf, stateLevel } from "./levels";

let server: Serving;
let _sent: Sent[];

beforeEach(() => {
  server = deskWithPlan();
  _sent = server.sent;
  const made = {
    tileSuffix: ".png",
    cuts: [],
    lightOnDark: false,
    contrast: 200,
    paper: { cell: 24, columns: 1, rows: 1, levels: "" },
    lines: 0,
    bytes: 0,
    skew: { degrees: -2, sigmaDegrees: 0.002, confidence: 0.8 },
  };
  useProject.setState({
    fits: new Map([[DRAWING, report({ rotationDegrees: 2 })]]),
    pages: new Map([["g", page("g", { made })]]),
  });
});

const _found = (x: number, y: number) => ({
  kind: "corner",
  x,
  y,
  sigmaPx: 0.15,
  alongDegrees: null,
  thicknessPx: null,
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

const SIDE = "00000000-0000-7000-8000-0000000000ee";

const onSide = () =>
  useProject.setState((s) => ({
    rows: withRows(s.rows, [
      row("side", SIDE, { name: "South", fromX: null, fromY: null, toX: null, toY: null }),
      row("drawing", DRAWING, { ...s.rows.drawing.get(DRAWING), storey: null, side: SIDE }),
    ]),
  }));

describe("on a side", () => {
  beforeEach(() => {
    onSide();
    useDesk.setState({ storey: null, side: SIDE });
  });

  it("a level is a pick with its name, and the stated one its height", async () => {
    setAct("levels");
    clickAt([3000, 1000], true);
    expect(useDesk.getState().slip).toBe("");
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
