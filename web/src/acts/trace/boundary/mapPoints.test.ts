import { expect, it } from "vitest";
import { mapMetres } from "./MapPoints";

it("reads coordinates as they are written on maps, and nothing else", () => {
  for (const [text, metres] of [
    ["431200.5", 431_200.5],
    ["5 402 117,250", 5_402_117.25],
    ["5’402’117.25", 5_402_117.25],
    [" -12.5 ", -12.5],
    ["+7", 7],
  ] as const) {
    expect(mapMetres(text), text).toBe(metres);
  }
  for (const text of ["", "north", "1.2.3", "12 m", "1e5", "48°10′"]) expect(mapMetres(text), text).toBeNull();
});
