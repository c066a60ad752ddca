import { describe, expect, it } from "vitest";
import type { Thing } from "../../../store/rows";
import type { Region } from "../../../store/shapes";
import { inRoom } from "./labels";

const region = { clear: [3600, 4200], netAreaM2: 15.12 } as unknown as Region;
const named = (name: string) => ({ number: "", name }) as Thing<"room">;

describe("a room's label", () => {
  it("stands in the room that it tells of: the sides go first, then the area, the name last and in two lines", () => {
    const told = (width: number, depth: number) => inRoom(width, depth, named("Meeting room south-west"), region);
    expect(told(400, 200)).toMatchObject({ width: 400, small: false, area: true, sides: true });
    expect(told(80, 200), "two lines, an area, but sides wider than the room").toMatchObject({
      width: 80,
      area: true,
      sides: false,
    });
    expect(told(80, 45)).toMatchObject({ area: false, sides: false });
    expect(inRoom(80, 45, named("Hall"), region), "one line leaves room for more").toMatchObject({ area: true });
    expect(inRoom(62, 200, named("Kitchenette"), region), "a long word is written small").toMatchObject({
      small: true,
    });
    expect(told(30, 200), "a narrow room's name may reach over its walls").toMatchObject({ width: 48, area: false });
  });
});
