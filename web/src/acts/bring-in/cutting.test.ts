import { afterEach, describe, expect, it } from "vitest";
import type { PageMade } from "../../api/client";
import { clearDraft, drafted, useDesk } from "../../board/desk";
import { useProject } from "../../store/project";
import { noRows, type Rows, withRows } from "../../store/rows";
import { type Looked, row } from "../../testing/desk";
import { addBox, type Cutting, cutOperations, dropBox, moveBox, nameByTitles, setBox, titled } from "./cutting";
import { size, statement, storage } from "./removal";

const shows = { fade: 0.5, turns: 1, inkOnly: false, tint: "ink" as const, before: false, order: 4, hidden: false };
const drawing = (id: string, values: object) =>
  row("drawing", id, {
    ...{ page: "p", storey: "s", side: null, name: id, kind: "plan", left: 0, top: 0, width: 1000, height: 800 },
    ...shows,
    ...values,
  });
const rows: Rows = withRows(noRows(), [
  row("source", "q", { name: "sheet.png", sha256: "abc", bytes: 5000 }),
  row("page", "p", { source: "q", number: 1, width: 1000, height: 800, replaces: null }),
  drawing("d1", {}),
  drawing("d2", { left: 500, width: 500 }),
]);
const box = {
  drawing: "d1",
  left: 10,
  top: 20,
  width: 400,
  height: 300,
  name: "Ground",
  kind: "plan",
  place: { storey: "s" },
} as const;
const cutting = (...boxes: Cutting["boxes"]): Cutting => ({ page: "p", boxes, focused: 0 });

const cut = (...given: Parameters<typeof cutOperations>) => {
  const { operations, first } = cutOperations(...given);
  return { operations: operations as Looked[], first };
};

describe("cutting a page", () => {
  afterEach(clearDraft);

  it("keeps drawings that are there, makes those that are new, removes those without a box", () => {
    const { operations, first } = cut(
      rows,
      cutting({ ...box }, { ...box, drawing: null, name: "South", kind: "elevation", place: { newSide: "South" } }),
    );
    expect(first).toBe("d1");
    expect(operations.map((o) => [o.do, o.type])).toEqual([
      ["add", "side"],
      ["set", "drawing"],
      ["add", "drawing"],
      ["remove", "drawing"],
    ]);
    expect(operations[1]?.values).toMatchObject({ left: 10, width: 400, storey: "s", side: null });
    // The new one is turned and faded like the page it is cut from, lies on top, and stands on its own side.
    expect(operations[2]?.values).toMatchObject({
      page: "p",
      turns: 1,
      fade: 0.5,
      order: 5,
      storey: null,
      side: operations[0]?.id,
    });
    expect(operations[3]?.id).toBe("d2");
  });

  it("names and places boxes by the titles in them", () => {
    const titles = [
      {
        words: "Upper floor plan",
        kind: "plan",
        storey: "First floor",
        level: 1,
        side: null,
        box: [100, 280, 200, 300],
      },
      {
        words: "Front elevation",
        kind: "elevation",
        storey: null,
        level: null,
        side: "Front",
        box: [600, 650, 700, 670],
      },
    ];
    useProject.setState({
      rows,
      pages: new Map([["p", { page: "p", made: { cuts: [], titles } } as unknown as PageMade]]),
    });
    useDesk.setState({
      draft: { of: "cut", ...cutting({ ...box }, { ...box, drawing: null, left: 500, top: 400, name: "b" }) },
    });
    nameByTitles();
    expect(drafted("cut")?.boxes).toMatchObject([
      { name: "Upper floor plan", kind: "plan", place: { newStorey: "First floor", level: 1 } },
      { name: "Front elevation", kind: "elevation", place: { newSide: "Front" } },
    ]);
    const told = drafted("cut");
    expect(told && titled(useProject.getState(), told), "said once").toEqual([{}, {}]);
    useProject.setState({ pages: new Map() });
  });

  it("keeps every box on the page, whatever is dragged", () => {
    useProject.setState({ rows });
    useDesk.setState({ draft: { of: "cut", ...cutting({ ...box }) } });
    moveBox(0, "all", 5000, -5000);
    expect(drafted("cut")?.boxes[0]).toMatchObject({ left: 600, top: 0, width: 400, height: 300 });
    moveBox(0, "nw", -100, 50);
    expect(drafted("cut")?.boxes[0]).toMatchObject({ left: 500, top: 50, width: 500, height: 250 });
    moveBox(0, "e", -490, 0);
    expect(drafted("cut")?.boxes[0]?.width, "Not narrower than can be gripped.").toBe(500);
    setBox(0, { name: "Loft" });
    addBox();
    expect(drafted("cut")?.boxes.map((b) => b.name)).toEqual(["Loft", "Drawing 2"]);
    dropBox(1);
    dropBox(0);
    expect(drafted("cut")?.boxes, "A page keeps one drawing.").toHaveLength(1);
  });
});

describe("keeping house", () => {
  it("says what goes with a source and what stays", () => {
    const more = withRows(rows, [
      row("knownLength", "l", { drawing: "d1" }),
      row("node", "n", { drawing: "d1" }),
      row("node", "m", { drawing: "d1" }),
      row("wall", "w", { fromNode: "n", toNode: "m" }),
      row("room", "r", { drawing: "other" }),
    ]);
    expect(statement(more, { source: "q" })).toEqual({
      goes: "1 page, 2 drawings and 1 known length",
      stays: "1 wall traced over it",
    });
    expect(statement(more, { drawing: "d2" })).toEqual({ goes: "this drawing alone", stays: "" });
  });

  it("counts the same bytes once", () => {
    const source = rows.source.get("q");
    const twice = source ? [source, { ...source, id: "z" }] : [];
    expect(storage(twice, [{ made: { bytes: 700 } }, { made: null }])).toEqual({ files: 1, bytes: 5000, made: 700 });
    expect([size(12), size(12_000), size(1_234_000), size(98_700_000)]).toEqual([
      "12 bytes",
      "12 kB",
      "1.2 MB",
      "99 MB",
    ]);
  });
});
