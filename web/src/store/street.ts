import type { XY } from "../geometry/plane";
import type { Rows, Thing } from "./rows";

/** A stretch of a side that stands in a row, and where it stands there. */
export interface StandingPart {
  part: Thing<"streetPart">;
  /** mm of its left and its right corner in the row */
  left: number;
  right: number;
  /** from a place of the side to where that is seen in the row, mm */
  by: XY;
}

let known: { parts: Rows["streetPart"]; streets: Map<string, readonly StandingPart[]> } | null = null;
const NONE: readonly StandingPart[] = [];

/** The sides that stand in a row, from the left, each joined to the one before; none where a side is no row of others. */
export function streetParts(rows: Rows, side: string | null): readonly StandingPart[] {
  if (side === null) return NONE;
  if (known?.parts !== rows.streetPart) known = { parts: rows.streetPart, streets: new Map() };
  const found = known.streets.get(side) ?? standing(rows, side);
  known.streets.set(side, found);
  return found;
}

function standing(rows: Rows, side: string): readonly StandingPart[] {
  let left = 0;
  const parts = [...rows.streetPart.values()]
    .filter((p) => p.street === side)
    .sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1))
    .map((part): StandingPart => {
      const at = left;
      left += part.toX - part.fromX;
      return { part, left: at, right: left, by: [at - part.fromX, part.rise] };
    });
  return parts.length === 0 ? NONE : parts;
}

/** The part at a place of the row; the nearest one beside it. */
export function partAt(parts: readonly StandingPart[], x: number): StandingPart | undefined {
  return parts.find((p) => x < p.right) ?? parts.at(-1);
}
