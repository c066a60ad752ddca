import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { Progress, Schemas } from "../api/client";
import { apply, inverse, type Map2, mapOf, type PageMap } from "../geometry/maps";
import { DRAWING, json, presentProject, progress, row } from "../testing/desk";
import { useProject } from "./project";
import { startStraightening } from "./rectified";
import { noRows, withRows } from "./rows";
import { lies, type Rectified } from "./straightened";
import { withWork } from "./work";

const FIT = { m00: 5, m01: 0, m02: 0, m10: 0, m11: -5, m12: 9000, m20: 1e-5, m21: -4e-5, m22: 1 };
const PICTURE: Map2 = [4.8, 0, 120, 0, -4.8, 8800];

const picture = (under: PageMap): Rectified => ({ shape: "s", width: 2000, height: 1500, pixelToMm: PICTURE, under });

describe("a straightened picture", () => {
  it("lies where it was told while the fit stays", () => {
    for (const [i, v] of lies(picture(mapOf(FIT)), mapOf(FIT)).entries()) expect(v).toBeCloseTo(PICTURE[i] ?? 0, 6);
  });

  it("moves, turns and scales with its drawing at once, without a new picture", () => {
    const [c, s, k] = [Math.cos(0.3), Math.sin(0.3), 1.02];
    const m = (a: number, b: number, g: number) => ({
      x: k * (c * a - s * b) + 500 * g,
      y: k * (s * a + c * b) - 40 * g,
    });
    const moved = mapOf({
      ...FIT,
      m00: m(5, 0, 1e-5).x,
      m10: m(5, 0, 1e-5).y,
      m01: m(0, -5, -4e-5).x,
      m11: m(0, -5, -4e-5).y,
      m02: m(0, 9000, 1).x,
      m12: m(0, 9000, 1).y,
    });
    const now = lies(picture(mapOf(FIT)), moved);
    for (const p of [
      [0, 0],
      [1900, 1400],
      [1000, 20],
    ] as const) {
      const page = apply(inverse(mapOf(FIT)), apply(PICTURE, p));
      const [x, y] = apply(moved, page);
      expect(apply(now, p)[0]).toBeCloseTo(x, 5);
      expect(apply(now, p)[1]).toBeCloseTo(y, 5);
    }
  });
});

describe("the straightened picture of a photograph", () => {
  let asked: string[];
  let there: Schemas["Rectified"]["picture"];
  let stop: () => void;
  const told = (fit: Partial<typeof FIT>, work: Partial<Progress> | null, role: Schemas["Role"] = "owner") => {
    const rows = withRows(noRows(), [row("fit", DRAWING, { ...FIT, ...fit })]);
    const known = work ? [progress({ kind: "rectify-drawing", about: DRAWING, ...work })] : [];
    useProject.setState({ rows, work: withWork(new Map(), known), role });
  };
  const looked = () => new Promise((done) => setTimeout(done, 5));

  beforeEach(() => {
    asked = [];
    there = null;
    vi.stubGlobal("document", { visibilityState: "visible" });
    vi.stubGlobal("fetch", (request: Request) => {
      asked.push(`${request.method} ${new URL(request.url).pathname.split("/").slice(4).join("/")}`);
      return Promise.resolve(
        request.method === "GET"
          ? json({ shape: "s", picture: there })
          : json(progress({ kind: "rectify-drawing", about: DRAWING, state: "waiting", part: 0 }), 202),
      );
    });
    presentProject("p", "a", { revision: 1 });
    stop = startStraightening();
  });
  afterEach(() => {
    stop();
    vi.unstubAllGlobals();
  });
  const LOOK = `GET drawings/${DRAWING}/rectified`;
  const ASK = `POST jobs/rectify-drawing/${DRAWING}`;

  it("is asked for once where it is not there, and fetched when it is", async () => {
    told({}, null);
    await looked();
    expect(asked).toEqual([LOOK, ASK]);
    told({}, { state: "working" });
    await looked();
    expect(asked, "while it is made nobody asks").toHaveLength(2);
    there = { width: 2000, height: 1500, pixelToMm: [...PICTURE] };
    told({}, { state: "done", part: 1 });
    await looked();
    expect(asked.slice(2)).toEqual([LOOK]);
    expect(useProject.getState().rectified.get(DRAWING)?.shape).toBe("s");
  });

  it("is not begun again by itself where somebody stopped it or it failed, until the fit is another", async () => {
    const rows = withRows(noRows(), [row("fit", DRAWING, FIT)]);
    for (const state of ["stopped", "failed"] as const) {
      asked = [];
      const work = withWork(new Map(), [progress({ kind: "rectify-drawing", about: DRAWING, state })]);
      useProject.setState({ rows, work });
      await looked();
      expect(asked).not.toContain(ASK);
    }
    told({ m20: 3e-5 }, { state: "failed" });
    await looked();
    expect(asked).toContain(ASK);
  });

  it("is looked at and not asked for by who only reads", async () => {
    told({ m20: 5e-5 }, null, "read");
    await looked();
    expect(asked).toEqual([LOOK]);
  });
});
