// @vitest-environment happy-dom
import { expect, it } from "vitest";
import { chainOf, held, isOfChain, readSheet, readWindow, windowOf } from "./onSheet";

const SVG = `<?xml version="1.0"?><svg xmlns="http://www.w3.org/2000/svg" width="420mm" height="297mm" viewBox="0 0 420 297">
<g data-view="v1" data-box="100 50 220.5 180"><g><g><text x="150" y="170" font-size="3.5" text-anchor="middle" data-key="below.openings.1a2b">1500</text>
<text x="105" y="100" font-size="3.5" transform="rotate(-90 105 100)" data-key="inside.left.77.9c">3650</text><text x="1" y="2" font-size="3" data-left-out="חד">Hall</text><text x="1" y="2" font-size="3" data-left-out="ד🏠"></text></g></g></g>
<g data-view="v2" data-box=""><g/></g><g><text x="5" y="6" font-size="3">title</text></g></svg>`;

it("reads where views lie and where their figures stand off the sheet's own picture", () => {
  const on = readSheet(SVG);
  expect(on).toMatchObject({ width: 420, height: 297, leftOut: "חד🏠" });
  expect(on?.views.map((v) => [v.id, v.box])).toEqual([["v1", [100, 50, 220.5, 180]]]);
  const [level, upright] = on?.views[0]?.figures ?? [];
  expect(level).toMatchObject({ key: "below.openings.1a2b", chain: "below.openings", words: "1500" });
  expect(upright).toMatchObject({ chain: "inside.left.77", words: "3650" });
  const size = (box: readonly number[] = []) => [(box[2] ?? 0) - (box[0] ?? 0), (box[3] ?? 0) - (box[1] ?? 0)];
  const [wide, high] = size(level?.box);
  expect(wide).toBeGreaterThan(2 * (high ?? 0));
  const turned = size(upright?.box);
  expect(turned[0]).toBeCloseTo(high ?? 0, 9);
  expect(turned[1]).toBeCloseTo(wide ?? 0, 9);
  expect(readSheet("<svg xmlns='http://www.w3.org/2000/svg'/>")).toBeNull();
});

it("takes a room's name and area for one thing, and tells chains from stamps", () => {
  const stamp = (y: number, words: string) =>
    `<text x="50" y="${y}" font-size="5" text-anchor="middle" data-key="stamp.r">${words}</text>`;
  const on = readSheet(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 9 9"><g data-view="v" data-box="0 0 9 9">${stamp(20, "3 Hall")}${stamp(25, "23.09 m²")}<text x="30" y="9" font-size="5" data-key="level.s">±0.000</text></g></svg>`,
  );
  const [room, level] = on?.views[0]?.figures ?? [];
  expect(room?.words).toBe("3 Hall, 23.09 m²");
  expect([room?.box[1], room?.box[3]]).toEqual([20 - 5 * 0.72, 25]);
  expect(level?.box[0], "A level's words begin where they stand.").toBe(30);
  expect([
    isOfChain("stamp.r"),
    isOfChain("inside.left.1.2"),
    isOfChain("level.s"),
    isOfChain("above.rooms.1"),
  ]).toEqual([false, true, false, true]);
});

it("knows which chain a figure belongs to", () => {
  expect(chainOf("left.heights.00ff")).toBe("left.heights");
  expect(chainOf("below.overall.00ff.2")).toBe("below.overall");
  expect(chainOf("inside.below.aa.bb")).toBe("inside.below.aa");
});

it("holds a view level with others where it comes near, and nowhere else", () => {
  const others = [
    { x: 100, y: 200 },
    { x: 300, y: 80 },
  ];
  expect(held({ x: 90, y: 150 }, others, 9, 0, 2)).toEqual({ dx: 10, dy: 0, x: 100, y: null });
  expect(held({ x: 90, y: 150 }, others, 209, -71, 2)).toEqual({ dx: 210, dy: -70, x: 300, y: 80 });
  expect(held({ x: 90, y: 150 }, others, 50, 20, 2)).toEqual({ dx: 50, dy: 20, x: null, y: null });
  // Of two that are near it takes the nearer one.
  expect(
    held(
      { x: 0, y: 0 },
      [
        { x: 11, y: 50 },
        { x: 10, y: 90 },
      ],
      10.2,
      0,
      2,
    ).x,
  ).toBe(10);
});

it("reads a window as it is typed and writes it so that it can be typed again", () => {
  const all = { fromX: null, fromY: null, toX: null, toY: null };
  expect(readWindow("  ")).toEqual(all);
  expect(windowOf(all)).toBe("");
  const part = { fromX: -500, fromY: 0, toX: 2000.5, toY: 1500 };
  expect(readWindow("-500 0 – 2000.5 1500")).toEqual(part);
  expect(readWindow(windowOf(part))).toEqual(part);
  expect(readWindow("−500, 0; 2000.5, 1500"), "with the signs that a keyboard of another kind has").toEqual(part);
  for (const wrong of ["1 2 3", "0 0 – 0 100", "2000 0 – 100 100", "from here", "1 2 3 4 5"]) {
    expect(readWindow(wrong), wrong).toBeNull();
  }
});
