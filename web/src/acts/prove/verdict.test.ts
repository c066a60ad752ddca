import { describe, expect, it } from "vitest";
import { verdictOf } from "./verdict";

const nothing = { findings: 0, checksOff: 0, figures: 0, beside: 0, doubts: 0, checks: 1 };

describe("the verdict", () => {
  it("is one, of the worst: nothing is called right beside something that is not", () => {
    expect(verdictOf(nothing).title).toBe("Nothing found wrong");
    expect(verdictOf({ ...nothing, checks: 0 })).toEqual({
      title: "Not judged yet",
      words: "Nothing checks the fit from outside yet, so it cannot be judged.",
    });
    const { title, words } = verdictOf({ ...nothing, findings: 1, beside: 2, doubts: 1 });
    expect(title).toBe("4 things to look at");
    expect(words).toContain("1 finding, 2 walls beside the ink and 1 doubt.");
    expect(verdictOf({ ...nothing, checksOff: 1 }).title).toBe("1 thing to look at");
  });
});
