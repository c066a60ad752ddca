import { afterEach, describe, expect, it, vi } from "vitest";
import type { Picture } from "../store/drawings";
import { highestLevel, Images, levelFor, paintPicture } from "./picture";

describe("tile levels", () => {
  it("end where one tile holds the page", () => {
    expect(highestLevel(3307, 2339)).toBe(4);
    expect(highestLevel(256, 100)).toBe(0);
    expect(highestLevel(257, 100)).toBe(1);
    expect(highestLevel(9933, 7016)).toBe(6);
  });

  it("never show fewer pixels than the screen has, within a fifth", () => {
    for (const zoom of [0.05, 0.12, 0.25, 0.3, 0.5, 0.99, 1, 4]) {
      const level = levelFor(zoom, 4);
      expect(2 ** (level - 4)).toBeGreaterThanOrEqual(Math.min(1, zoom) * 0.8);
      expect(2 ** (level - 4)).toBeLessThanOrEqual(Math.max(zoom * 2, 1 / 16));
    }
  });
});

describe("tiles", () => {
  /** Pictures that come, or do not, when a test says so. */
  class Stub {
    static all: Stub[] = [];
    src = "";
    complete = false;
    naturalWidth = 0;
    onload = () => {};
    onerror = () => {};

    constructor() {
      Stub.all.push(this);
    }

    come(): void {
      [this.complete, this.naturalWidth] = [true, 256];
      this.onload();
    }
  }

  afterEach(() => {
    vi.useRealTimers();
    vi.unstubAllGlobals();
  });

  it("that did not come are asked for again, after pauses that grow", () => {
    vi.useFakeTimers();
    vi.stubGlobal("Image", Stub);
    Stub.all = [];
    const images = new Images();
    let heard = 0;
    images.onArrival(() => {
      heard++;
    });
    expect(images.get("t")).toBeNull();
    Stub.all[0]?.onerror();
    expect(images.get("t")).toBeNull();
    expect(Stub.all, "not at once").toHaveLength(1);
    vi.advanceTimersByTime(500);
    expect(heard, "the board is told to look again").toBe(1);
    images.get("t");
    expect(Stub.all).toHaveLength(2);
    Stub.all[1]?.onerror();
    vi.advanceTimersByTime(999);
    images.get("t");
    expect(Stub.all).toHaveLength(2);
    vi.advanceTimersByTime(1);
    images.get("t");
    Stub.all[2]?.come();
    expect(images.get("t")).toBe(Stub.all[2]);
    expect(Stub.all).toHaveLength(3);
  });

  it("that have come are asked for once, and go when many others have been wanted since", () => {
    vi.stubGlobal("Image", Stub);
    Stub.all = [];
    const images = new Images();
    images.get("first");
    Stub.all[0]?.come();
    for (let i = 0; i < 599; i++) images.get(`${i}`);
    expect(images.get("first")).toBe(Stub.all[0]);
    for (let i = 0; i < 600; i++) images.get(`more ${i}`);
    expect(images.get("first")).toBeNull();
  });
});

describe("sheets of tiles", () => {
  afterEach(() => vi.unstubAllGlobals());

  it("are put together once for each canvas: a lens that shows another part leaves the board's as it is", () => {
    let madeSheets = 0;
    const canvas = () => {
      const made: Record<string, unknown> = { width: 0, height: 0 };
      const still = () => {};
      const ctx = new Proxy(
        { canvas: made },
        { get: (o, key) => (key === "canvas" ? o.canvas : still), set: () => true },
      );
      made.getContext = () => ctx;
      return { made, ctx: ctx as unknown as CanvasRenderingContext2D };
    };
    vi.stubGlobal("document", {
      createElement: () => {
        madeSheets++;
        return canvas().made;
      },
    });
    vi.stubGlobal(
      "Image",
      class {
        complete = false;
      },
    );
    const whole = { left: 0, top: 0, width: 3307, height: 2339 };
    const page: Picture = {
      page: "p",
      tiles: "tiles",
      width: 3307,
      height: 2339,
      ready: true,
      hasPreview: false,
      pixelToMm: [1, 0, 0, 0, -1, 0],
      crop: whole,
      cutFrom: whole,
      made: null,
    };
    const look = { alpha: 1, ink: null, covers: true };
    const [board, lens] = [canvas().ctx, canvas().ctx];
    for (let i = 0; i < 5; i++) {
      paintPicture(board, page, { x: 1600, y: -1200, k: 0.3 }, { width: 1000, height: 700 }, 1, look);
      paintPicture(lens, page, { x: 400 + i, y: -400, k: 8 }, { width: 148, height: 148 }, 1, look);
    }
    expect(madeSheets).toBe(2);
  });
});
