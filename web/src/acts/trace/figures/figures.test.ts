import { beforeEach, describe, expect, it, vi } from "vitest";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { DRAWING, deskWithPlan, json, row, type Serving, STOREY } from "../../../testing/desk";
import { decide, type Face, faceAt, figureLine, spanOf, spanWords, stateFigure, tracedMm, useHolds } from "./figures";

let server: Serving;

const between = (a: Face, b: Face) => ({ a, b, opening: null });
const face = (wall: string, side: Face["side"] = "left"): Face => ({ wall, side });

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
    expect(tracedMm(rows, between(face("south"), face("north")))).toBeCloseTo(3800);
    expect(tracedMm(rows, between(face("south", "centre"), face("north", "right")))).toBeCloseTo(4100);
    expect(tracedMm(rows, between(face("south"), face("east")))).toBeNull();
  });

  it("is asked for by two clicks; a third begins anew, and nothing is passed over", () => {
    clickAt([3000, 60], false);
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

  it("moves nothing before somebody has decided, where it is not what is traced over a drawing", async () => {
    const faces = [
      { wall: "south", side: "left" },
      { wall: "north", side: "left" },
    ] as const;
    const [a, b] = faces;
    const now = tracedMm(useProject.getState().rows, { a, b, opening: null }) ?? 0;
    const decided = async (mm: number, drawing: string | null) => {
      useDesk.setState({ drawing, draft: { of: "faces", faces }, slip: "" });
      await stateFigure(String(mm));
      return server.sent.at(-1)?.operations[0]?.figure?.decided;
    };
    expect(await decided(now + 6, DRAWING)).toBe("figure");
    expect(await decided(now + 143, DRAWING)).toBe("open");
    expect(await decided(now + 143, null), "over no drawing it is how a plan is changed").toBe("figure");
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
    const line = figureLine(rows, between(face("south"), face("north")));
    expect(line?.[0]).toEqual([expect.closeTo(4000), expect.closeTo(100)]);
    expect(line?.[1]).toEqual([expect.closeTo(4000), expect.closeTo(3900)]);
    expect(figureLine(rows, between(face("south"), face("gone")))).toBeNull();
    const kept = { a: "south", aSide: "left", b: "north", bSide: "centre", opening: null };
    expect(spanOf(kept as Parameters<typeof spanOf>[0])).toEqual(between(face("south"), face("north", "centre")));
  });
});

describe("a figure of one wall", () => {
  it("runs along it where both clicks are on it, and not along a curve", async () => {
    clickAt([3000, 60], false);
    clickAt([1000, -60], false);
    expect(useDesk.getState().slip).toBe("");
    const { rows } = useProject.getState();
    await stateFigure("5980");
    expect(server.sent[0]?.operations[0]?.figure).toMatchObject({ a: "south", b: "south", text: "5980" });
    expect(tracedMm(rows, between(face("south"), face("south")))).toBeCloseTo(6000);
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("wall", "south", { ...s.rows.wall.get("south"), rise: 500 })]),
    }));
    clickAt([3000, 460], false);
    clickAt([3000, 540], false);
    expect(useProject.getState().trouble).toMatch(/^A curved wall/);
  });

  it("tells the width of an opening that is clicked on its middle, and between its jambs", async () => {
    const door = row("opening", "d", { wall: "south", kind: "door", offset: 1000, width: 900, number: "D01" });
    useProject.setState((s) => ({ rows: withRows(s.rows, [door]) }));
    const { rows } = useProject.getState();
    clickAt([1400, 5], false);
    expect(useDesk.getState().slip).toBe("");
    await stateFigure("885");
    expect(server.sent[0]?.operations[0]?.figure).toMatchObject({ opening: "d", text: "885" });
    expect(server.sent[0]?.operations[0]?.figure?.a).toBeUndefined();
    const span = { a: face("south", "centre"), b: face("south", "centre"), opening: "d" };
    expect(tracedMm(rows, span)).toBe(900);
    expect(figureLine(rows, span)).toEqual([
      [1000, 0],
      [1900, 0],
    ]);
    expect(spanWords(rows, span)).toBe("width of D01");
    // On its face the wall is meant.
    useProject.setState({ rows });
    useDesk.setState({ draft: null, slip: null });
    clickAt([1400, 80], false);
    expect(drafted("faces")?.opening).toBeUndefined();
  });
});
