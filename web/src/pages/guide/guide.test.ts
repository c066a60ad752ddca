// @vitest-environment happy-dom
import { describe, expect, it } from "vitest";
import guide from "../../../../docs/guide.md";
import { registerActs } from "../../acts";
import { useActs } from "../../board/act";
import { STEPS } from "../../board/steps";

describe("the guide", () => {
  registerActs();
  const page = new DOMParser().parseFromString(guide, "text/html");

  it("goes through the steps in the order of the rail", () => {
    const headings = [...page.querySelectorAll("h2")].map((h) => h.textContent?.replace(/^\d\. /, ""));
    expect(headings.slice(0, STEPS.length)).toEqual(STEPS.map((s) => s.label));
  });

  it("shows pictures that are there, each with what it shows", () => {
    const pictures = [...page.querySelectorAll("img")];
    expect(pictures.length).toBeGreaterThan(8);
    for (const picture of pictures) {
      expect(picture.alt).not.toBe("");
      expect(picture.getAttribute("src"), picture.alt).toMatch(/\/screenshots\/[\w-]+\.png$/);
    }
  });

  it("names keys that acts really have", () => {
    const known = new Set(useActs.getState().entries.map((e) => e.key));
    const named = [...page.querySelectorAll("strong")].map((b) => b.textContent ?? "").filter((t) => /^[A-Z]$/.test(t));
    expect(named.length).toBeGreaterThan(5);
    for (const key of named) expect([...known], key).toContain(key);
  });
});
