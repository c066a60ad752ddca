import { beforeEach, describe, expect, it, vi } from "vitest";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { DRAWING, deskWithPlan, json, row, type Serving, STOREY } from "../../../testing/desk";
import { apartMm, decide, faceAt, facesOf, figureLine, stateFigure, useHolds } from "./figures";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
  setAct("figures");
});

describe("a figure between faces", () => {
  it("means the face on the side that was clicked, and knows what lies between two", () => {
    expect(faceAt([3000, 60])).toEqual({ wall: "south", side: "left" });
    expect(faceAt([3000, -60])).toEqual({ wall: "south", side: "right" });
    expect(faceAt([3000, 5])).toEqual({ wall: "south", side: "centre" });
    expect(faceAt([3000, 2000])).toBeNull();
    const { rows } = useProject.getState();
    expect(apartMm(rows, { wall: "south", side: "left" }, { wall: "north", side: "left" })).toBeCloseTo(3800);
    expect(apartMm(rows, { wall: "south", side: "centre" }, { wall: "north", side: "right" })).toBeCloseTo(4100);
    expect(apartMm(rows, { wall: "south", side: "left" }, { wall: "east", side: "left" })).toBeNull();
  });

  it("is asked for by two clicks; a third begins anew, the same wall twice and nothing are passed over", () => {
    clickAt([3000, 60], false);
    clickAt([1000, -60], false);
    clickAt([3000, 2000], false);
    expect(useDesk.getState()).toMatchObject({ draft: { faces: [{ wall: "south", side: "left" }] }, slip: null });
    clickAt([3000, 3940], false);
    expect(drafted("faces")?.faces).toHaveLength(2);
    expect(useDesk.getState().slip).toBe("");
    clickAt([60, 2000], false);
    expect(useDesk.getState()).toMatchObject({ draft: { faces: [{ wall: "west", side: "left" }] }, slip: null });
  });

  it("is not asked for between faces that do not run the same way", () => {
    clickAt([3000, 60], false);
    clickAt([60, 2000], false);
    expect(drafted("faces")?.faces).toHaveLength(1);
    expect(useProject.getState().trouble).toMatch(/do not run the same way/);
  });

  it("is sent as typed, with the wall that moves; a refusal stands at the slip and the faces stay", async () => {
    const faces = [
      { wall: "south", side: "left" },
      { wall: "north", side: "left" },
    ] as const;
    useHolds.setState({ face: "b" });
    useDesk.setState({ draft: { of: "faces", faces }, slip: "3750" });
    await stateFigure("3750");
    expect(server.sent[0]?.operations[0]?.figure).toMatchObject({
      drawing: DRAWING,
      a: "south",
      aSide: "left",
      b: "north",
      bSide: "left",
      text: "3750",
      unit: "mm",
      moves: "a",
    });
    expect(useDesk.getState()).toMatchObject({ draft: null, selected: { type: "figure" } });
    useDesk.setState({ draft: { of: "faces", faces }, slip: "3750 x" });
    vi.stubGlobal("fetch", async () =>
      json({ error: { code: "unreadable-length", message: "No length.", at: "" } }, 422),
    );
    await stateFigure("3750 x");
    expect(useDesk.getState()).toMatchObject({ draft: { faces }, slipError: "No length." });
    expect(useProject.getState().trouble, "not twice").toBeNull();
  });

  it("is decided with what was found on the site", async () => {
    await decide("f", { decided: "site", siteText: "3762", reason: "measured" });
    expect(server.sent[0]?.operations[0]?.figure).toEqual({
      id: "f",
      unit: "mm",
      decided: "site",
      siteText: "3762",
      reason: "measured",
    });
  });

  it("is drawn where both walls are beside each other, from face to face", () => {
    // The upper wall reaches from 2 m on only.
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("node", "n4", { storey: STOREY, drawing: null, x: 2000, y: 4000 })]),
    }));
    const { rows } = useProject.getState();
    const line = figureLine(rows, { wall: "south", side: "left" }, { wall: "north", side: "left" });
    expect(line?.[0]).toEqual([expect.closeTo(4000), expect.closeTo(100)]);
    expect(line?.[1]).toEqual([expect.closeTo(4000), expect.closeTo(3900)]);
    expect(figureLine(rows, { wall: "south", side: "left" }, { wall: "gone", side: "left" })).toBeNull();
    const kept = { a: "south", aSide: "left", b: "north", bSide: "centre" } as Parameters<typeof facesOf>[0];
    expect(facesOf(kept)).toEqual([
      { wall: "south", side: "left" },
      { wall: "north", side: "centre" },
    ]);
  });
});
