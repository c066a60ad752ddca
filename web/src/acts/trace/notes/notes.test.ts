import { beforeEach, describe, expect, it } from "vitest";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, dragged, openSide, row, type Serving, SIDE, STOREY } from "../../../testing/desk";
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
      side: null,
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

  it("stands on a side as well", async () => {
    openSide();
    setAct("notes");
    clickAt([1000, 1000], false);
    await writeNote("render comes off here");
    expect(server.sent[0]?.operations[0]?.values).toMatchObject({ storey: null, side: SIDE });
  });

  it("is taken by its words and put elsewhere, its arrow pointing where it did; and so is the arrow's head", async () => {
    const note = row("note", "n", {
      storey: STOREY,
      side: null,
      x: 1000,
      y: 1000,
      toX: 2500,
      toY: 1000,
      words: "beam over",
    });
    useProject.setState((s) => ({ rows: withRows(s.rows, [note]) }));
    clickAt([1100, 1020], true);
    expect(useDesk.getState().selected).toEqual({ type: "note", id: "n" });
    await dragged([1100, 1020], [1400, 1520]);
    expect(server.sent[0]?.operations[0]).toMatchObject({ do: "set", id: "n", values: { x: 1300, y: 1500 } });
    useProject.setState((s) => ({ rows: withRows(s.rows, [note]) }));
    await dragged([2500, 1000], [2600, 900]);
    expect(server.sent[1]?.operations[0]?.values).toEqual({ toX: 2600, toY: 900 });
  });
});
