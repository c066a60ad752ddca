import { describe, expect, it } from "vitest";
import type { Place3 } from "./camera";
import { apart, taken } from "./taking";

/** Seen straight from the front, 100 px for a metre. */
const seen = ([x, , z]: Place3) => [100 * x, -100 * z] as const;
const edges: readonly (readonly [Place3, Place3])[] = [
  [
    [0, 0, 0],
    [4, 0, 0],
  ],
  [
    [4, 0, 0],
    [4, 0, 2.5],
  ],
];

describe("what a hand points at in space", () => {
  it("is the corner where one is near, not the edges that meet there", () => {
    expect(taken([3.95, 0, 0.04], edges, seen)).toEqual({ at: [4, 0, 0], on: "corner" });
  });

  it("is the place on an edge that lies nearest, and never beyond its end", () => {
    expect(taken([2, 0, 0.05], edges, seen)).toEqual({ at: [2, 0, 0], on: "edge" });
    expect(taken([4.05, 0, 1], edges, seen)).toEqual({ at: [4, 0, 1], on: "edge" });
  });

  it("is the very place on a face where neither is near", () => {
    expect(taken([2, 0, 1], edges, seen)).toEqual({ at: [2, 0, 1], on: "face" });
  });

  it("is apart from another straight, level and up", () => {
    const { straight, level, up } = apart([0, 0, 0], [3, 4, -12]);
    expect([straight, level, up]).toEqual([13, 5, -12]);
  });
});
