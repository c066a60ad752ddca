import { describe, expect, it } from "vitest";
import { besideQuarters, grouped, sureness } from "./numbers";

describe("numbers on the screen", () => {
  it("group digits by thin spaces", () => {
    expect(grouped(13200)).toBe("13\u2009200");
    expect(grouped(999)).toBe("999");
    expect(grouped(-1234567.89, 1)).toBe("−1\u2009234\u2009567.9");
  });

  it("says of nothing found that it is wholly sure, or not at all", () => {
    expect([0.003, 0.724, 0.9991].map(sureness)).toEqual(["1 %", "72 %", "99 %"]);
  });

  it("tell how a page is turned beside the quarters that make it upright", () => {
    expect(besideQuarters(178.6, 2)).toBeCloseTo(-1.4);
    expect(besideQuarters(-178.6, 2)).toBeCloseTo(1.4);
    expect(besideQuarters(-91.2, 3)).toBeCloseTo(-1.2);
    expect(besideQuarters(1.4, 0)).toBeCloseTo(1.4);
    expect(besideQuarters(180, 0)).toBe(180);
  });
});
