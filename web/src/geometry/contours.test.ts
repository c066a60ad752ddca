import { describe, expect, it } from "vitest";
import { contours } from "./contours";

describe("lines of equal value", () => {
  it("of a plane are straight and lie where the value is", () => {
    const values = [0, 1, 2, 3].flatMap(() => [0, 10, 20, 30]);
    const [line] = contours(values, 4, 4, [15]);
    expect(line?.lines).toHaveLength(3);
    for (const [p, q] of line?.lines ?? []) expect([p[0], q[0]]).toEqual([1.5, 1.5]);
  });

  it("round a peak close", () => {
    const values = [0, 0, 0, 0, 9, 0, 0, 0, 0];
    const [line] = contours(values, 3, 3, [4.5]);
    const ends = (line?.lines ?? []).flat().map((p) => p.join());
    expect(line?.lines).toHaveLength(4);
    for (const end of ends) expect(ends.filter((e) => e === end)).toHaveLength(2);
  });
});
