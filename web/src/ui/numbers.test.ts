import { describe, expect, it } from "vitest";
import { area, besideQuarters, difference, grouped, plusMinus, plusMinusBeside, sureness } from "./numbers";

describe("numbers on the screen", () => {
  it("group digits by thin spaces", () => {
    expect(grouped(13200)).toBe("13\u2009200");
    expect(grouped(999)).toBe("999");
    expect(grouped(-1234567.89, 1)).toBe("−1\u2009234\u2009567.9");
  });

  it("never round a difference away", () => {
    expect(difference(0.4)).toBe("+0.4");
    expect(difference(-1.64)).toBe("−1.6");
    expect(difference(101.2)).toBe("+101");
    expect(difference(0)).toBe("0.0");
  });

  it("show ± with a decimal below ten", () => {
    expect(plusMinus(8.66)).toBe("±8.7");
    expect(plusMinus(14.2)).toBe("±14");
    expect(
      [20.3, 20, 19.7, 24.2].map((mm) => plusMinusBeside(mm, 20)),
      "what is not enough does not look it",
    ).toEqual(["±20.3", "±20", "±20", "±24"]);
    expect(area(16.987)).toBe("16.99 m²");
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
