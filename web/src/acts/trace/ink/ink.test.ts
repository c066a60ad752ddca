import { beforeEach, describe, expect, it } from "vitest";
import { look, type Proposals, type ProposedWall, refuse, useFound } from "../../../acts/searches";
import { setAct, useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { DRAWING, deskWithPlan, json, type Serving } from "../../../testing/desk";
import { ALL, chosen, foundWords, thicknessesOf, wantedWords } from "./choosing";
import { accept, acceptWithin, inkPoint, proposalAt, useProbed } from "./proposals";

let server: Serving;

const wall = (id: string, from: number[], to: number[], thickness = 100): ProposedWall =>
  ({
    id,
    from,
    to,
    rise: 0,
    thickness,
    confidence: 0.9,
    sure: true,
    buildUp: null,
    plusMinusMm: 2,
  }) as unknown as ProposedWall;
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
  inTraced: [
    {
      ...{ id: "gap", wall: "w1", kind: "door", offset: 400, width: 900, leafAt: "far", leafSide: "right" },
      ...{ confidence: 0.96, plusMinusMm: 4 },
    },
  ],
  columns: [{ id: "c", x: 12_000, y: 1500, width: 300, depth: 400, confidence: 0.8 }],
} as unknown as Proposals;

beforeEach(() => {
  server = deskWithPlan();
  server.answers = { proposals: told };
  setAct("ink");
  useFound.setState({ proposals: { of: DRAWING, told }, readings: null, looked: null });
});

describe("walls found in the ink", () => {
  it("are laid as one change, each with its own openings, and columns with all of them", async () => {
    await accept({ walls: ["right", "far"] });
    const lay = server.sent[0]?.operations[0]?.lay;
    expect(lay?.walls.map((w) => [w.thickness, w.buildUp])).toEqual([
      [240, "kept"],
      [100, null],
    ]);
    expect(lay?.openings, "counted by the walls that are laid").toEqual([
      { wall: 1, kind: "window", offset: 500, width: 1200, leafAt: null, leafSide: null, sill: 900, height: 1200 },
      { wall: 0, kind: "door", offset: 900, width: 800, leafAt: "start", leafSide: "left", sill: 0, height: 2040 },
    ]);
    expect(lay?.columns).toEqual([]);
    await accept(chosen(told, ALL));
    expect(server.sent[1]?.operations[0]?.lay).toMatchObject({
      columns: [{ x: 12_000, y: 1500, width: 300, depth: 400 }],
    });
    expect(server.sent[1]?.operations[0]?.lay?.walls).toHaveLength(3);
  });

  it("can be chosen by thickness, kind and how sure, and doubtful ones are never among them", async () => {
    expect(foundWords(told)).toBe("3 walls, 3 openings and 1 column");
    expect(thicknessesOf(told.walls).map(({ mm, walls }) => [mm, walls.length])).toEqual([
      [100, 2],
      [240, 1],
    ]);
    expect(wantedWords(chosen(told, { ...ALL, without: [240], columns: false }))).toBe(
      "2 walls with openings and 1 opening",
    );
    expect(chosen(told, { ...ALL, openings: false })).toMatchObject({ openings: false, inTraced: [], columns: ["c"] });
    const surest = chosen(told, { ...ALL, least: 0.95 });
    expect(wantedWords(surest)).toBe("1 opening");
    await accept(surest);
    expect(server.sent[0]).toMatchObject({ title: "Accept an opening" });
    expect(server.sent[0]?.operations[0]?.lay).toMatchObject({
      walls: [],
      openings: [{ on: "w1", kind: "door", offset: 400, width: 900, leafAt: "far", leafSide: "right" }],
      columns: [],
    });
  });

  it("that are curved are found along their arc, and laid as arcs", async () => {
    const round = { ...(told.walls[0] as ProposedWall), to: [14_000, 0], rise: -2000 };
    useFound.setState({ proposals: { of: DRAWING, told: { ...told, walls: [round] } } });
    expect(proposalAt([12_000, -2000])?.id).toBe("low");
    expect(proposalAt([12_000, 0])).toBeNull();
    await accept({ walls: ["low"] });
    expect(server.sent.at(-1)?.operations[0]?.lay?.walls[0]?.rise).toBe(-2000);
  });

  it("that are doubtful are taken one by one alone, and doubtful openings not at all", async () => {
    const [low, right, far] = told.walls;
    const doubtful = {
      ...told,
      walls: [{ ...(low as ProposedWall), sure: false }, right as ProposedWall, far as ProposedWall],
      openings: told.openings.map((o, i) => ({ ...o, sure: i > 0 })),
      inTraced: [],
    } as Proposals;
    useFound.setState({ proposals: { of: DRAWING, told: doubtful } });
    await accept(chosen(doubtful, ALL));
    expect(server.sent[0]?.operations[0]?.lay?.walls).toHaveLength(2);
    expect(server.sent[0]?.operations[0]?.lay?.openings?.map((o) => o.kind)).toEqual(["door"]);
    useFound.setState({ proposals: { of: DRAWING, told: doubtful } });
    await acceptWithin([14_500, 3500], [9500, -500], false);
    expect(server.sent[1]?.operations[0]?.lay?.walls).toHaveLength(1);
    useFound.setState({ proposals: { of: DRAWING, told: doubtful } });
    await accept({ walls: ["low"] });
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
    await accept(chosen(told, ALL));
    expect(server.sent).toEqual([]);
  });

  it("that lie wholly in an area are accepted or refused together", async () => {
    await acceptWithin([14_500, 3500], [9500, -500], false);
    expect(server.sent[0]?.operations[0]?.lay?.walls).toHaveLength(2);
    server.answers = { refuse: { ...told, walls: told.walls.slice(0, 2) } };
    await acceptWithin([29_000, -500], [35_000, 500], true);
    expect(useFound.getState().proposals?.told.walls.map((w) => w.id)).toEqual(["low", "right"]);
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
    expect(useFound.getState().proposals?.told).toBe(told);
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
    expect(useProbed.getState().words).toBe("175 mm thick, ±0.1, taken as Inner.");
  });

  it("says so where no wall is drawn, and lays none", async () => {
    server.answers = { probe: { found: null } };
    await inkPoint([20_000, 20_000]);
    expect(server.sent).toEqual([]);
    expect(useProbed.getState().words).toMatch(/^No wall is drawn there/);
  });
});
