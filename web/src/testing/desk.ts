import { vi } from "vitest";
import { loadSteps, registerActs } from "../acts";
import { useNextLength } from "../acts/nextLength";
import { useRoomOptions } from "../acts/trace/rooms/rooms";
import { useWallOptions } from "../acts/trace/walls/options";
import type { FitReport, PageMade, Progress, Row, Schemas, State } from "../api/client";
import { currentAct } from "../board/act";
import { clearDraft, useDesk } from "../board/desk";
import { enterSlip } from "../board/hand";
import type { XY } from "../geometry/plane";
import { type Attempt, closeProject, enter, mirrorOf, useProject } from "../store/project";
import { type Kind, noRows, type Values, withRows } from "../store/rows";
import { NOTHING_TOLD, type Told } from "../store/told";

registerActs();
await loadSteps("trace");

/** What a server that knows of nothing answers. */
export const EMPTY: State = {
  heard: 1,
  revision: 1,
  since: 1,
  role: "owner",
  change: null,
  changeRevision: null,
  steps: { undo: null, redo: null },
  tolerance: 20,
  storeys: null,
  pages: [],
  work: [],
  rows: [],
  removed: [],
  fits: [],
  derived: [],
  present: [],
  news: [],
};

/** A page whose pictures are there. */
export const page = (id: string, values: Partial<PageMade> = {}): PageMade => ({
  page: id,
  hasPreview: true,
  pictures: "0123456789abcdef",
  tileSuffix: ".png",
  made: null,
  registration: null,
  ...values,
});

export const progress = (values: Partial<Progress> & Pick<Progress, "kind" | "about">): Progress => ({
  state: "working",
  part: 0.5,
  words: "",
  reason: "",
  ...values,
});

/** Opens a project as it is told, without a server having told of it. */
export function presentProject(id: string, account: string, told: Partial<Told>): void {
  closeProject();
  const shelf = { read: () => ({ edits: [], clashes: [] }), write: () => true };
  enter(id, mirrorOf(id, account, shelf, { ...NOTHING_TOLD, ...told }));
  useProject.setState({ ...told, id });
}

export function json(body: unknown, status = 200): Response {
  return new Response(JSON.stringify(body), { status, headers: { "Content-Type": "application/json" } });
}

export const STOREY = "00000000-0000-7000-8000-0000000000aa";
export const DRAWING = "00000000-0000-7000-8000-0000000000dd";

/** A row of which a test says only what matters to it. */
export const row = <K extends Kind>(type: K, id: string, values: Partial<Values[K]>, revision = 1): Row =>
  ({ type, id, revision, values }) as unknown as Row;

/** An operation as a test looks at it, without asking which kind it is. */
export interface Looked {
  do: string;
  type?: Kind;
  id?: string;
  ids?: string[];
  values?: Record<string, unknown>;
  trace?: Schemas["Trace"];
  shift?: Schemas["Shift"];
  figure?: Schemas["Figure"];
  rework?: Schemas["Rework"];
  lay?: Schemas["Lay"];
}

export function report(values: Partial<FitReport> = {}): FitReport {
  return {
    drawing: DRAWING,
    model: "similar",
    pixelToMm: [],
    mmPerPixel: 10,
    rotationDegrees: 0,
    slantDegrees: 0,
    stretch: { x: 1, y: 1 },
    levels: [],
    determined: { scale: true, turn: true, place: false },
    degreesOfFreedom: 1,
    s0: 1,
    holds: true,
    rmsMm: 0,
    plusMinusMmPer10m: 10,
    plusMinusAlong: null,
    untested: null,
    lengths: [],
    grid: [],
    points: [],
    offers: [],
    rectangles: [],
    statedScale: null,
    blamed: null,
    advice: [],
    scale: 50,
    basis: "lengths",
    legibility: { partitionPx: 20, plusMinusMm: 3, words: "Clear" },
    ...values,
  };
}

/** A corner that the ink shows at a pixel of the page. */
export const cornerAt = (x: number, y: number) => ({
  kind: "corner",
  x,
  y,
  sigmaPx: 0.15,
  alongDegrees: null,
  thicknessPx: null,
});

export interface Sent {
  title: string;
  operations: Looked[];
  tracing?: string;
}

/** Answers of a stubbed server by the end of the path; changes are kept in `sent`. */
export interface Serving {
  sent: Sent[];
  asked: URL[];
  tried: Attempt;
  found: unknown;
  ticks: unknown;
  gap: unknown;
  risers: unknown;
  /** which way the ink runs */
  bearing: unknown;
  /** what is answered before all that, by the end of the path; a Response as it is */
  answers: Record<string, unknown>;
}

/** A rectangle of 6 × 4 m on its centre lines, 200 thick, over a picture of 10 mm per pixel turned 2° to the left. */
export function plan(): Row[] {
  const node = (id: string, x: number, y: number) => row("node", id, { storey: STOREY, drawing: null, x, y });
  const wall = (id: string, fromNode: string, toNode: string) =>
    row("wall", id, {
      storey: STOREY,
      fromNode,
      toNode,
      thickness: 200,
      height: null,
      line: "centre",
      evidence: "ink",
      rise: 0,
      enclosing: true,
      buildUp: null,
    });
  const [c, s] = [10 * Math.cos(Math.PI / 90), 10 * Math.sin(Math.PI / 90)];
  return [
    row("project", "p", { name: "P", purpose: "planning", unit: "mm", shows: "mm", areas: "m2" }),
    row("storey", STOREY, { name: "Ground", elevation: 0, height: 2700 }),
    row("drawing", DRAWING, {
      storey: STOREY,
      page: "g",
      name: "d",
      kind: "plan",
      left: 0,
      top: 0,
      width: 900,
      height: 900,
      fade: 1,
    }),
    row("fit", DRAWING, {
      model: "similar",
      isGuess: false,
      m00: c,
      m01: s,
      m02: 0,
      m10: s,
      m11: -c,
      m12: 0,
      m20: 0,
      m21: 0,
      m22: 1,
      plusMinusMmPer10m: 10,
    }),
    node("n1", 0, 0),
    node("n2", 6000, 0),
    node("n3", 6000, 4000),
    node("n4", 0, 4000),
    wall("south", "n1", "n2"),
    wall("east", "n2", "n3"),
    wall("north", "n3", "n4"),
    wall("west", "n4", "n1"),
  ];
}

/** The rectangle on the desk, with a server that says yes to everything unless told otherwise. */
export function deskWithPlan(): Serving {
  const serving: Serving = {
    sent: [],
    asked: [],
    tried: { fits: [], slips: [], moves: [] },
    found: null,
    ticks: null,
    gap: null,
    risers: null,
    bearing: null,
    answers: {},
  };
  vi.stubGlobal("fetch", async (request: Request) => {
    const url = new URL(request.url);
    const { pathname, searchParams } = url;
    serving.asked.push(url);
    const other = serving.answers[pathname.split("/").at(-1) ?? ""];
    if (other !== undefined) return other instanceof Response ? other.clone() : json(other);
    if (pathname === "/api/length") {
      // As the server does: no figure, no length.
      const mm = Number.parseFloat(searchParams.get("text") ?? "");
      return Number.isFinite(mm)
        ? json({ mm, stepMm: 1 })
        : json({ error: { code: "unreadable-length", message: "No length.", at: "0" } }, 422);
    }
    if (pathname === "/api/lengths") {
      const all = (searchParams.get("text") ?? "").split(/\s*[;x×,]\s*|\s+/).map(Number);
      return all.length === 2 && all.every(Number.isFinite)
        ? json({ mm: all })
        : json({ error: { code: "unreadable-length", message: "Not two lengths.", at: "0" } }, 422);
    }
    if (pathname.endsWith("/try")) return json(serving.tried);
    if (pathname.endsWith("/found")) return json({ found: serving.found });
    if (pathname.endsWith("/bearing")) return json({ found: serving.bearing });
    if (pathname === "/api/opening-width") {
      const width = Number(url.searchParams.get("width"));
      return json({ doubt: width > 1200 ? `A leaf of a door is ${width} mm wide.` : null });
    }
    if (pathname.endsWith("/risers")) return json({ found: serving.risers });
    if (pathname.endsWith("/gap")) return json({ found: serving.gap });
    if (pathname.endsWith("/ticks")) return json({ count: serving.ticks });
    serving.sent.push(JSON.parse(await request.text()));
    return json({ ...EMPTY, revision: 2 });
  });
  presentProject("00000000-0000-7000-8000-0000000000ff", "00000000-0000-7000-8000-0000000000ac", {
    revision: 1,
    rows: withRows(noRows(), plan()),
    derived: new Map([
      [
        STOREY,
        {
          storey: STOREY,
          walls: new Map(),
          regions: new Map([
            [
              "inside",
              {
                key: "inside",
                id: null,
                polygon: [
                  [100, 100],
                  [5900, 100],
                  [5900, 3900],
                  [100, 3900],
                ],
                holes: [],
                netAreaM2: 22.04,
                label: [3000, 2000],
                clear: [5800, 3800],
                walls: ["south", "east", "north", "west"],
                leaks: [],
                findings: [],
              },
            ],
          ]),
          unplaced: new Map(),
          leaks: [],
          areas: { grossFloorM2: 0, netFloorM2: 0, structureM2: 0 },
          findings: [],
        },
      ],
    ]),
  });
  useDesk.setState({
    step: "trace",
    storey: STOREY,
    side: null,
    drawing: DRAWING,
    view: { x: 3000, y: 2000, k: 0.1 },
    holdSquare: true,
    selected: null,
    group: [],
    things: [],
    act: null,
    pointer: null,
  });
  clearDraft();
  useNextLength.setState(useNextLength.getInitialState());
  useRoomOptions.setState(useRoomOptions.getInitialState());
  useWallOptions.setState({ ...useWallOptions.getInitialState(), line: "centre", thickness: 100 });
  return serving;
}

/** What a drag from one place to another does, as the act at hand has it; with nothing taken hold of, false. */
export async function dragged(from: XY, to: XY): Promise<boolean> {
  const drag = currentAct()?.drag?.(from, { shiftKey: false });
  drag?.move(from, to, false);
  await drag?.drop();
  return drag != null;
}

/** Enter in the slip that is open. */
export function entered(text: string): Promise<void> {
  return currentAct()?.slip?.() ? enterSlip(text) : Promise.reject(new Error("No slip is open."));
}

/** Picks as if a hand had made them. */
export function picked(...at: readonly XY[]): void {
  const picks = at.map((p) => ({ at: p, sigmaPx: 0.3, words: "by hand", thicknessPx: null }));
  useDesk.setState({ draft: { of: "picks", picks, focused: 0, ticks: [] } });
}

/** The same desk with its drawing turned by 2°, as its ink says. */
export function deskTurned(): Serving {
  const server = deskWithPlan();
  const made = {
    tileSuffix: ".png",
    cuts: [],
    lightOnDark: false,
    contrast: 200,
    paper: { cell: 24, columns: 1, rows: 1, levels: "" },
    lines: 0,
    bytes: 0,
    skew: { degrees: -2, sigmaDegrees: 0.002, confidence: 0.8 },
  };
  useProject.setState({
    fits: new Map([[DRAWING, report({ rotationDegrees: 2 })]]),
    pages: new Map([["g", page("g", { made })]]),
  });
  return server;
}

export const SIDE = "00000000-0000-7000-8000-0000000000ee";

/** The drawing lies on a side, and that is open. */
export function openSide(): void {
  useProject.setState((s) => ({
    rows: withRows(s.rows, [
      row("side", SIDE, { name: "South", fromX: null, fromY: null, toX: null, toY: null }),
      row("drawing", DRAWING, { ...s.rows.drawing.get(DRAWING), storey: null, side: SIDE }),
    ]),
  }));
  useDesk.setState({ storey: null, side: SIDE });
}
