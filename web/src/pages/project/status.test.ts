import { describe, expect, it } from "vitest";
import { testedPlusMinus } from "../../store/fits";
import { type ProjectState, useProject } from "../../store/project";
import { noRows, withRows } from "../../store/rows";
import { withWork } from "../../store/work";
import { page, progress, report, row } from "../../testing/desk";
import { count } from "../../ui/numbers";
import { isDone, statusOf } from "./status";

const DESK = { drawing: "d", storey: "s", side: null };
const empty: ProjectState = { ...useProject.getState(), rows: noRows() };

function fitted(plusMinusMmPer10m: number | null, turn = true): ProjectState {
  const fit = report({
    plusMinusMmPer10m,
    determined: { scale: plusMinusMmPer10m !== null, turn, place: false },
  });
  return { ...empty, fits: new Map([["d", fit]]) };
}

describe("the step rail", () => {
  it("says what there is before anything was done", () => {
    expect(statusOf("bring-in", empty, DESK)).toBe("nothing yet");
    expect(statusOf("true-up", empty, DESK)).toBe("nothing to true up yet");
    expect(statusOf("trace", empty, DESK)).toBe("nothing yet");
    expect(statusOf("prove", empty, DESK)).toBe("no check length yet");
    expect(statusOf("hand-over", empty, DESK)).toBe("ready when you are");
  });

  it("judges ± by what the project is for", () => {
    expect(statusOf("true-up", fitted(null), DESK)).toBe("scale is a guess");
    expect(statusOf("true-up", fitted(14.2), DESK)).toBe("±14 mm over 10 m, good enough");
    expect(statusOf("true-up", { ...fitted(14.2), tolerance: 5 }, DESK)).toBe("±14 mm over 10 m, not yet enough");
    const oneWay = report({
      plusMinusMmPer10m: 14.2,
      advice: [{ code: "other-direction", message: "", from: [0, 0], to: [0, 0] }],
    });
    expect(statusOf("true-up", { ...empty, fits: new Map([["d", oneWay]]) }, DESK)).toBe(
      "±14 mm over 10 m, one way only",
    );
    // Until something tests the depth, its ± is what is known of copies; the way that was measured is told.
    const untested = report({ plusMinusMmPer10m: 252, plusMinusAlong: { x: 14.2, y: 250 }, untested: "y" });
    expect(statusOf("true-up", { ...empty, fits: new Map([["d", untested]]) }, DESK)).toBe(
      "±14 mm over 10 m, one way only",
    );
    expect(isDone("true-up", { ...empty, fits: new Map([["d", untested]]) }, DESK)).toBe(false);
    expect(testedPlusMinus(untested)).toEqual({ mm: 14.2, along: "x" });
    expect(testedPlusMinus(report({ plusMinusMmPer10m: 12 }))).toEqual({ mm: 12, along: null });
    expect(isDone("true-up", fitted(14.2), DESK)).toBe(true);
    expect(isDone("true-up", fitted(14.2, false), DESK)).toBe(false);
    expect(isDone("true-up", fitted(null), DESK)).toBe(false);
  });

  it("tells of a side what is marked and traced on it", () => {
    const side = { drawing: "d", storey: null, side: "south" };
    expect(statusOf("trace", empty, side)).toBe("nothing yet");
    const levels = [{ id: "a", heightMm: 0, statedMm: 0, plusMinusMm: 0 }];
    const rows = withRows(empty.rows, [row("outline", "o", { side: "south", name: "Face" })]);
    const marked = { ...empty, rows, fits: new Map([["d", report({ levels })]]) };
    expect(statusOf("trace", marked, side)).toBe("1 level, 1 outline");
  });

  it("counts pages while they are being read", () => {
    const rows = withRows(noRows(), [
      row("page", "p", { source: "x", number: 1, width: 1, height: 1, resolution: null }),
    ]);
    const pages = new Map([["p", page("p", { pictures: "" })]]);
    const importing = progress({ kind: "import-page", about: "p" });
    const reading: ProjectState = { ...empty, rows, pages, work: withWork(new Map(), [importing]) };
    expect(statusOf("bring-in", reading, DESK)).toBe("1 being read");
    expect(isDone("bring-in", reading, DESK)).toBe(false);
    const read = withWork(reading.work, [{ ...importing, state: "done" }]);
    const ready: ProjectState = { ...reading, work: read, pages: new Map([["p", page("p")]]) };
    expect(statusOf("bring-in", ready, DESK)).toBe("1 page");
    expect(isDone("bring-in", ready, DESK)).toBe(true);
  });

  it("counts boundaries where nothing else is traced, and the check lengths of this storey alone", () => {
    const boundary = (id: string, storey: string) => row("boundary", id, { storey, x: 0, y: 0 });
    const rows = withRows(empty.rows, [boundary("a", "s"), boundary("b", "s"), boundary("c", "upper")]);
    expect(statusOf("trace", { ...empty, rows }, DESK)).toBe("2 boundaries");
    const drawing = (id: string, storey: string) => row("drawing", id, { storey, side: null });
    const check = (id: string, of: string) => row("knownLength", id, { drawing: of, heldOut: true });
    const checked = withRows(empty.rows, [drawing("d", "s"), drawing("e", "upper"), check("k", "d"), check("l", "e")]);
    expect(statusOf("prove", { ...empty, rows: checked }, DESK)).toBe("1 check length");
  });

  it("says nothing of a storey that is still to come", () => {
    const coming: ProjectState = { ...empty, missing: new Set([DESK.storey]) };
    expect([statusOf("trace", coming, DESK), statusOf("prove", coming, DESK)]).toEqual(["is loading", "is loading"]);
    expect(statusOf("trace", empty, DESK)).toBe("nothing yet");
  });

  it("puts words into the plural", () => {
    expect([count(0, "wall"), count(1, "wall"), count(2, "wall")]).toEqual(["0 walls", "1 wall", "2 walls"]);
  });
});
