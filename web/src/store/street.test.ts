import { expect, it } from "vitest";
import { row } from "../testing/desk";
import { noRows, withRows } from "./rows";
import { partAt, streetParts } from "./street";

const part = (id: string, order: number, fromX: number, toX: number, rise = 0) =>
  row("streetPart", id, { street: "row", side: id, order, fromX, toX, rise });
const rows = withRows(noRows(), [
  part("second", 2, 1000, 5000, -250),
  part("first", 1, 200, 6200),
  row("streetPart", "other", { street: "another", side: "x", order: 0, fromX: 0, toX: 1, rise: 0 }),
]);

it("joins sides from the left, each at the corner of the one before, lifted to the zero of the row", () => {
  const parts = streetParts(rows, "row");
  expect(parts.map((p) => [p.part.id, p.left, p.right])).toEqual([
    ["first", 0, 6000],
    ["second", 6000, 10_000],
  ]);
  // The left end of a stretch is seen at its corner in the row: 1 000 of the second at 6 000, 250 lower.
  expect(parts.map((p) => p.by)).toEqual([
    [-200, 0],
    [5000, -250],
  ]);
});

it("is the same list until a part changes, and none where a side is no row of others", () => {
  expect(streetParts(rows, "row")).toBe(streetParts(rows, "row"));
  expect(streetParts(withRows(rows, [part("first", 1, 200, 5200)]), "row")[1]?.left).toBe(5000);
  expect(streetParts(rows, "first")).toHaveLength(0);
  expect(streetParts(rows, null)).toHaveLength(0);
});

it("finds the part at a place, at a shared corner the right one, beyond the ends the nearest", () => {
  const parts = streetParts(rows, "row");
  const at = (x: number) => partAt(parts, x)?.part.id;
  expect([at(-100), at(5999), at(6000), at(99_000)]).toEqual(["first", "first", "second", "second"]);
  expect(partAt([], 0)).toBeUndefined();
});
