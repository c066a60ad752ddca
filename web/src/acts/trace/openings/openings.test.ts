import { beforeEach, describe, expect, it, vi } from "vitest";
import { currentAct } from "../../../board/act";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { DRAWING, deskWithPlan, entered, page, report, row, type Sent, type Serving } from "../../../testing/desk";
import { removeOpening, useOpeningOptions } from "./openings";

let server: Serving;
let sent: Sent[];

beforeEach(() => {
  server = deskWithPlan();
  sent = server.sent;
  useProject.setState({ fits: new Map([[DRAWING, report()]]), pages: new Map([["g", page("g")]]) });
  useOpeningOptions.setState(useOpeningOptions.getInitialState());
});

describe("doors", () => {
  it("run from the clicked edge to the second click, and swing to the pointer's side", async () => {
    setAct("openings");
    clickAt([1000, 20], false);
    clickAt([1910, -60], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.values).toMatchObject({
      wall: "south",
      offset: 1000,
      width: 910,
      swing: "right",
      number: "D01",
    });
  });

  it("take a typed width toward the pointer", async () => {
    setAct("openings");
    clickAt([3000, 0], false);
    useDesk.setState({ pointer: [2500, 40] });
    await entered("800");
    expect(sent[0]?.operations[0]?.values).toMatchObject({ offset: 2200, width: 800, swing: "left" });
  });
});

describe("an unusual width", () => {
  it("is asked about before anything is made, and Enter has it so", async () => {
    setAct("openings");
    clickAt([500, 0], false);
    clickAt([2740, 20], false);
    await vi.waitFor(() => expect(useDesk.getState().slipError).toContain("2240 mm wide"));
    expect(sent).toEqual([]);
    expect(useDesk.getState().slip).toBe("2240 mm");
    useDesk.setState({ pointer: [2740, 20] });
    await entered("2240");
    expect(sent[0]?.operations[0]?.values).toMatchObject({ offset: 500, width: 2240 });
  });

  it("is another when another is typed instead", async () => {
    setAct("openings");
    clickAt([500, 0], false);
    useDesk.setState({ pointer: [2740, 20] });
    await entered("8200");
    expect(sent).toEqual([]);
    await entered("820");
    expect(sent[0]?.operations[0]?.values).toMatchObject({ offset: 500, width: 820 });
  });

  it("is asked about where the ink shows it and a door is forced on it", async () => {
    server.gap = { kind: "opening", offset: 1000, width: 2400, plusMinusMm: 4, leafAt: null, leafSide: null };
    useOpeningOptions.setState({ kind: "door" });
    setAct("openings");
    clickAt([2000, 10], false);
    await vi.waitFor(() => expect(useDesk.getState().slip).toBe("2400 mm"));
    expect(sent).toEqual([]);
  });
});

describe("openings by their ink", () => {
  it("are told to have no gap where none is drawn", async () => {
    server.gap = null;
    setAct("openings");
    clickAt([2400, 10], false);
    await vi.waitFor(() => expect(currentAct()?.slip?.()?.hint).toMatch(/^No gap is drawn here/));
  });

  it("have the drawn leaf too where both edges are clicked", async () => {
    setAct("openings");
    server.gap = null;
    clickAt([2000, 10], false);
    server.gap = { kind: "door", offset: 1990, width: 930, plusMinusMm: 4, leafAt: "far", leafSide: "right" };
    clickAt([2910, 40], false);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations[0]?.values).toMatchObject({ offset: 2000, width: 910, hand: "right", swing: "right" });
  });

  it("take width, kind and leaf from one click", async () => {
    server.gap = { kind: "door", offset: 2000, width: 910, plusMinusMm: 4, leafAt: "far", leafSide: "right" };
    setAct("openings");
    clickAt([2400, 10], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent.at(-1)?.operations[0]?.values).toMatchObject({
      ...{
        wall: "south",
        kind: "door" as const,
        offset: 2000,
        width: 910,
        hand: "right",
        swing: "right",
        number: "D01",
      },
      ...{ sill: 0, height: 2040 },
    });
    expect(drafted("jamb")).toBeNull();
  });

  it("become what is chosen, with its usual sill and the next free number", async () => {
    server.gap = { kind: "opening", offset: 1000, width: 1200, plusMinusMm: 4, leafAt: null, leafSide: null };
    useOpeningOptions.setState({ kind: "window" });
    const taken = { wall: "north", kind: "window" as const, offset: 0, width: 900, sill: 900, height: 1200 };
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "o", { ...taken, hand: "left", swing: "left", number: "W01" })]),
    }));
    setAct("openings");
    clickAt([1500, 10], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent.at(-1)?.operations[0]?.values).toMatchObject({
      kind: "window",
      number: "W02",
      sill: 900,
      height: 1200,
    });
  });

  it("are as high as is usual in feet where sizes are shown in feet", async () => {
    server.gap = { kind: "door", offset: 1000, width: 910, plusMinusMm: 4, leafAt: null, leafSide: "left" };
    const shown = { name: "P", purpose: "planning", unit: "ft", shows: "ft-in/16", areas: "ft2" } as const;
    useProject.setState((s) => ({ rows: withRows(s.rows, [row("project", "p", shown)]) }));
    setAct("openings");
    clickAt([1500, 10], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent.at(-1)?.operations[0]?.values).toMatchObject({ kind: "door", height: 2032 });
  });

  it("leave a hand that goes on by itself alone", async () => {
    server.gap = { kind: "door", offset: 2000, width: 910, plusMinusMm: 4, leafAt: null, leafSide: "left" };
    setAct("openings");
    clickAt([3000, 0], false);
    // Typed before the ink has answered.
    useDesk.setState({ slip: "8", pointer: [2500, 40] });
    await vi.waitFor(() => expect(server.asked.some((u) => u.pathname.endsWith("/gap"))).toBe(true));
    await entered("800");
    expect(server.sent).toHaveLength(1);
    expect(server.sent.at(-1)?.operations[0]?.values).toMatchObject({ offset: 2200, width: 800 });
  });

  it("are removed by name", async () => {
    const values = { wall: "north", kind: "door" as const, offset: 0, width: 900, sill: 0, height: null };
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "o", { ...values, hand: "left", swing: "left", number: "D07" })]),
    }));
    removeOpening("o");
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent.at(-1)).toMatchObject({
      title: "Remove D07",
      operations: [{ do: "remove", type: "opening", id: "o" }],
    });
  });
});
