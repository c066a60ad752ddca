import { create } from "zustand";
import { api, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Click, Drag } from "../../../board/act";
import { clearDraft, drafted, useDesk } from "../../../board/desk";
import { sendDraft } from "../../../board/slip";
import { contains, distance, type XY } from "../../../geometry/plane";
import { change, inProject, say, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { riseThrough } from "../../../store/walls";
import { useShown } from "../../useStairs";

declare module "../../../board/desk" {
  interface Drafts {
    /** walking line of a stair, or both ends of its risers from below */
    stair: { points: readonly XY[] };
  }
}

export type StairWay = "line" | "box" | "bend" | "risers";

/** What the next stair is like. */
export const useNextStair = create<{
  way: StairWay;
  width: number;
  /** as many as the height asks for where none are typed */
  risers: number | null;
  turn: Thing<"stair">["turn"];
  build: Thing<"stair">["build"];
  rails: Thing<"stair">["rails"];
  /** how the edges of treads that are traced run from riser to riser */
  edges: "straight" | "round";
}>(() => ({
  way: "line",
  width: 900,
  risers: null,
  turn: "landing",
  build: "slab",
  rails: "none",
  edges: "straight",
}));

export const pointsNow = (): readonly XY[] => drafted("stair")?.points ?? [];

/** Clicks nearer than this to the last one end what is drawn, px. */
const AGAIN_PX = 5;

export async function stairPoint({ pointer, snap }: Pick<Click, "pointer" | "snap">): Promise<void> {
  const { way } = useNextStair.getState();
  const at = snap?.at ?? pointer;
  const points = pointsNow();
  const last = points.at(-1);
  const isAgain = last !== undefined && distance(last, at) * useDesk.getState().view.k < AGAIN_PX;
  if (isAgain) return endStair();
  useDesk.setState({ draft: { of: "stair", points: [...points, at] } });
  if (way === "bend" && points.length === 2) await endStair();
  if (way === "box" && points.length === 1) await endStair();
}

/** The risers that the drawing at hand shows along a flight; null where it shows none, or there is none to look at. */
async function drawnRisers([ax, ay]: XY, [bx, by]: XY, width: number) {
  const { drawing } = useDesk.getState();
  if (drawing === null) return null;
  const params = { path: inProject(drawing), query: { ax, ay, bx, by, width } };
  try {
    const { found } = await settled(api.GET("/api/projects/{project}/drawings/{id}/risers", { params }));
    if (!found) return null;
    const ends = [found.from, found.to].map(([x = 0, y = 0]): XY => [x, y]);
    return { ...found, ends };
  } catch {
    return null;
  }
}

/** The same of all flights of a line with landings at its corners; null unless each of them shows its own. */
async function drawnFlights(points: readonly XY[], turn: Thing<"stair">["turn"], width: number) {
  if (points.length > 2 && turn !== "landing") return null;
  const flights = await Promise.all(
    points.slice(1).map((to, i) => {
      const from = points[i] ?? to;
      const length = Math.max(1e-9, distance(from, to));
      // A landing takes half of its width off each flight at it.
      const on = (mm: number): XY => [
        from[0] + ((to[0] - from[0]) * mm) / length,
        from[1] + ((to[1] - from[1]) * mm) / length,
      ];
      const [begins, ends] = [i === 0 ? 0 : width / 2, i === points.length - 2 ? length : length - width / 2];
      return ends - begins > width / 2 ? drawnRisers(on(begins), on(ends), width) : null;
    }),
  );
  const found = flights.filter((f) => f !== null);
  if (found.length < flights.length) return null;
  const line = [found[0]?.ends[0], ...points.slice(1, -1), found.at(-1)?.ends[1]].filter((p) => p !== undefined);
  return { risers: found.reduce((sum, f) => sum + f.risers, 0), ends: line };
}

/** An easy rise, mm: common practice, no source. */
const EASY_MM = 178;

/** So many risers go from a storey up to the next at an easy rise. */
export function risersFor(storey: string): number {
  const storeys = [...useProject.getState().rows.storey.values()];
  const own = storeys.find((s) => s.id === storey);
  if (!own) return 2;
  const above = storeys.map((s) => s.elevation).filter((z) => z > own.elevation);
  const height = above.length > 0 ? Math.min(...above) - own.elevation : own.height;
  return Math.max(2, Math.min(200, Math.round(height / EASY_MM)));
}

const place = ([x, y]: XY, rise = 0) => (rise === 0 ? `${x} ${y}` : `${x} ${y} ${rise}`);

/** Treads between risers that follow each other, each as its own shape; round ones go on in arcs from riser to riser. */
export function treadsBetween(points: readonly XY[], isRound = false): string[] {
  const treads: string[] = [];
  const rise = (from: number, to: number) => {
    const [a, b] = [points[from], points[to]];
    if (!isRound || !a || !b) return 0;
    const step = to - from;
    const beyond = [points[from - step], points[to + step]].filter((p) => p !== undefined);
    return beyond.reduce((sum, p) => sum + riseBeside(p, a, b), 0) / Math.max(1, beyond.length);
  };
  for (let i = 0; i + 3 < points.length; i += 2) {
    const [a, b, c, d] = points.slice(i, i + 4) as [XY, XY, XY, XY];
    treads.push([place(a), place(b, rise(i + 1, i + 3)), place(d), place(c, rise(i + 2, i))].join("; "));
  }
  return treads;
}

/** Over its chord from a to b, mm to the left: an arc of the circle that passes another point, on the side away from that. */
function riseBeside(p: XY, a: XY, b: XY): number {
  const cross = (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);
  const chord = distance(a, b);
  // Of a triangle: the product of its sides over four times its area.
  const radius = (chord * distance(b, p) * distance(p, a)) / Math.max(1e-9, 2 * Math.abs(cross));
  return Math.abs(cross) < 1e-6 * chord ** 2
    ? 0
    : -Math.sign(cross) * (radius - Math.sqrt(Math.max(0, radius ** 2 - chord ** 2 / 4)));
}

/** Whether two edges cross. */
function crosses(a: XY, b: XY, c: XY, d: XY): boolean {
  const side = (p: XY, q: XY, r: XY) => (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]);
  return side(a, b, c) * side(a, b, d) < 0 && side(c, d, a) * side(c, d, b) < 0;
}

/** What has been drawn so far stands. */
export async function endStair(): Promise<void> {
  const { storey } = useDesk.getState();
  const { way, width, risers, turn, build, rails, edges } = useNextStair.getState();
  const clicked = pointsNow();
  const boxed = way === "box" && clicked[0] && clicked[1] ? inBox(clicked[0], clicked[1], width) : null;
  const points = boxed?.line ?? inTurn(way, clicked);
  const [a, b, c] = points;
  if (storey === null || !a || !b) return clearDraft();
  const { draft } = useDesk.getState();
  const traced = way === "risers" ? treadsBetween(points, edges === "round") : [];
  if (way === "risers" && traced.length === 0)
    return say("Click both ends of two risers or more: treads lie between them.");
  // Over a drawing what its ink shows is laid, unless a number was typed.
  const isLine = way === "line" || way === "box";
  const wide = boxed?.width ?? width;
  const drawn = isLine && risers === null ? await drawnFlights(points, boxed ? "landing" : turn, wide) : null;
  if (useDesk.getState().draft !== draft) return; // ended meanwhile
  const line =
    way === "bend" && c
      ? `${place(a, riseThrough(a, b, c))}; ${place(c)}`
      : isLine
        ? (drawn?.ends ?? points).map((p) => place(p)).join("; ")
        : "";
  const id = newId();
  await sendDraft("Draw a stair", [
    {
      do: "add",
      type: "stair",
      id,
      values: {
        storey,
        reaches: null,
        drawing: useDesk.getState().drawing,
        line,
        treads: traced.join("|"),
        width: wide,
        risers: way === "risers" ? traced.length + 1 : (risers ?? drawn?.risers ?? risersFor(storey)),
        turn: boxed ? "landing" : turn,
        winders: 3,
        build,
        thickness: build === "slab" ? 150 : 40,
        nosing: 0,
        rails,
        railHeight: 900,
        headroom: 2000,
      },
    },
  ]);
  // A typed number was for this one.
  useNextStair.setState({ risers: null });
  useDesk.setState({ selected: { type: "stair", id }, group: [], things: [] });
}

/** Between flights that run beside each other, mm; common practice, no source. */
const BETWEEN_MM = 20;

/**
 * Walking line of a stair in a box from its first corner, at which it begins: one flight along it, or two beside each other with a landing
 * at the far end where there is room for two that are as wide as flights are.
 */
export function inBox(from: XY, to: XY, width: number): { line: XY[]; width: number } {
  const [dx, dy] = [to[0] - from[0], to[1] - from[1]];
  const isWide = Math.abs(dx) >= Math.abs(dy);
  // Along the longer side, and across it.
  const [along, across] = isWide ? [dx, dy] : [dy, dx];
  const at = (s: number, n: number): XY => (isWide ? [from[0] + s, from[1] + n] : [from[0] + n, from[1] + s]);
  const breadth = Math.abs(across);
  if (breadth < 2 * width) return { line: [at(0, across / 2), at(along, across / 2)], width: breadth };
  const flight = (breadth - BETWEEN_MM) / 2;
  const [near, far] = [(Math.sign(across) * flight) / 2, across - (Math.sign(across) * flight) / 2];
  const end = along - (Math.sign(along) * flight) / 2;
  return { line: [at(0, near), at(end, near), at(end, far), at(0, far)], width: flight };
}

/** Ends of risers, so that the first ends of all of them lie on one side. */
function inTurn(way: StairWay, points: readonly XY[]): readonly XY[] {
  if (way !== "risers") return points;
  const sorted: XY[] = [];
  for (let i = 0; i + 1 < points.length; i += 2) {
    const [p, q] = [points[i], points[i + 1]] as [XY, XY];
    const [a, b] = [sorted.at(-2), sorted.at(-1)];
    sorted.push(...(a && b && crosses(a, p, b, q) ? [q, p] : [p, q]));
  }
  return sorted;
}

export const stairsHere = (rows: Iterable<Thing<"stair">>, storey: string | null): Thing<"stair">[] =>
  [...rows].filter((s) => s.storey === storey);

/** The stair whose treads lie over a place. */
export function stairAt(at: XY): string | null {
  return useShown.getState().stairs.find((s) => s.goesUp && s.rings.some((ring) => contains(ring, at)))?.id ?? null;
}

/** Points of its walking line. */
export function linePoints(id: string): XY[] {
  const line = useProject.getState().rows.stair.get(id)?.line ?? "";
  return line === ""
    ? []
    : line.split(";").map((p): XY => {
        const [x = 0, y = 0] = p.trim().split(" ").map(Number);
        return [x, y];
      });
}

/** The same places, each put elsewhere. */
export function placed(text: string, to: (at: XY, i: number) => XY): string {
  let i = 0;
  return text
    .split("|")
    .map((part) =>
      part
        .split(";")
        .map((p) => {
          const [x = 0, y = 0, ...rise] = p.trim().split(" ").map(Number);
          return [...to([x, y], i++), ...rise].join(" ");
        })
        .join("; "),
    )
    .join("|");
}

/** A drag of a point of its line moves that, one of the stair all of it. */
export function stairDrag(id: string, at: XY, reach: number): Drag | null {
  const stair = useProject.getState().rows.stair.get(id);
  if (!stair) return null;
  const points = linePoints(id);
  const held = points.findIndex((p) => distance(p, at) < reach);
  if (held < 0 && stairAt(at) !== id) return null;
  let by: XY = [0, 0];
  const moved = ([x, y]: XY, i: number): XY => (held < 0 || i === held ? [x + by[0], y + by[1]] : [x, y]);
  return {
    move(from, to) {
      by = [to[0] - from[0], to[1] - from[1]];
      const ring = points.map(moved);
      const lines = ring.slice(1).map((p, i) => [ring[i] ?? p, p] as const);
      const shown = useShown.getState().stairs.find((s) => s.id === id);
      const whole = held < 0 ? (shown?.rings ?? []) : [];
      const outlines = whole.flatMap((r) =>
        r.map((p, i) => {
          const q = r[(i + 1) % r.length] ?? p;
          return [moved([p[0] ?? 0, p[1] ?? 0], -1), moved([q[0] ?? 0, q[1] ?? 0], -1)] as const;
        }),
      );
      useDesk.setState({ draft: { of: "moved", lines: [...lines, ...outlines], told: false } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      const values = stair.line === "" ? { treads: placed(stair.treads, moved) } : { line: placed(stair.line, moved) };
      await change("Move a stair", [{ do: "set", type: "stair", id, values }]);
    },
  };
}
