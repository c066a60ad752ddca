import { afterEach, describe, expect, it, vi } from "vitest";
import { highestLevel, Images, levelFor } from "./picture";

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
