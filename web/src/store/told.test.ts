import { describe, expect, it } from "vitest";
import type { State } from "../api/client";
import { EMPTY, page, progress, report, row } from "../testing/desk";
import { NOTHING_TOLD, taken } from "./told";
import { picturesAre } from "./work";

const state = (values: Partial<State>): State => ({ ...EMPTY, ...values });
const importing = (part: number) => progress({ kind: "import-page", about: "p", part });
const whole = taken(
  NOTHING_TOLD,
  state({ revision: 5, since: 0, rows: [row("node", "n", { x: 1, y: 2 }, 4), row("page", "p", { number: 1 }, 3)] }),
);

describe("an answer", () => {
  it("that comes late puts no row back, and takes none away", () => {
    const now = taken(whole, state({ revision: 8, since: 5, rows: [row("node", "n", { x: 3, y: 4 }, 8)] }));
    const late = state({ revision: 6, since: 5, rows: [row("node", "n", { x: 9, y: 9 }, 6)] });
    expect(taken(now, late)).toBe(now);
    const gone = state({ revision: 7, since: 5, removed: [{ type: "node", id: "n" }] });
    expect(taken(now, gone).rows.node.get("n")).toMatchObject({ x: 3, y: 4 });
  });

  it("that leaves out revisions before it is not taken for the whole of them", () => {
    const ahead = state({ revision: 9, since: 7, rows: [row("node", "n", { x: 3, y: 4 }, 9)] });
    expect(taken(whole, ahead)).toBe(whole);
  });

  it("that overlaps what is known is taken in", () => {
    const overlapping = state({ revision: 6, since: 2, rows: [row("node", "m", { x: 0, y: 0 }, 6)] });
    const now = taken(whole, overlapping);
    expect([now.revision, [...now.rows.node.keys()]]).toEqual([6, ["n", "m"]]);
  });

  it("without a change makes no row anew, whatever else it tells", () => {
    const now = taken(whole, state({ revision: 5, since: 5, role: "read", work: [importing(0.4)] }));
    expect(now.rows).toBe(whole.rows);
    expect(now.fits).toBe(whole.fits);
    expect([now.role, now.work.get("import-page p")?.part]).toEqual(["read", 0.4]);
  });

  it("that brings nothing new changes no object, though it tells of everything once more", () => {
    const steps = { undo: { id: "u", title: "Trace a wall" }, redo: null };
    const again = { pages: [page("p")], fits: [report()], work: [importing(0.4)], steps };
    const now = taken(whole, state({ revision: 5, since: 5, ...again }));
    expect(taken(now, structuredClone(state({ revision: 5, since: 5, ...again })))).toBe(now);
  });

  it("without a change may tell a fit anew, once its ink was looked at; told again it is nothing new", () => {
    const known = taken(whole, state({ revision: 6, since: 5, fits: [report({ drawing: "a" })] }));
    const looked = state({ revision: 6, since: 6, fits: [report({ drawing: "a", plusMinusMmPer10m: 250 })] });
    const now = taken(known, looked);
    expect(now.fits.get("a")?.plusMinusMmPer10m).toBe(250);
    expect(now.rows).toBe(known.rows);
    expect(taken(now, structuredClone(looked)).fits).toBe(now.fits);
  });

  it("tells of the pages that came on; of the others what was known stands", () => {
    const pages = [page("p", { pictures: "" }), page("q")];
    const two = taken(whole, state({ revision: 5, since: 5, pages, work: [importing(0.4)] }));
    expect(["p", "q"].map((id) => picturesAre(two, id))).toEqual(["working", "ready"]);
    const read = [{ ...importing(1), state: "done" as const }];
    const now = taken(two, state({ revision: 5, since: 5, pages: [page("p")], work: read }));
    expect(["p", "q"].map((id) => picturesAre(now, id))).toEqual(["ready", "ready"]);
    const gone = taken(now, state({ revision: 6, since: 5, removed: [{ type: "page", id: "p" }] }));
    expect([...gone.pages.keys()], "one that was removed is told of no more").toEqual(["q"]);
  });

  it("of the whole project leaves nothing of what was known before", () => {
    const now = taken(whole, state({ revision: 5, since: 5, work: [importing(0.4)] }));
    const anew = taken(now, state({ revision: 2000, since: 0, rows: [row("node", "k", { x: 3 }, 1999)] }));
    expect([anew.revision, anew.work.size, [...anew.rows.node.keys()], anew.rows.page.size]).toEqual([
      2000,
      0,
      ["k"],
      0,
    ]);
  });

  it("that tells of work as it was known makes no object anew", () => {
    const now = taken(whole, state({ revision: 5, since: 5, work: [importing(0.4)] }));
    expect(taken(now, state({ revision: 5, since: 5, work: [importing(0.4)] })).work).toBe(now.work);
    const on = taken(now, state({ revision: 5, since: 5, work: [importing(0.7)] }));
    expect(on.work.get("import-page p")?.part).toBe(0.7);
  });

  it("says of a page whose pictures failed, or were stopped, that they did, whatever there was before", () => {
    for (const how of ["failed", "stopped"] as const) {
      const work = [{ ...importing(0), state: how }];
      expect(picturesAre(taken(whole, state({ revision: 5, since: 5, pages: [page("p")], work })), "p")).toBe(how);
    }
    expect(picturesAre(whole, "p"), "nobody has asked for them").toBe("missing");
  });

  it("keeps fits of drawings that it does not tell of", () => {
    const first = taken(whole, state({ revision: 6, since: 5, fits: [report({ drawing: "a", scale: 50 })] }));
    const second = taken(first, state({ revision: 7, since: 6, fits: [report({ drawing: "b", scale: 20 })] }));
    expect([...second.fits.values()].map((f) => [f.drawing, f.scale])).toEqual([
      ["a", 50],
      ["b", 20],
    ]);
    const third = taken(second, state({ revision: 8, since: 7 }));
    expect(third.fits).toBe(second.fits);
  });
});

describe("a project of several storeys", () => {
  const storeys = [row("storey", "g", { name: "Ground" }), row("storey", "u", { name: "Upper" })];
  const shapes = (storey: string, whole: boolean, walls: string[]) => ({
    ...{ storey, whole, areas: { grossFloorM2: 0, netFloorM2: 0, structureM2: 0 } },
    removed: { walls: [], regions: [], unplaced: [] },
    ...{ walls: walls.map((id) => ({ id, findings: [] }) as never), regions: [], unplaced: [] },
  });
  const first = taken(
    NOTHING_TOLD,
    state({
      revision: 5,
      since: 0,
      storeys: ["g"],
      rows: [...storeys, row("node", "n", { x: 1 })],
      derived: [shapes("g", true, [])],
    }),
  );

  it("begins with one, and the others are known to be missing", () => {
    expect([...first.missing]).toEqual(["u"]);
    expect([...first.derived.keys()]).toEqual(["g"]);
    expect(whole.missing.size, "of all that were told none is").toBe(0);
  });

  it("takes no part of a storey for the whole of it", () => {
    const told = { revision: 6, since: 5, storeys: [], rows: [row("node", "m", { x: 2 }, 6)] };
    const now = taken(first, state({ ...told, derived: [shapes("u", false, ["w"])] }));
    expect([...now.derived.keys()]).toEqual(["g"]);
    const there = { revision: 6, since: 6, storeys: ["u"], rows: [row("node", "k", { x: 3 }, 4)] };
    const full = taken(now, state({ ...there, derived: [shapes("u", true, ["v", "w"])] }));
    expect(full.missing.size, "though nothing has changed").toBe(0);
    expect([...full.rows.node.keys()]).toEqual(["n", "m", "k"]);
    expect([...(full.derived.get("u")?.walls.keys() ?? [])]).toEqual(["v", "w"]);
  });

  it("asks again for a storey that was told too late", () => {
    const now = taken(first, state({ revision: 7, since: 5, storeys: [] }));
    const late = state({ revision: 6, since: 5, storeys: ["u"], rows: [row("node", "gone", { x: 3 }, 4)] });
    expect(taken(now, late)).toBe(now);
    expect([...now.missing]).toEqual(["u"]);
  });

  it("waits for no storey that has gone", () => {
    const gone = state({ revision: 6, since: 5, storeys: [], removed: [{ type: "storey", id: "u" }] });
    expect(taken(first, gone).missing.size).toBe(0);
  });
});
