import { describe, expect, it } from "vitest";
import { tagsApart } from "./tags";

describe("tags on the board", () => {
  const tag = (id: string, x: number, weight: number) => ({ id, at: [x, 100] as const, text: "4 350", weight });

  it("never lie on each other, and what counts most is told", () => {
    expect([...tagsApart([tag("short", 100, 1), tag("long", 120, 5), tag("aside", 400, 0)])].sort()).toEqual([
      "aside",
      "long",
    ]);
  });

  it("are all told where there is room", () => {
    expect(tagsApart([tag("a", 100, 1), tag("b", 200, 1), tag("c", 300, 1)]).size).toBe(3);
  });
});
