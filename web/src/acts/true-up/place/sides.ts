import { api, type Operation, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import { clearDraft, useDesk } from "../../../board/desk";
import { picksNow } from "../../../board/picking";
import { apply } from "../../../geometry/maps";
import { fitMap } from "../../../store/drawings";
import { change, inProject, useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";

/** Enter at the two ends of a side's line on a plan: which side it is. */
export async function stateSide(text: string, cut = false): Promise<void> {
  const { drawing } = useDesk.getState();
  const { rows } = useProject.getState();
  const map = fitMap(rows, drawing);
  const [a, b] = picksNow();
  const name = cut && !/^section\b/i.test(text.trim()) ? `Section ${text.trim()}`.trim() : text.trim();
  if (!map || !a || !b) return;
  if (text.trim() === "")
    return useDesk.setState({
      slipError: cut ? "What is it called? A, for one." : "Which side is it? South, for one.",
    });
  const [from, to] = [apply(map, a.at), apply(map, b.at)];
  const line = { fromX: from[0], fromY: from[1], toX: to[0], toY: to[1], cut };
  const known = [...rows.side.values()].find((s) => s.name.toLowerCase() === name.toLowerCase());
  clearDraft();
  await change(cut ? "Line of a section" : "Line of a side", [
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
