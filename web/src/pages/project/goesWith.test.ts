import { expect, it } from "vitest";
import { noRows, withRows } from "../../store/rows";
import { row } from "../../testing/desk";
import { goesWith } from "./goesWith";

it("what goes with a storey is counted by kind, and what lies elsewhere is not", () => {
  const rows = withRows(noRows(), [
    row("wall", "w", { storey: "s" }),
    row("wall", "v", { storey: "other" }),
    row("opening", "o", { wall: "w" }),
    row("opening", "p", { wall: "w" }),
    row("opening", "q", { wall: "v" }),
    row("note", "n", { storey: "s" }),
    row("boundary", "b", { storey: "s" }),
  ]);
  expect(goesWith(rows, "s")).toBe("1 wall, 2 doors and windows, 1 note and its boundary");
  expect(goesWith(rows, "empty")).toBe("");
});
