import type { FitReport, Operation } from "../../../api/client";
import type { XY } from "../../../geometry/plane";
import { agree, LEAST_MM } from "../../../store/levels";
import type { Rows, Thing } from "../../../store/rows";

/** What a level on a side says of the building: something that lies there, or could be put there by one click. */
export interface Take {
  /** what it is the height of, as `Upper’s floor` */
  of: string;
  /** where it lies now, mm above zero */
  nowMm: number;
  /** whether that is what the level says, within its ± */
  agrees: boolean;
  title: string;
  operations: Operation[];
}

/** A level on another side that says something else of the same thing. */
export interface Differs {
  side: string;
  byMm: number;
}

type Level = FitReport["levels"][number];

/** Storeys, eaves and windows further off are others, mm. */
const NEAR_MM = 1200;
/** Levels of two sides are of one thing within this, mm; a stair's step is less and a storey much more. Common practice, no source. */
const SAME_MM = 300;
/** Walls run along a side within this of its direction, the sine of 10°; and stand at its front within so much, mm. */
const ALONG_SINE = 0.17;
const FRONT_MM = 1500;

/** What the level of a mark can set; nothing for ground lines, ridges and what it is not known to be. */
export function takeOf(rows: Rows, mark: Thing<"levelMark">, level: Level): Take | null {
  if (level.statedMm === null && level.plusMinusMm === null) return null;
  const mm = Math.round(level.statedMm ?? level.heightMm);
  const storeys = [...rows.storey.values()]
    .filter((s) => s.alternativeOf === null)
    .sort((a, b) => a.elevation - b.elevation);
  if (mark.kind === "finished floor") return floorAt(storeys, mm, level);
  if (mark.kind === "eaves") return eavesAt(rows, storeys, mm, level);
  if (mark.kind === "sill" || mark.kind === "head") return windowsAt(rows, storeys, mark, mm, level);
  return null;
}

function floorAt(storeys: readonly Thing<"storey">[], mm: number, level: Level): Take | null {
  const at = nearest(storeys, (s) => Math.abs(s.elevation - mm));
  const storey = storeys[at];
  if (!storey || Math.abs(storey.elevation - mm) > NEAR_MM) return null;
  const below = storeys[at - 1];
  const by = mm - storey.elevation;
  const set = (id: string, values: Record<string, number>): Operation => ({ do: "set", type: "storey", id, values });
  return {
    of: `${storey.name}’s floor`,
    nowMm: storey.elevation,
    agrees: agree(storey.elevation, mm, level),
    title: `Floor of ${storey.name}`,
    operations: [
      ...(below ? [set(below.id, { height: mm - below.elevation })] : []),
      // The storeys above go along.
      ...storeys.slice(at).map((s) => set(s.id, { elevation: s.elevation + by })),
    ],
  };
}

function eavesAt(rows: Rows, storeys: readonly Thing<"storey">[], mm: number, level: Level): Take | null {
  const roofs = [...rows.outline.values()].filter((o) => o.kind === "roof" && o.storey !== null);
  const storeyOf = (o: Thing<"outline">) => storeys.find((s) => s.id === o.storey);
  const eaves = (o: Thing<"outline">) => (storeyOf(o)?.elevation ?? 0) + (o.top ?? storeyOf(o)?.height ?? 0);
  const roof = roofs[nearest(roofs, (o) => Math.abs(eaves(o) - mm))];
  if (!roof || !storeyOf(roof) || Math.abs(eaves(roof) - mm) > NEAR_MM) return null;
  const top = mm - (storeyOf(roof)?.elevation ?? 0);
  return {
    of: `${roof.name}’s eaves`,
    nowMm: eaves(roof),
    agrees: agree(eaves(roof), mm, level),
    title: `Eaves of ${roof.name}`,
    operations: [{ do: "set", type: "outline", id: roof.id, values: { top } }],
  };
}

/** Sill or head of the windows that the side shows of the storey that the level lies in. */
function windowsAt(
  rows: Rows,
  storeys: readonly Thing<"storey">[],
  mark: Thing<"levelMark">,
  mm: number,
  level: Level,
): Take | null {
  const storey = storeys.findLast((s) => s.elevation <= mm);
  const side = rows.side.get(rows.drawing.get(mark.drawing)?.side ?? "");
  if (!storey || !side) return null;
  const walls = new Set(frontWalls(rows, storey.id, side));
  const isSill = mark.kind === "sill";
  const at = (o: Thing<"opening">) => storey.elevation + o.sill + (isSill ? 0 : (o.height ?? Number.NaN));
  const windows = [...rows.opening.values()].filter(
    (o) => o.kind === "window" && walls.has(o.wall) && !(Math.abs(at(o) - mm) > NEAR_MM),
  );
  const [first] = windows;
  if (!first) return null;
  const rise = mm - storey.elevation;
  const left = windows.filter((o) => isSill || rise > o.sill);
  const words = windows.length === 1 ? first.number || "window" : `${windows.length} windows`;
  return {
    of: `${isSill ? "sill" : "head"} of ${words} on ${side.name}`,
    nowMm: at(first),
    agrees: windows.every((o) => agree(at(o), mm, level)),
    title: `${isSill ? "Sills" : "Heads"} from ${side.name}`,
    operations: left.map(
      (o): Operation => ({
        do: "set",
        type: "opening",
        id: o.id,
        // With its sill a window's head stays where it is.
        values: isSill
          ? {
              sill: rise,
              ...(o.height !== null && o.sill + o.height > rise ? { height: o.sill + o.height - rise } : {}),
            }
          : { height: rise - o.sill },
      }),
    ),
  };
}

/** Walls of a storey that run along a side and stand foremost on it. */
function frontWalls(rows: Rows, storey: string, side: Thing<"side">): string[] {
  const { fromX, fromY, toX, toY } = side;
  if (fromX === null || fromY === null || toX === null || toY === null) return [];
  const length = Math.max(1, Math.hypot(toX - fromX, toY - fromY));
  const [ux, uy] = [(toX - fromX) / length, (toY - fromY) / length];
  const found: { id: string; behind: number }[] = [];
  for (const wall of rows.wall.values()) {
    const [a, b] = [rows.node.get(wall.fromNode), rows.node.get(wall.toNode)];
    if (wall.storey !== storey || !a || !b) continue;
    const way: XY = [b.x - a.x, b.y - a.y];
    if (Math.abs(ux * way[1] - uy * way[0]) > ALONG_SINE * Math.hypot(...way)) continue;
    // Who looks at a side has its right end to the right, so that the building lies to the left of its line.
    found.push({ id: wall.id, behind: ux * ((a.y + b.y) / 2 - fromY) - uy * ((a.x + b.x) / 2 - fromX) });
  }
  const foremost = Math.min(...found.map((f) => f.behind));
  return found.filter((f) => f.behind < foremost + FRONT_MM).map((f) => f.id);
}

/** Levels of the same kind on other sides that lie elsewhere by more than both are known to. */
export function differing(
  rows: Rows,
  fits: ReadonlyMap<string, FitReport>,
  mark: Thing<"levelMark">,
  level: Level,
): Differs[] {
  const own = rows.drawing.get(mark.drawing)?.side ?? null;
  const found: Differs[] = [];
  for (const report of fits.values()) {
    const side = rows.side.get(rows.drawing.get(report.drawing)?.side ?? "");
    if (!side || side.id === own) continue;
    for (const other of report.levels) {
      const byMm = other.heightMm - level.heightMm;
      const known = Math.hypot(other.plusMinusMm ?? 0, level.plusMinusMm ?? 0);
      const isSame = rows.levelMark.get(other.id)?.kind === mark.kind && Math.abs(byMm) < SAME_MM;
      if (isSame && Math.abs(byMm) > Math.max(LEAST_MM, known)) found.push({ side: side.name, byMm });
    }
  }
  return found;
}

function nearest<T>(of: readonly T[], off: (one: T) => number): number {
  return of.reduce((best, one, i) => (best < 0 || off(one) < off(of[best] ?? one) ? i : best), -1);
}
