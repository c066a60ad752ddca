import { describe, expect, it } from "vitest";
import { browser, since } from "./words";

describe("a session in the list of one's own", () => {
  it("is named by its browser and system", () => {
    const chrome =
      "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36";
    expect(browser(chrome)).toBe("Chrome or Chromium on Linux");
    expect(browser("Mozilla/5.0 (Windows NT 10.0; rv:140.0) Gecko/20100101 Firefox/140.0")).toBe("Firefox on Windows");
    expect(browser("office-scanner/2")).toBe("office-scanner/2");
    expect(browser("")).toBe("A program that does not say what it is");
  });

  it("tells the day where it is not today's", () => {
    const now = new Date("2026-11-27T15:00:00");
    expect(since("2026-11-27T09:05:00", now)).not.toContain("/");
    expect(since("2026-11-20T09:05:00", now).length).toBeGreaterThan(since("2026-11-27T09:05:00", now).length);
  });
});
