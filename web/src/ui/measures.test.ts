import { afterEach, describe, expect, it } from "vitest";
import {
  area,
  bearing,
  difference,
  fine,
  height,
  inWords,
  onRule,
  overSpan,
  plusMinus,
  plusMinusBeside,
  ruleStep,
  said,
  showIn,
  typedAs,
  unitWord,
  written,
  yardstick,
} from "./measures";

afterEach(() => showIn("mm"));

describe("sizes in the project's own unit", () => {
  it.each([
    ["mm", "4\u2009375", "4\u2009375 mm", "4375 mm"],
    ["cm", "437.5", "437.5 cm", "437.5 cm"],
    ["m", "4.375", "4.375 m", "4.375 m"],
    ["ft", "14.35'", "14.35'", "14.354 ft"],
    ["in", '172.24"', '172.24"', "172.24 in"],
    ["ft-in/2", "14'-4\"", "14'-4\"", "14'-4\""],
    ["ft-in/64", "14'-4 1/4\"", "14'-4 1/4\"", "14'-4 1/4\""],
  ] as const)("stand on a plan, in a sentence and in a field: %s", (unit, plan, sentence, field) => {
    showIn(unit);
    expect([written(4375), inWords(4375), typedAs(4375)]).toEqual([plan, sentence, field]);
  });

  it("in feet and inches are in lowest terms, and carry over at twelve", () => {
    showIn("ft-in/16");
    expect([0, 12.7, 25.4, 300, 304.8, 914.4, 2133.5, -38.1].map(written)).toEqual([
      '0"',
      '1/2"',
      '1"',
      '11 13/16"',
      "1'-0\"",
      "3'-0\"",
      "7'-0\"",
      '−1 1/2"',
    ]);
  });

  it("never round a difference away, in any of them", () => {
    expect([0.4, -1.64, 101.2, 0].map(difference)).toEqual(["+0.4", "−1.6", "+101", "0.0"]);
    showIn("ft-in/16");
    expect([0.4, -1.64, 101.2, 0].map(difference)).toEqual(['+0.02"', '−0.06"', '+3.98"', '0.00"']);
    showIn("m");
    expect(difference(0.4)).toBe("+0.0004");
  });

  it("show ± with a digit more below ten millimetres, and never as enough what is not", () => {
    expect([plusMinus(8.66), plusMinus(14.2)]).toEqual(["±8.7", "±14"]);
    expect([20.3, 20, 19.7, 24.2].map((mm) => plusMinusBeside(mm, 20))).toEqual(["±20.3", "±20", "±20", "±24"]);
    expect(`${plusMinus(14.2)}${unitWord()} over ${overSpan()}`).toBe("±14 mm over 10 m");
    showIn("ft-in/8");
    expect(`${plusMinus(14.2)}${unitWord()} over ${overSpan()}`).toBe('±0.56" over 33 ft');
    expect([300, 11226.8].map((mm) => fine(mm, 1))).toEqual(['11.8"', "36'-10.00\""]);
  });

  it("tell areas and heights", () => {
    expect([area(16.987), height(5490), height(-150), height(0)]).toEqual(["16.99 m²", "+5\u2009490", "−150", "±0"]);
    showIn("ft-in/16");
    // 1 ft² is 0.09290304 m² (NIST SP 811, appendix B, from memory).
    expect([area(9.290304), height(3048)]).toEqual(["100.0 ft²", "+10'-0\""]);
  });

  it("go along rulers in round steps", () => {
    expect([ruleStep(0.1, 46), onRule(2500, 500), yardstick(500)]).toEqual([500, "2.5", "50 cm"]);
    showIn("ft-in/16");
    expect(ruleStep(0.1, 46)).toBeCloseTo(2 * 304.8);
    expect([onRule(3048, 609.6), onRule(914.4 + 152.4, 152.4), yardstick(609.6), yardstick(76.2)]).toEqual([
      "10",
      "3.5",
      "2 ft",
      "3 in",
    ]);
  });

  it("stand in messages in place of what was computed, and leave what was typed", () => {
    const told = "A length across the drawing would bring ±12\u202fmm to ±8.4\u202fmm over 10 m; Store 300 mm stays.";
    expect(said(told)).toBe("A length across the drawing would bring ±12 mm to ±8.4 mm over 10 m; Store 300 mm stays.");
    showIn("ft-in/16");
    expect(said(told)).toBe('A length across the drawing would bring ±0.47" to ±0.33" over 33 ft; Store 300 mm stays.');
    expect(said("It reads 4375\u202fmm.")).toBe("It reads 14'-4 1/4\".");
  });
});

it("areas are in square metres or square feet, whatever lengths are in", () => {
  showIn("mm");
  expect(area(9.290304)).toBe("9.29 m²");
  showIn("mm", "ft2");
  expect(area(9.290304)).toBe("100.0 ft²");
  showIn("ft-in/16", "m2");
  expect(area(9.290304)).toBe("9.29 m²");
});

it("writes a bearing in degrees, minutes and seconds, and no thirds of them", () => {
  expect([97.30277777777778, 0, 359.99999, 8.5].map(bearing)).toEqual([
    "97°18'10\"",
    "0°00'00\"",
    "0°00'00\"",
    "8°30'00\"",
  ]);
});
