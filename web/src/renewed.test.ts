import { expect, it } from "vitest";
import { loadAgainWhenRenewed } from "./renewed";

it("loads a tab again, once, whose parts are not there any more", () => {
  const [target, kept] = [new EventTarget(), new Map<string, string>()];
  const storage = {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
  };
  let loads = 0;
  loadAgainWhenRenewed(target, storage as unknown as Storage, () => loads++);
  const missing = () => new Event("vite:preloadError", { cancelable: true });
  expect(target.dispatchEvent(missing()), "the failure is not told while it is mended").toBe(false);
  expect(target.dispatchEvent(missing())).toBe(true);
  expect(loads).toBe(1);
});
