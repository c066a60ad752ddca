import { describe, expect, it } from "vitest";
import type { PageMade } from "../../api/client";
import { noRows, withRows } from "../../store/rows";
import { row } from "../../testing/desk";
import { lying, wayUpWords, wrongWayUp } from "./wayUp";

const drawing = (id: string, page: string, turns: number) => row("drawing", id, { page, turns, name: id });
const made = (turns: number, sure: boolean): PageMade => ({ made: { wayUp: { turns, sure } } }) as PageMade;

describe("which way up a page lies", () => {
  const rows = withRows(noRows(), [
    drawing("over", "p", 0),
    drawing("also", "q", 0),
    drawing("turned", "r", 2),
    drawing("unsure", "s", 0),
    drawing("unread", "t", 0),
  ]);
  const pages = new Map([
    ["p", made(2, true)],
    ["q", made(3, true)],
    ["r", made(1, true)],
    ["s", made(2, false)],
  ]);

  it("is proposed where the writing is plain and nobody has turned it", () => {
    expect(wrongWayUp(rows, pages).map((w) => [w.drawing.id, w.turns])).toEqual([
      ["over", 2],
      ["also", 3],
    ]);
    expect(wrongWayUp(rows, new Map([["p", made(0, true)]]))).toEqual([]);
  });

  it("is said in words for one page and for several", () => {
    const [over, also] = wrongWayUp(rows, pages);
    if (!over || !also) throw new Error("two lie the wrong way");
    expect(lying([over])).toBe("By its writing this page lies upside down.");
    expect(lying([also])).toBe("By its writing this page lies on its side.");
    expect(lying([over, also])).toBe("By their writing 2 pages lie the wrong way up.");
  });

  it("says of one page what its writing says, and nothing before it was asked", () => {
    expect(wayUpWords(undefined, 0)).toBeNull();
    expect(wayUpWords(null, 0)).toContain("does not say");
    expect(wayUpWords({ turns: 2, sure: false }, 0)).toContain("does not say");
    expect(wayUpWords({ turns: 2, sure: true }, 0)).toBeNull();
    expect(wayUpWords({ turns: 2, sure: true }, 1)).toContain("another way up");
    expect(wayUpWords({ turns: 2, sure: true }, 2)).toContain("right way up");
  });
});
