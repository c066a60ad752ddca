import { describe, expect, it } from "vitest";
import { ahead, type Eye, eyeOf, type Place3, panned, turned, walked, whole, zoomed } from "./camera";

const EYE: Eye = { at: [3, 4, 1], distance: 20, turn: 0.7, tilt: 0.4 };

/** Which way a place is seen from an eye, as a unit of length. */
function seen(eye: Eye, place: Place3): readonly number[] {
  const from = eyeOf(eye);
  const way = [place[0] - from[0], place[1] - from[1], place[2] - from[2]];
  const length = Math.hypot(...way);
  return way.map((w) => w / length);
}

describe("the eye", () => {
  it("looks at what it is set on", () => {
    const way = ahead(EYE);
    seen(EYE, EYE.at).forEach((w, i) => {
      expect(w).toBeCloseTo(way[i] ?? 0, 12);
    });
    expect(Math.hypot(...way)).toBeCloseTo(1, 12);
    expect(ahead({ turn: 0, tilt: 0 })[1]).toBeCloseTo(1, 12);
  });

  it("zooms about a place that stays where it is seen", () => {
    const about: Place3 = [10, -2, 5];
    const before = seen(EYE, about);
    for (const factor of [0.5, 1.7]) {
      seen(zoomed(EYE, factor, about), about).forEach((w, i) => {
        expect(w).toBeCloseTo(before[i] ?? 0, 12);
      });
    }
  });

  it("never turns over, and never gets stuck in a place", () => {
    expect(turned(EYE, 0, 1e5).tilt).toBeLessThan(Math.PI / 2);
    expect(turned(EYE, 0, -1e5).tilt).toBeGreaterThan(-Math.PI / 2);
    expect(zoomed(EYE, 1e-9, [0, 0, 0]).distance).toBeGreaterThan(0);
  });

  it("pans across the way it looks", () => {
    const { at } = panned(EYE, 120, -35, 700);
    const [x, y, z] = ahead(EYE);
    expect((at[0] - EYE.at[0]) * x + (at[1] - EYE.at[1]) * y + (at[2] - EYE.at[2]) * z).toBeCloseTo(0, 9);
  });

  it("walks on the level, the way it looks", () => {
    const inside: Eye = { at: [0, 0, 1.6], distance: 0, turn: 0, tilt: 0.3 };
    expect(walked(inside, 2, 0).at).toEqual([0, 2, 1.6]);
    expect(walked(inside, 0, 1).at[0]).toBeCloseTo(1, 12);
    // A drag to the right brings what lies on the left.
    expect(turned(inside, 50, 0).turn).toBeGreaterThan(0);
  });

  it("sees all that lies in a box", () => {
    const [least, most]: [Place3, Place3] = [
      [0, 0, 0],
      [30, 12, 9],
    ];
    for (const aspect of [0.6, 1, 1.8]) {
      const eye = whole(least, most, aspect);
      const [x, y, z] = ahead(eye);
      for (const corner of [0, 1, 2, 3, 4, 5, 6, 7]) {
        const place = [0, 1, 2].map((i) => ((corner >> i) % 2 === 0 ? least[i] : most[i]) ?? 0) as unknown as Place3;
        const [u = 0, v = 0, w = 0] = seen(eye, place);
        expect(u * x + v * y + w * z).toBeGreaterThan(Math.cos((34 * Math.PI) / 180));
      }
    }
  });
});
