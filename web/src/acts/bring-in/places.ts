import type { Operation, Schemas } from "../../api/client";
import { newId } from "../../api/ids";
import type { Place } from "../../store/drawings";
import { type DrawingKind, inOrder, type Rows, type Thing } from "../../store/rows";
import { usualStoreyHeight } from "../../store/usual";

type Title = Schemas["Title"];

/** Where a drawing is to go: a storey or side that is there, or one still to be made. */
export type Wanted =
  | { storey: string }
  | { side: string }
  /** storeys between it and the ground, below it negative; null for one on top of all */
  | { newStorey: string; level: number | null }
  | { newSide: string };

/** Elevations and sections stand on a side, details on a plane of their own that has no line; everything else lies on a storey. */
export const stands = (kind: DrawingKind) => kind === "elevation" || kind === "section" || kind === "detail";

/** What the side is called that details stand on. */
const DETAILS = "Details";

const byHeight = (rows: Rows) =>
  [...rows.storey.values()].filter((s) => s.alternativeOf === null).sort((a, b) => a.elevation - b.elevation);

/** Which of the storeys lies on the ground: the one nearest to zero. */
function groundOf(storeys: readonly Thing<"storey">[]): number {
  const heights = storeys.map((s) => Math.abs(s.elevation));
  return Math.max(0, heights.indexOf(Math.min(...heights)));
}

/** What a storey below all others is called. */
export function basementBelow(rows: Rows): string {
  const depth = groundOf(byHeight(rows)) + 1;
  return depth === 1 ? "Basement" : `Basement ${depth}`;
}

/** The storey that is called so, or the one at its level; where there is none yet, one to be made. */
export function storeyAt(rows: Rows, name: string, level: number | null): Wanted {
  const storeys = byHeight(rows);
  const at = level === null ? undefined : storeys[groundOf(storeys) + level];
  const found = storeys.find((s) => s.name.toLowerCase() === name.toLowerCase()) ?? at;
  return found ? { storey: found.id } : { newStorey: name, level };
}

/** The side that is called so, or one to be made. */
export function sideNamed(rows: Rows, name: string): Wanted {
  const found = inOrder(rows.side.values()).find((s) => s.name.toLowerCase() === name.toLowerCase());
  return found ? { side: found.id } : { newSide: name };
}

/** Where a drawing of a kind may go when it leaves where it is: nothing lies on a side that stands, and the other way round. */
export function placeFor(rows: Rows, kind: DrawingKind, now: Wanted, name: string): Wanted {
  const isOnSide = "side" in now || "newSide" in now;
  if (stands(kind)) return isOnSide ? now : newSideFor(rows, kind, name);
  return isOnSide ? { storey: byHeight(rows)[groundOf(byHeight(rows))]?.id ?? "" } : now;
}

/** Details stand side by side on one; what else stands has one by its own name. */
const newSideFor = (rows: Rows, kind: DrawingKind, name: string): Wanted =>
  kind === "detail" ? sideNamed(rows, DETAILS) : { newSide: name };

export const placeOf = (place: Place): Wanted =>
  place.storey !== null ? { storey: place.storey } : { side: place.side ?? "" };

/** The name of a place, one that is to be made as well. */
export function wantedName(rows: Rows, wanted: Wanted): string {
  if ("storey" in wanted) return rows.storey.get(wanted.storey)?.name ?? "";
  if ("side" in wanted) return rows.side.get(wanted.side)?.name ?? "";
  return "newStorey" in wanted ? wanted.newStorey : wanted.newSide;
}

/** The largest title in a box of the page. */
export function titleIn(
  titles: readonly Title[],
  box: { left: number; top: number; width: number; height: number },
): Title | undefined {
  return titles.find(({ box: at }) => {
    if (!at) return false;
    const [left = 0, top = 0, right = 0, bottom = 0] = at;
    const [x, y] = [(left + right) / 2, (top + bottom) / 2];
    return x >= box.left && x <= box.left + box.width && y >= box.top && y <= box.top + box.height;
  });
}

/** Kind and place as a title says them; what it does not say stays. */
export function placedBy(
  rows: Rows,
  { kind, storey, level, side }: Title,
  now: Wanted,
  name: string,
): { kind: DrawingKind; place: Wanted } {
  if (stands(kind))
    return { kind, place: side ? sideNamed(rows, side) : "side" in now ? now : newSideFor(rows, kind, name) };
  if (storey) return { kind, place: storeyAt(rows, storey, level) };
  return { kind, place: now };
}

/** Makes the places that are not there yet, each once however many drawings go there. */
export class Places {
  readonly operations: Operation[] = [];
  private readonly made = new Map<string, Place>();
  private storeys: readonly { elevation: number; height: number }[];

  constructor(rows: Rows) {
    this.storeys = byHeight(rows);
  }

  at(wanted: Wanted): Place {
    if ("storey" in wanted) return { storey: wanted.storey, side: null };
    if ("side" in wanted) return { storey: null, side: wanted.side };
    const key = JSON.stringify(wanted);
    const place = this.made.get(key) ?? ("newSide" in wanted ? this.newSide(wanted.newSide) : this.newStorey(wanted));
    this.made.set(key, place);
    return place;
  }

  private newSide(name: string): Place {
    const side = newId();
    this.operations.push({ do: "add", type: "side", id: side, values: { name } });
    return { storey: null, side };
  }

  private newStorey({ newStorey: name, level }: { newStorey: string; level: number | null }): Place {
    const storey = newId();
    const [lowest, highest] = [this.storeys[0], this.storeys.at(-1)];
    const height = highest?.height ?? usualStoreyHeight();
    const elevation =
      level !== null && level < 0
        ? (lowest?.elevation ?? 0) - height
        : highest
          ? highest.elevation + highest.height
          : 0;
    const values = { name, elevation, height, alternativeOf: null };
    this.operations.push({ do: "add", type: "storey", id: storey, values });
    this.storeys = [...this.storeys, { elevation, height }].sort((a, b) => a.elevation - b.elevation);
    return { storey, side: null };
  }
}
