import { beforeEach, describe, expect, it } from "vitest";
import { clearDraft, useDesk } from "../../../board/desk";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row, type Serving, STOREY } from "../../../testing/desk";
import { useShown } from "../../useStairs";
import {
  inBox,
  linePoints,
  placed,
  pointsNow,
  risersFor,
  stairAt,
  stairDrag,
  stairPoint,
  treadsBetween,
  useNextStair,
} from "./stairs";

let server: Serving;
const click = (pointer: XY) => stairPoint({ pointer, snap: null });
const sent = () => server.sent.at(-1)?.operations[0];

beforeEach(() => {
  server = deskWithPlan();
  clearDraft();
  useNextStair.setState({ way: "line", width: 900, risers: 15, turn: "landing", build: "slab", rails: "none" });
});

describe("a stair", () => {
  it("is drawn along a line, and ends where the last point is clicked again", async () => {
    for (const p of [[0, 0], [2450, 0], [2450, 2200]] as XY[]) await click(p); // biome-ignore format: one line
    expect(pointsNow()).toHaveLength(3);
    await click([2450, 2200]);
    expect(sent()).toMatchObject({
      do: "add",
      type: "stair",
      values: { storey: STOREY, line: "0 0; 2450 0; 2450 2200", treads: "", risers: 15, width: 900, thickness: 150 },
    });
    expect(useDesk.getState().selected).toMatchObject({ type: "stair" });
    expect(pointsNow()).toHaveLength(0);
  });

  it("takes the risers that are drawn where it runs, once, and not over a number that was typed", async () => {
    useDesk.setState({ drawing: "drawing" });
    useNextStair.setState({ risers: null });
    server.risers = { risers: 13, goingMm: 248, from: [12, 0], to: [2988, 0] };
    await click([0, 20]);
    await click([3000, 0]);
    await Promise.all([click([3000, 0]), click([3000, 0])]);
    expect(server.sent).toHaveLength(1);
    expect(sent()?.values).toMatchObject({ risers: 13, line: "12 0; 2988 0" });
    useNextStair.setState({ risers: 16 });
    await click([0, 20]);
    await click([3000, 0]);
    await click([3000, 0]);
    expect(sent()?.values).toMatchObject({ risers: 16, line: "0 20; 3000 0" });
  });

  it("takes the risers of both flights beside a landing, each without the half of it, or none", async () => {
    useDesk.setState({ drawing: "drawing" });
    useNextStair.setState({ risers: null });
    server.risers = { risers: 7, goingMm: 250, from: [10, 0], to: [2000, 2000] };
    for (const p of [[0, 20], [2450, 0], [2450, 2200], [2450, 2200]] as XY[]) await click(p); // biome-ignore format: one line
    expect(sent()?.values).toMatchObject({ risers: 14, line: "10 0; 2450 0; 2000 2000", drawing: "drawing" });
    const asked = server.asked.filter((url) => url.pathname.endsWith("/risers")).map((url) => url.searchParams);
    expect(asked.map((q) => ["ax", "ay", "bx", "by"].map((k) => Math.round(Number(q.get(k)))))).toEqual([
      [0, 20, 2000, 4],
      [2450, 450, 2450, 2200],
    ]);
    server.risers = null;
    for (const p of [[0, 20], [2450, 0], [2450, 2200], [2450, 2200]] as XY[]) await click(p); // biome-ignore format: one line
    expect(sent()?.values).toMatchObject({ risers: 15, line: "0 20; 2450 0; 2450 2200" });
  });

  it("stands in a box from the corner at which it begins: one flight, or two where there is room for them", async () => {
    useNextStair.setState({ way: "box" });
    await click([1000, 0]);
    await click([0, 3500]);
    expect(sent()?.values).toMatchObject({ line: "500 0; 500 3500", width: 1000, turn: "landing" });
    await click([3500, 2000]);
    await click([0, 0]);
    expect(sent()?.values).toMatchObject({ line: "3500 1505; 495 1505; 495 495; 3500 495", width: 990 });
    expect(inBox([0, 0], [900, -3000], 900)).toEqual({ line: [[450, 0], [450, -3000]], width: 900 }); // biome-ignore format: one line
  });

  it("goes round a bend through three points: half a circle rises by its radius", async () => {
    useNextStair.setState({ way: "bend" });
    for (const p of [[0, 0], [1000, 1000], [2000, 0]] as XY[]) await click(p); // biome-ignore format: one line
    expect(sent()?.values?.line).toBe("0 0 1000; 2000 0");
  });

  it("is traced riser by riser, whichever end is clicked first, and has one riser more than treads", async () => {
    useNextStair.setState({ way: "risers" });
    const risers: XY[] = [[0, 0], [0, 900], [250, 900], [250, 0], [500, 0], [500, 900]]; // biome-ignore format: one line
    for (const p of risers) await click(p);
    await click([500, 900]);
    expect(sent()?.values).toMatchObject({
      line: "",
      treads: "0 0; 0 900; 250 900; 250 0|250 0; 250 900; 500 900; 500 0",
      risers: 3,
    });
  });

  it("has round edges where it is traced so: arcs of the circle that its risers' ends lie on", () => {
    const ends = (turn: number): XY[] => [500, 1500].map((r): XY => [r * Math.cos(turn), r * Math.sin(turn)]);
    const step = Math.PI / 13;
    const treads = treadsBetween(
      [0, 1, 2, 3].flatMap((k) => ends(k * step)),
      true,
    );
    const rises = treads.map((t) => t.split(";").map((p) => Number(p.trim().split(" ")[2] ?? 0)));
    const sagitta = (r: number) => r * (1 - Math.cos(step / 2));
    for (const [inner, outer, last, back] of rises) {
      expect([inner, last]).toEqual([0, 0]);
      // Outwards is to the right as one goes up to the left; the inner edge is walked back.
      expect(outer).toBeCloseTo(-sagitta(1500), 6);
      expect(back).toBeCloseTo(sagitta(500), 6);
    }
    expect(treadsBetween([[0, 0], [0, 900], [250, 0], [250, 900], [500, 0], [500, 900]], true)[0]).toBe("0 0; 0 900; 250 900; 250 0"); // biome-ignore format: one line
  });

  it("is not sent of one riser: it says what is missing", async () => {
    useNextStair.setState({ way: "risers" });
    for (const p of [[0, 0], [0, 900], [0, 900]] as XY[]) await click(p); // biome-ignore format: one line
    expect(server.sent).toHaveLength(0);
    expect(useProject.getState().trouble).toContain("two risers");
    expect(treadsBetween([[0, 0], [0, 900]])).toEqual([]); // biome-ignore format: one line
  });
});

describe("a stair that is there", () => {
  const values = { storey: STOREY, line: "0 0; 1000 0 -500; 2000 0", treads: "" };
  beforeEach(() => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [row("stair", "s", values)]) }));
    const ring = [[0, -450], [2000, -450], [2000, 450], [0, 450]]; // biome-ignore format: one line
    useShown.setState({ storey: STOREY, stairs: [{ id: "s", goesUp: true, rings: [ring] } as never] });
  });

  it("is found by its treads", () => {
    expect([stairAt([500, 100]), stairAt([500, 900])]).toEqual(["s", null]);
    expect(risersFor(STOREY)).toBe(15);
    expect(linePoints("s")).toEqual([[0, 0], [1000, 0], [2000, 0]]); // biome-ignore format: one line
  });

  it("goes as a whole where it is dragged; bends stay as they are", async () => {
    const whole = stairDrag("s", [500, 100], 50);
    whole?.move([500, 100], [600, 200], false);
    await whole?.drop();
    expect(sent()?.values).toEqual({ line: "100 100; 1100 100 -500; 2100 100" });
  });

  it("goes by one point of its line where that is held", async () => {
    const point = stairDrag("s", [2000, 0], 50);
    point?.move([2000, 0], [2500, 0], false);
    await point?.drop();
    expect(sent()?.values).toEqual({ line: "0 0; 1000 0 -500; 2500 0" });
    expect(placed("0 0; 1 1|2 2; 3 3", ([x, y]) => [x + 1, y])).toBe("1 0; 2 1|3 2; 4 3");
  });
});
