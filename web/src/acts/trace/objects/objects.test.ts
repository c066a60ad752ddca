import { describe, expect, it } from "vitest";
import { onObject, turnedBy } from "./objects";

describe("an object", () => {
  it("is turned about its middle, counter-clockwise, and back again", () => {
    const o = { x: 1000, y: 500, degrees: 90 };
    const [x, y] = onObject(o, [200, 0]);
    expect([Math.round(x), Math.round(y)]).toEqual([1000, 700]);
    const back = onObject({ x: 0, y: 0, degrees: -90 }, [x - o.x, y - o.y]);
    expect(back[0]).toBeCloseTo(200, 9);
    expect(back[1]).toBeCloseTo(0, 9);
  });

  it("goes round and is never turned by more than a whole turn", () => {
    expect([90, 90, 90, 90].reduce(turnedBy, 15)).toBe(15);
    expect(turnedBy(10, -30)).toBe(340);
  });
});
