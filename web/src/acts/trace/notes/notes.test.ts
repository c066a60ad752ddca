import { beforeEach, describe, expect, it } from "vitest";
import { drafted, setAct } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { deskWithPlan, type Serving, STOREY } from "../../../testing/desk";
import { writeNote } from "./notes";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

describe("a note", () => {
  it("stands where it was clicked and points to where the second click was, unless that is beside it", async () => {
    setAct("notes");
    clickAt([1000, 1000], false);
    clickAt([1050, 1000], false);
    expect(drafted("note")).toMatchObject({ at: [1000, 1000], to: null });
    clickAt([2500, 1000], false);
    await writeNote("? wall below is load-bearing");
    expect(server.sent[0]?.operations[0]?.values).toEqual({
      storey: STOREY,
      x: 1000,
      y: 1000,
      toX: 2500,
      toY: 1000,
      words: "wall below is load-bearing",
      assumption: true,
    });
    await writeNote("nowhere");
    expect(server.sent, "with no place there is no note").toHaveLength(1);
  });
});
