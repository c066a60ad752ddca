import type { Operation } from "../api/client";
import { api, settled } from "../api/client";
import { newId } from "../api/ids";
import { apply, distance, type XY } from "../board/geometry";
import { change, inProject, useProject } from "../store/project";
import type { LevelKind, OutlineKind, Thing } from "../store/rows";
import { NOTHING_DRAFTED, type Snap, useDesk } from "./desk";
import { projectUnit } from "./draft";
import { inkAt } from "./found";
import { fitMap, inOrder } from "./selectors";
import { SNAP_PX } from "./snap";
import { addPick, sendStatement } from "./statements";

/** `sill`, `eaves +5.49 m`: what lies there, and its height where that is known. */
export function levelOf(text: string): { name: string; kind: LevelKind; height: string } {
  const [, words = "", figure = ""] =
    /^(.*?)\s*([±+−-]?\s*\d[\d\s.,'"’”½¼¾/-]*(?:mm|cm|m|ft|in)?)?$/u.exec(text.trim()) ?? [];
  const name = words.trim();
  const plain = name.toLowerCase();
  const kind = (["sill", "head", "eaves", "ridge"] as const).find((k) => plain.includes(k));
  return {
    name,
    kind: kind ?? (plain.includes("floor") ? "finished floor" : plain.includes("ground") ? "ground" : "other"),
    height: figure
      .replace(/^[±+]\s*/, "")
      .replace(/^−\s*/, "-")
      .trim(),
  };
}

/** Enter at a level that was picked. */
export async function stateLevel(text: string): Promise<void> {
  const { drawing, picks } = useDesk.getState();
  const [p] = picks;
  if (drawing === null || !p) return;
  const level = levelOf(text);
  if (level.name === "" && level.height === "") {
    return useDesk.setState({ slipError: "Say what lies here: finished floor 0, sill, head, eaves, ridge." });
  }
  const id = newId();
  await sendStatement(
    "Level mark",
    [
      addPick(id, drawing, p),
      {
        do: "add",
        type: "levelMark",
        id: newId(),
        values: {
          drawing,
          pick: id,
          kind: level.kind,
          name: level.name === "" ? "level" : level.name,
          text: level.height,
          unit: projectUnit(),
        },
      },
    ],
    text,
  );
}

/** A hand clicks faster than the ink is looked at: corners are put one after the other, and the end waits for them. */
let putting: Promise<void> | null = null;

/** A click while an outline is traced: the next corner, or, on the first one, its end. */
export function outlinePoint(pointer: XY, free: boolean, corners: boolean): Promise<void> {
  const desk = useDesk.getState();
  const seen = desk.pointer === pointer ? desk.snap : null;
  const put = () => putCorner(pointer, free, corners, seen);
  const mine: Promise<void> = (putting ? putting.then(put) : put()).finally(() => {
    if (putting === mine) putting = null;
  });
  putting = mine;
  return mine;
}

async function putCorner(pointer: XY, free: boolean, corners: boolean, seen: Snap | null): Promise<void> {
  const { ring, view } = useDesk.getState();
  const [first] = ring;
  if (first && ring.length > 2 && distance(first, pointer) < SNAP_PX / view.k) return saveOutline();
  const corner = free ? null : wallCornerNear(pointer);
  if (corner) return useDesk.setState({ ring: [...ring, corner], snap: null });
  const found = free ? null : (seen ?? (await inkAt(pointer, corners)));
  // Stepped back meanwhile: the corner belongs to nothing any more.
  if (useDesk.getState().ring !== ring) return;
  useDesk.setState({ ring: [...ring, found?.at ?? pointer], snap: null });
}

/** The corner of a traced wall's face within the reach of a point. */
export function wallCornerNear(p: XY): XY | null {
  const { storey, view } = useDesk.getState();
  const shapes = useProject.getState().derived.get(storey ?? "");
  let best: { at: XY; off: number } | null = null;
  for (const { stretches } of shapes?.walls.values() ?? []) {
    for (const { right, left } of stretches) {
      for (const [x = 0, y = 0] of [...right, ...left]) {
        const off = Math.hypot(x - p[0], y - p[1]);
        if (off < SNAP_PX / view.k && (best === null || off < best.off)) best = { at: [x, y], off };
      }
    }
  }
  return best?.at ?? null;
}

/** What an outline on a storey usually is: mm. Common practice, no source. */
const USUAL: Record<OutlineKind, { name: string; thickness: number | null; top: number | null }> = {
  face: { name: "Face", thickness: null, top: null },
  slab: { name: "Floor", thickness: 200, top: 0 },
  ceiling: { name: "Ceiling", thickness: 30, top: 2500 },
  "roof edge": { name: "Roof edge", thickness: 200, top: null },
  kerb: { name: "Kerb", thickness: 150, top: 150 },
  plinth: { name: "Plinth", thickness: 300, top: 0 },
  void: { name: "Void", thickness: null, top: null },
};

/** Saves the outline that was traced, if it has enough corners, as soon as the last of them is put. */
export async function closeOutline(): Promise<void> {
  if (putting) await putting;
  return saveOutline();
}

async function saveOutline(): Promise<void> {
  const { ring, side, storey, drawing, outlineKind } = useDesk.getState();
  if ((side === null && storey === null) || ring.length < 3) return;
  const outline = newId();
  const kind = side === null ? outlineKind : "face";
  const { name, thickness, top } = USUAL[kind];
  const count = [...useProject.getState().rows.outline.values()].filter(
    (o) => o.side === side && (side !== null || o.storey === storey) && o.kind === kind,
  ).length;
  const place = side === null ? { storey, side: null } : { storey: null, side };
  useDesk.setState(structuredClone(NOTHING_DRAFTED));
  const refused = await change("Trace an outline", [
    {
      do: "add",
      type: "outline",
      id: outline,
      values: { ...place, kind, thickness, top, name: count === 0 ? name : `${name} ${count + 1}` },
    },
    ...ring.map(
      ([x, y], order): Operation => ({
        do: "add",
        type: "outlineCorner",
        id: newId(),
        values: { outline, drawing, order, x, y },
      }),
    ),
  ]);
  if (refused) useDesk.setState({ ring });
}

/** Enter at the two ends of a side's line on a plan: which side it is. */
export async function stateSide(text: string): Promise<void> {
  const { drawing, picks } = useDesk.getState();
  const { rows } = useProject.getState();
  const map = fitMap(rows, drawing);
  const [a, b] = picks;
  const name = text.trim();
  if (!map || !a || !b) return;
  if (name === "") return useDesk.setState({ slipError: "Which side is it? South, for one." });
  const [from, to] = [apply(map, a.at), apply(map, b.at)];
  const line = { fromX: from[0], fromY: from[1], toX: to[0], toY: to[1] };
  const known = [...rows.side.values()].find((s) => s.name.toLowerCase() === name.toLowerCase());
  useDesk.setState(structuredClone(NOTHING_DRAFTED));
  await change("Line of a side", [
    known
      ? { do: "set", type: "side", id: known.id, values: line }
      : { do: "add", type: "side", id: newId(), values: { name, ...line } },
  ]);
}

/** The first side that has no line on the plan yet. */
export function sideWithoutLine(sides: Iterable<Thing<"side">>): Thing<"side"> | undefined {
  return inOrder(sides).find((s) => s.fromX === null);
}

const ROUND = [
  ["South", 0, 0, 1, 0],
  ["East", 1, 0, 1, 1],
  ["North", 1, 1, 0, 1],
  ["West", 0, 1, 0, 0],
] as const;

/** Lines on all four sides of what is traced on a storey, each from its left end to its right as it is looked at. */
export async function foursides(storey: string): Promise<void> {
  const { rows } = useProject.getState();
  const nodes = [...rows.node.values()].filter((n) => n.storey === storey);
  const walls = [...rows.wall.values()].filter((w) => w.storey === storey);
  if (nodes.length === 0) return;
  const half = Math.max(0, ...walls.map((w) => (w.line === "centre" ? w.thickness / 2 : 0)));
  const xs = nodes.map((n) => n.x);
  const ys = nodes.map((n) => n.y);
  const [x1, x2, y1, y2] = [
    Math.min(...xs) - half,
    Math.max(...xs) + half,
    Math.min(...ys) - half,
    Math.max(...ys) + half,
  ];
  const operations = ROUND.map(([word, ax, ay, bx, by]): Operation => {
    const known = [...rows.side.values()].find((s) => s.name.toLowerCase().startsWith(word.toLowerCase()));
    const line = {
      fromX: ax ? x2 : x1,
      fromY: ay ? y2 : y1,
      toX: bx ? x2 : x1,
      toY: by ? y2 : y1,
    };
    return known
      ? { do: "set", type: "side", id: known.id, values: line }
      : { do: "add", type: "side", id: newId(), values: { name: word, ...line } };
  });
  await change("Four sides", operations);
}

/** Corners of the plan along a side; null where the side has no line on it. */
export async function planCorners(side: string): Promise<{ alongMm: number; behindMm: number }[] | null> {
  const row = useProject.getState().rows.side.get(side);
  if (!row || row.fromX === null) return null;
  const { corners } = await settled(
    api.GET("/api/projects/{project}/sides/{id}/corners", { params: { path: inProject(side) } }),
  );
  return corners;
}

/** Those of the building's near face: within a metre of the nearest, no two within a centimetre. */
export function nearestCorners(corners: readonly { alongMm: number; behindMm: number }[]): number[] {
  const near = Math.min(...corners.map((c) => Math.abs(c.behindMm)));
  const along = corners
    .filter((c) => Math.abs(c.behindMm) < near + 1000)
    .map((c) => c.alongMm)
    .sort((a, b) => a - b);
  return along.filter((x, i) => i === 0 || x - (along[i - 1] ?? 0) > 10);
}
