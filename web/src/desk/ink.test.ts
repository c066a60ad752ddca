import { beforeEach, describe, expect, it, vi } from "vitest";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, EMPTY, json, row, type Serving, STOREY } from "../testing/desk";
import { setAct, useDesk } from "./desk";
import {
  accept,
  acceptWithin,
  inkPoint,
  listRooms,
  look,
  nameRooms,
  type Proposals,
  type ProposedWall,
  previewSettling,
  proposalAt,
  type ReadFigure,
  type ReadRoom,
  refuse,
  roomsToName,
  settle,
  sizeByFigures,
  takeFigure,
  titled,
  useInk,
} from "./ink";

let server: Serving;

const wall = (id: string, from: number[], to: number[], thickness = 100): ProposedWall =>
  ({ id, from, to, thickness, confidence: 0.9, sure: true, buildUp: null, plusMinusMm: 2 }) as unknown as ProposedWall;
const told = {
  walls: [
    wall("low", [10_000, 0], [14_000, 0]),
    { ...wall("right", [14_000, 0], [14_000, 3000], 240), buildUp: { id: "kept", name: "Outer, 240" } },
    wall("far", [30_000, 0], [34_000, 0]),
  ],
  openings: [
    {
      wall: "far",
      kind: "window",
      offset: 500,
      width: 1200,
      leafAt: null,
      leafSide: null,
      confidence: 0.8,
      sure: true,
    },
    {
      wall: "right",
      kind: "door",
      offset: 900,
      width: 800,
      leafAt: "start",
      leafSide: "left",
      confidence: 0.8,
      sure: true,
    },
  ],
  columns: [{ x: 12_000, y: 1500, width: 300, depth: 400, confidence: 0.8 }],
} as unknown as Proposals;

beforeEach(() => {
  server = deskWithPlan();
  server.answers = { proposals: told };
  setAct("ink");
  useInk.setState({ proposals: { of: DRAWING, told }, readings: null, settled: null, looked: null, probed: null });
});

describe("walls found in the ink", () => {
  it("are laid as one change, each with its own openings, and columns with all of them", async () => {
    await accept(["right", "far"]);
    const lay = server.sent[0]?.operations[0]?.lay;
    expect(lay?.walls.map((w) => [w.thickness, w.buildUp])).toEqual([
      [240, "kept"],
      [100, null],
    ]);
    expect(lay?.openings, "counted by the walls that are laid").toEqual([
      { wall: 1, kind: "window", offset: 500, width: 1200, leafAt: null, leafSide: null },
      { wall: 0, kind: "door", offset: 900, width: 800, leafAt: "start", leafSide: "left" },
    ]);
    expect(lay?.columns).toEqual([]);
    await accept(null);
    expect(server.sent[1]?.operations[0]?.lay).toMatchObject({
      columns: [{ x: 12_000, y: 1500, width: 300, depth: 400 }],
    });
    expect(server.sent[1]?.operations[0]?.lay?.walls).toHaveLength(3);
  });

  it("that are doubtful are taken one by one alone, and doubtful openings not at all", async () => {
    const [low, right, far] = told.walls;
    const doubtful = {
      ...told,
      walls: [{ ...(low as ProposedWall), sure: false }, right as ProposedWall, far as ProposedWall],
      openings: told.openings.map((o, i) => ({ ...o, sure: i > 0 })),
    } as Proposals;
    useInk.setState({ proposals: { of: DRAWING, told: doubtful } });
    await accept(null);
    expect(server.sent[0]?.operations[0]?.lay?.walls).toHaveLength(2);
    expect(server.sent[0]?.operations[0]?.lay?.openings?.map((o) => o.kind)).toEqual(["door"]);
    useInk.setState({ proposals: { of: DRAWING, told: doubtful } });
    await acceptWithin([14_500, 3500], [9500, -500], false);
    expect(server.sent[1]?.operations[0]?.lay?.walls).toHaveLength(1);
    useInk.setState({ proposals: { of: DRAWING, told: doubtful } });
    await accept(["low"]);
    expect(server.sent[2]?.operations[0]?.lay?.walls).toHaveLength(1);
  });

  it("are taken by a click on one, as thick as it is, or as near as a hand is", async () => {
    useDesk.setState({ view: { x: 0, y: 0, k: 1 } });
    expect(proposalAt([14_110, 1500])?.id).toBe("right");
    expect(proposalAt([14_130, 1500])).toBeNull();
    useDesk.setState({ view: { x: 0, y: 0, k: 0.01 } });
    expect(proposalAt([14_500, 1500])?.id).toBe("right");
    await inkPoint([14_500, 1500]);
    expect(server.sent.map((s) => s.title)).toEqual(["Accept a wall"]);
  });

  it("are nobody's while another drawing is worked on", async () => {
    useDesk.setState({ drawing: "another" });
    expect(proposalAt([14_000, 1500])).toBeNull();
    await accept(null);
    expect(server.sent).toEqual([]);
  });

  it("that lie wholly in an area are accepted or refused together", async () => {
    await acceptWithin([14_500, 3500], [9500, -500], false);
    expect(server.sent[0]?.operations[0]?.lay?.walls).toHaveLength(2);
    server.answers = { refuse: { ...told, walls: told.walls.slice(0, 2) } };
    await acceptWithin([29_000, -500], [35_000, 500], true);
    expect(useInk.getState().proposals?.told.walls.map((w) => w.id)).toEqual(["low", "right"]);
    await acceptWithin([0, 0], [1, 1], false);
    expect(server.sent, "where nothing lies nothing is changed").toHaveLength(1);
  });

  it("stay as they were told while the server is away, and a refusal that failed is said", async () => {
    server.answers = {
      proposals: json({}, 503),
      refuse: json({ error: { code: "away", message: "Later.", at: "" } }, 503),
    };
    await look("proposals", DRAWING);
    await refuse("proposals", DRAWING, ["low"]);
    expect(useInk.getState().proposals?.told).toBe(told);
    expect(useProject.getState().trouble).toBe("Later.");
  });
});

describe("a click where nothing was found", () => {
  it("lays the drawn wall under it, and says how thick it is and how surely", async () => {
    const found = {
      from: [1, 2],
      to: [3, 4],
      thickness: 174.6,
      plusMinusMm: 0.04,
      buildUp: { id: "b", name: "Inner" },
    };
    server.answers = { probe: { found }, proposals: told };
    await inkPoint([20_000, 20_000]);
    expect(server.sent[0]).toMatchObject({ title: "Probe a wall" });
    expect(server.sent[0]?.operations[0]?.lay?.walls).toEqual([
      { from: [1, 2], to: [3, 4], thickness: 174.6, buildUp: "b" },
    ]);
    expect(useInk.getState().probed).toBe("175 mm thick, ±0.1, taken as Inner.");
  });

  it("says so where no wall is drawn, and lays none", async () => {
    server.answers = { probe: { found: null } };
    await inkPoint([20_000, 20_000]);
    expect(server.sent).toEqual([]);
    expect(useInk.getState().probed).toMatch(/^No wall is drawn there/);
  });
});

const figure = (typed: string, standing = "figured"): ReadFigure =>
  ({ id: "f", text: typed, typed, standing, a: [10, 20], b: [460, 20], sigmaPx: 0.3 }) as unknown as ReadFigure;

describe("a figure that was read", () => {
  const taken = () => server.sent.at(-1)?.operations.at(-1)?.values;

  it("is taken with its two ends, as known length or held out as a check", async () => {
    server.answers = { readings: { figures: [], rooms: [] } };
    await takeFigure(figure("4500"), false);
    expect(server.sent[0]?.operations.map((o) => o.type)).toEqual(["pick", "pick", "knownLength"]);
    expect(server.sent[0]?.operations[0]?.values).toEqual({ drawing: DRAWING, x: 10, y: 20, sigmaPx: 0.3 });
    expect(taken()).toMatchObject({ text: "4500", unit: "mm", heldOut: false, standing: "figured" });
    await takeFigure(figure("4500"), true);
    expect(taken()).toMatchObject({ heldOut: true });
    await takeFigure(figure("5 m", "scale bar"), false);
    expect(taken()).toMatchObject({ text: "5 m", standing: "scale bar" });
    expect(useInk.getState().readings?.of).toBe(DRAWING);
  });
});

describe("all figures that were read", () => {
  it("size the drawing in one act, and what disagrees with the rest is named", async () => {
    const readings = { figures: [], rooms: [] };
    server.answers = { readings };
    await sizeByFigures();
    expect(server.sent[0]?.operations).toEqual([{ do: "size", size: { drawing: DRAWING } }]);
    expect(useProject.getState().trouble).toBeNull();
    const length = (id: string, text: string, heldOut: boolean) =>
      row("knownLength", id, { drawing: DRAWING, text, heldOut }, 3);
    const rows = [length("a", "4500", false), length("b", "13 200", true)];
    server.answers = { readings, changes: { ...EMPTY, revision: 3, rows } };
    await sizeByFigures();
    expect(useProject.getState().trouble).toBe("13 200 disagrees with the others: held out, as a check.");
  });
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
    await nameRooms([inside, room("WC", [400, -100])]);
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

  it("become the rooms table where an area was read with them; with none there is no change", async () => {
    await listRooms([room("STUDY", [0, 0], 12.5), room("HALL", [0, 0])]);
    expect(server.sent[0]?.operations.map((o) => [o.values?.name, o.values?.areaM2])).toEqual([["Study", 12.5]]);
    await listRooms([room("HALL", [0, 0])]);
    expect(server.sent).toHaveLength(1);
  });

  it("are written as names are, but short ones stay in capitals", () => {
    expect(["BED ROOM", "WC", "ENS", "Hall"].map(titled)).toEqual(["Bed room", "WC", "ENS", "Hall"]);
  });
});

describe("settling", () => {
  it("is shown before it is done, and shown anew when it was", async () => {
    server.answers = { settled: { moves: [], contradictions: [], unheld: [] } };
    await previewSettling(STOREY);
    expect(useInk.getState().settled?.of).toBe(STOREY);
    useInk.setState({ settled: null });
    await settle(STOREY);
    expect(server.sent[0]?.operations).toEqual([{ do: "settle", settle: { storey: STOREY } }]);
    await vi.waitFor(() => expect(useInk.getState().settled?.of).toBe(STOREY));
  });
});
