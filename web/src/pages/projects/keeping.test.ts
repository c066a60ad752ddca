import { expect, it } from "vitest";
import { daysLeft } from "./keeping";

it("the bin says how many days are left, the day that has begun among them", () => {
  const binned = "2026-03-01T12:00:00+00:00";
  const after = (days: number) => Date.parse(binned) + days * 86_400_000;
  expect([0, 0.5, 29.2, 31].map((days) => daysLeft(binned, after(days)))).toEqual([30, 30, 1, 0]);
});
