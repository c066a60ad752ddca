import { beforeEach, describe, expect, it, vi } from "vitest";
import { useNextLength } from "../../../acts/nextLength";
import { settlePendingFit, settlePendingSlip, usePending } from "../../../acts/statements";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import { nudgeEnd, picksNow } from "../../../board/picking";
import { snapAt } from "../../../board/snap";
import { apply } from "../../../geometry/maps";
import { toScreen } from "../../../geometry/view";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { cornerAt, DRAWING, deskTurned, entered, page, row, type Sent, type Serving } from "../../../testing/desk";
import { scaleOf } from "./CalibratePanel";
import { missingOf } from "./calibrate";

let server: Serving;
let sent: Sent[];

beforeEach(() => {
  server = deskTurned();
  sent = server.sent;
});

describe("known lengths", () => {
  it("keep their picks in page pixels, with the text as typed", async () => {
    setAct("calibrate");
    clickAt([0, 0], false);
    clickAt([6000 * Math.cos(Math.PI / 90), 6000 * Math.sin(Math.PI / 90)], false);
    expect(picksNow()[1]?.at[0]).toBeCloseTo(600, 9);
    expect(picksNow()[1]?.at[1]).toBeCloseTo(0, 9);
    nudgeEnd(0.25, 0);
    await entered("6 m");
    expect(picksNow()).toEqual([]);
    const [a, b, length] = sent[0]?.operations ?? [];
    expect(b?.values?.x).toBeCloseTo(600.25, 9);
    expect(length?.values).toMatchObject({ text: "6 m", a: a?.id, b: b?.id, heldOut: false, standing: "figured" });
  });

  it("come back with the reason when they are refused", async () => {
    setAct("calibrate");
    clickAt([0, 0], false);
    clickAt([3000, 0], false);
    useDesk.setState({ slip: "abc" });
    vi.stubGlobal(
      "fetch",
      async () =>
        new Response(JSON.stringify({ error: { code: "unreadable-length", message: "No length.", at: "0" } }), {
          status: 422,
          headers: { "Content-Type": "application/json" },
        }),
    );
    await entered("abc");
    expect(useDesk.getState()).toMatchObject({ slip: "abc", slipError: "No length." });
    expect(picksNow()).toHaveLength(2);
    expect(useProject.getState().trouble).toBeNull();
  });
});

describe("line drawings", () => {
  const GREEN = { tileSuffix: ".png", cuts: [], lightOnDark: false, contrast: 200, lines: 2, bytes: 1 };

  it("are held to their own line ends, exactly, unless the hand is free", async () => {
    const fetching = globalThis.fetch;
    vi.stubGlobal("fetch", async (address: string | Request) =>
      String(address).endsWith("/lines")
        ? new Response(
            JSON.stringify([
              [100.25, 50, 700.5, 50],
              [700.5, 50, 700.5, 400],
            ]),
          )
        : fetching(address as Request),
    );
    const { rows } = useProject.getState();
    useProject.setState({
      rows: withRows(rows, [row("drawing", DRAWING, { ...rows.drawing.get(DRAWING), page: "exact" }, 2)]),
      pages: new Map([
        ["exact", page("exact", { made: { ...GREEN, paper: { cell: 9, columns: 1, rows: 1, levels: "" } } })],
      ]),
    });
    setAct("calibrate");
    const map = useProject.getState().rows.fit.get(DRAWING);
    const at = (x: number, y: number): [number, number] => [
      (map?.m00 ?? 0) * x + (map?.m01 ?? 0) * y + (map?.m02 ?? 0),
      (map?.m10 ?? 0) * x + (map?.m11 ?? 0) * y + (map?.m12 ?? 0),
    ];
    snapAt(at(100, 50), false); // asks for the lines
    await vi.waitFor(() => expect(snapAt(at(100.5, 50.3), false)?.words).toBe("end of a line, exact"));
    expect(snapAt(at(400, 50.4), false)).toMatchObject({ words: "on a line, exact", sigmaPx: 0.05 });
    expect(snapAt(at(100.5, 50.3), true)).toBeNull();
    clickAt(at(100.5, 50.3), false);
    clickAt(at(700.2, 49.8), false);
    expect(picksNow()[0]?.at[0]).toBeCloseTo(100.25, 9);
    nudgeEnd(0.25, 0);
    await entered("3000");
    const picks = sent[0]?.operations.filter((o) => o.type === "pick").map((o) => o.values?.sigmaPx);
    expect(picks?.[0], "The file tells this end.").toBe(0.05);
    expect(picks?.[1], "This one was moved by hand.").toBeGreaterThan(0.3);
  });
});

describe("picks", () => {
  it("move to what the ink shows, without zooming", async () => {
    setAct("calibrate");
    server.found = cornerAt(12.25, -3.5);
    clickAt([100, 40], false);
    await vi.waitFor(() => expect(picksNow()[0]?.at).toEqual([12.25, -3.5]));
    expect(picksNow()[0]).toMatchObject({ sigmaPx: 0.15, words: "corner, on the scan" });
    const asked = server.asked.find((u) => u.pathname.endsWith("/found"));
    expect(asked?.searchParams.get("mmPerPixel"), "its scale tells pens from walls").toBe("10");
  });

  it("stay where the hand put them when the ink is held off", async () => {
    setAct("calibrate");
    server.found = cornerAt(12, 3);
    clickAt([100, 0], true);
    await new Promise((done) => setTimeout(done, 20));
    expect(server.asked.filter((u) => u.pathname.endsWith("/found"))).toHaveLength(0);
    expect(picksNow()[0]?.words).toBe("by hand");
  });

  it("lie where the ink showed them though a new fit comes in before it has answered", async () => {
    setAct("calibrate");
    server.found = cornerAt(12.25, -3.5);
    clickAt([100, 40], false);
    const { rows } = useProject.getState();
    const fit = { ...rows.fit.get(DRAWING), m00: 5, m01: 0, m10: 0, m11: -5, m02: 900, m12: 70 };
    useProject.setState({ rows: withRows(rows, [row("fit", DRAWING, fit, 2)]) });
    await vi.waitFor(() => expect(picksNow()[0]?.words).toBe("corner, on the scan"));
    const [x, y] = picksNow()[0]?.at ?? [];
    expect([x, y], "on the page, whatever lies where in the model").toEqual([
      expect.closeTo(12.25, 6),
      expect.closeTo(-3.5, 6),
    ]);
  });

  it("have the hand where it rests though a new fit comes in under it", () => {
    useDesk.setState({ pointer: [100, 40] });
    const before = useDesk.getState().view;
    const { rows } = useProject.getState();
    const fit = { ...rows.fit.get(DRAWING), m00: 5, m01: 0, m10: 0, m11: -5, m02: 900, m12: 70 };
    useProject.setState({ rows: withRows(rows, [row("fit", DRAWING, fit, 2)]) });
    const { pointer, view } = useDesk.getState();
    expect(view, "the fit has moved the view").not.toEqual(before);
    const size = { width: 800, height: 600 };
    const [x, y] = apply(toScreen(view, size), pointer ?? [0, 0]);
    expect([x, y]).toEqual(apply(toScreen(before, size), [100, 40]).map((v) => expect.closeTo(v, 6)));
  });

  it("are stated only when the ink has answered", async () => {
    setAct("calibrate");
    server.found = cornerAt(12.25, 3.5);
    clickAt([100, 0], false);
    clickAt([6000, 0], false);
    await entered("6 m");
    const [a] = server.sent[0]?.operations ?? [];
    expect(a?.values).toMatchObject({ x: 12.25, y: 3.5, sigmaPx: 0.15 });
  });

  it("ask for corners only while Shift is down", async () => {
    setAct("calibrate");
    clickAt([100, 0], false, true);
    await vi.waitFor(() => expect(server.asked.some((u) => u.searchParams.get("only") === "corners")).toBe(true));
  });
});

describe("a figure", () => {
  const pickTwo = () => {
    setAct("calibrate");
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
  };

  it("that looks like a slip is said first, and taken when it is meant", async () => {
    pickTwo();
    server.tried.slips = [{ id: "x", code: "factor-10", message: "A decimal point.", wouldBeMm: 6000 }];
    await entered("60 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().caution).toMatchObject({ text: "60 m", wouldBeMm: 6000 });
    expect(picksNow()).toHaveLength(2);
    await entered("60 m");
    expect(server.sent).toHaveLength(1);
    expect(useDesk.getState().caution).toBeNull();
  });

  it("that looks like a slip when the hand has gone on is kept for the ledger", async () => {
    pickTwo();
    useDesk.setState({ slip: "60 m" });
    server.tried.slips = [{ id: "x", code: "factor-10", message: "A decimal point.", wouldBeMm: 6000 }];
    const sending = entered("60 m");
    for (let i = 0; i < 6; i++) await Promise.resolve();
    expect(picksNow(), "the next pick need not wait").toHaveLength(0);
    clickAt([100, 100], true);
    await sending;
    expect(picksNow()).toHaveLength(1);
    expect(server.sent).toHaveLength(0);
    settlePendingSlip("mended");
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.operations[2]?.values).toMatchObject({ text: "6000 mm", unit: "mm" });
  });

  it("mended after the warning is looked at again", async () => {
    pickTwo();
    server.tried.slips = [{ id: "x", code: "factor-10", message: "A decimal point.", wouldBeMm: 6000 }];
    await entered("60 m");
    await entered("61 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().caution?.text).toBe("61 m");
  });

  it("that runs between other lines than were picked needs the wall", async () => {
    pickTwo();
    useNextLength.setState({ endsAt: "outer face", pickedAt: "inner face", wallText: "" });
    await entered("6 m");
    expect(server.sent).toHaveLength(0);
    expect(useDesk.getState().slipError).toContain("how thick the wall is");
    useNextLength.setState({ wallText: "300" });
    await entered("6 m");
    expect(server.sent[0]?.operations[2]?.values).toMatchObject({
      ends: "outer face",
      picked: "inner face",
      wall: 300,
    });
  });

  it("across runs from the third pick to the line of the first two", async () => {
    setAct("calibrate");
    useNextLength.setState({ along: "across" });
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
    expect(useDesk.getState().slip).toBeNull();
    clickAt([3000, 4000], true);
    await entered("4 m");
    const [one, two, three, length] = server.sent[0]?.operations ?? [];
    expect(length?.values).toMatchObject({ a: one?.id, c: two?.id, b: three?.id, along: "across" });
  });

  it("that would move the picture under the tracing waits for the user's word", async () => {
    pickTwo();
    server.tried.moves = [{ drawing: DRAWING, mm: 12, traced: 4 }];
    await entered("6 m");
    expect(server.sent).toHaveLength(0);
    expect(usePending.getState().fit).toMatchObject({ mm: 12, traced: 4, title: "Known length" });
    settlePendingFit(true);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(server.sent[0]?.tracing).toBe("carry");
  });
});

describe("a room and a count", () => {
  it("are stated by four corners with both sides", async () => {
    setAct("calibrate");
    useNextLength.setState({ by: "room" });
    const corners = [
      [0, 0],
      [3600, 0],
      [3600, 4200],
      [0, 4200],
    ] as const;
    for (const at of corners) clickAt(at, true);
    await entered("3.6 m x 4.2 m");
    expect(server.sent[0]?.operations[4]?.values).toMatchObject({ width: "3.6 m", depth: "4.2 m" });
    for (const at of corners) clickAt(at, true);
    await entered("3.6");
    expect(useDesk.getState().slipError).toContain("width and depth");
  });

  it("proposes the joints it found, up as courses and along as units", async () => {
    setAct("calibrate");
    useNextLength.setState({ by: "count" });
    server.ticks = {
      spaces: 23,
      pitchPx: 16,
      confidence: 0.6,
      ticks: [
        [1, 2],
        [1, 18],
      ],
    };
    clickAt([0, 0], true);
    clickAt([0, 4000], true);
    await vi.waitFor(() => expect(useDesk.getState().slip).toBe("23c"));
    expect(drafted("picks")?.ticks).toHaveLength(2);
    setAct("calibrate");
    clickAt([0, 0], true);
    clickAt([6000, 0], true);
    await vi.waitFor(() => expect(useDesk.getState().slip).toBe("23u"));
  });

  it("asks how high a course is where the project does not know it, and states both", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("project", "p", { course: null, unitLength: null, joint: 10 })]),
    }));
    useNextLength.setState({ by: "count" });
    setAct("calibrate");
    clickAt([0, 0], true);
    clickAt([0, 4000], true);
    await entered("31c-1j");
    expect(useDesk.getState().slipError).toContain("how high one course is");
    expect(server.sent).toEqual([]);
    expect([missingOf("31 c"), missingOf("7u"), missingOf("4.2 m")]).toEqual(["course", "unitLength", null]);
    useNextLength.setState({ module: { course: "75", unitLength: "" } });
    await entered("31c-1j");
    expect(server.sent.map((s) => s.title)).toEqual(["Module", "Known length"]);
    expect(server.sent[0]?.operations).toMatchObject([{ do: "set", id: "p", values: { course: 75 } }]);
    expect(server.sent[1]?.operations.at(-1)?.values).toMatchObject({ text: "31c-1j", course: 75, joint: 10 });
  });
});

describe("a stated scale", () => {
  it.each([
    ["1:50", 50],
    ["1 : 96", 96],
    ["100", 100],
    ['1/4" = 1\'-0"', 48],
    ["1 1/2\" = 1'", 8],
    ["soon", null],
  ])("%s is 1 : %s", (text, n) => {
    expect(scaleOf(text)).toBe(n);
  });
});
