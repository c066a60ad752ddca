import { beforeEach, describe, expect, it } from "vitest";
import { useGrid } from "../../../board/grid";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { deskTurned, type Serving } from "../../../testing/desk";
import { useWallOptions } from "./options";
import { pointedAt, setWing } from "./wing";

let server: Serving;
const click = (pointer: XY) => ({ pointer, snap: null, free: false, corners: false });

beforeEach(() => {
  server = deskTurned();
  useWallOptions.setState({ asks: "wing" });
});

const wing = () => server.sent.at(-1)?.operations[0];

describe("the grid of a wing", () => {
  it("is taken from a wall that is pointed at, within half a right angle of the building's", async () => {
    await pointedAt(click([6000, 2000]));
    expect(wing()).toMatchObject({ do: "set", type: "storey", values: { wing: 0 } });
    expect(useWallOptions.getState().asks).toBeNull();
    await setWing(100);
    expect(wing()?.values).toEqual({ wing: 10 });
    await setWing(null);
    expect(wing()?.values).toEqual({ wing: null });
  });

  it("is taken from the ink as the board shows it, whichever way its page is turned", async () => {
    // 18° on a page that lies turned by 2° to the left.
    server.found = { kind: "face", x: 300, y: -200, sigmaPx: 0.1, alongDegrees: 18, thicknessPx: null };
    await pointedAt(click([12_000, 9000]));
    expect(wing()?.values?.wing).toBeCloseTo(20, 3);
  });

  it("says where nothing is to be taken it from", async () => {
    await pointedAt(click([12_000, 9000]));
    expect(server.sent).toEqual([]);
    expect(useProject.getState().trouble).toMatch(/^No wall and no straight line/);
  });
});

it("a regular grid begins at what is pointed at", async () => {
  useWallOptions.setState({ asks: "origin" });
  await pointedAt({ ...click([1010, 990]), snap: { at: [1000, 1000], words: "end of a line, exact" } });
  expect(useGrid.getState().origin).toEqual([1000, 1000]);
  expect(server.sent).toEqual([]);
});
