import type { Row } from "../api/client";

/** Values of the rows of each kind, as the contract has them. */
export type Values = { [R in Row as R["type"]]: R["values"] };

export type Kind = keyof Values;
export type Thing<K extends Kind> = { id: string; revision: number } & Values[K];
export type Rows = { readonly [K in Kind]: ReadonlyMap<string, Thing<K>> };

export type DrawingKind = Values["drawing"]["kind"];
export type Tint = Values["drawing"]["tint"];
export type LevelKind = Values["levelMark"]["kind"];
export type OutlineKind = Values["outline"]["kind"];
/** The centre line of a wall, or one of its faces as seen from its start. */
export type WallSide = Values["figure"]["aSide"];

export const DRAWING_KINDS: readonly DrawingKind[] = ["plan", "roof", "elevation", "section", "site", "detail"];
export const TINTS: readonly Tint[] = ["ink", "teal", "plum", "ochre", "rust"];
export const LEVEL_KINDS: readonly LevelKind[] = [
  "ground",
  "finished floor",
  "sill",
  "head",
  "eaves",
  "ridge",
  "other",
];
export const OUTLINE_KINDS: readonly OutlineKind[] = [
  "face",
  "slab",
  "ceiling",
  "roof",
  "chimney",
  "dormer",
  "roof edge",
  "kerb",
  "plinth",
  "void",
];

const KINDS: readonly Kind[] = [
  "project",
  "storey",
  "side",
  "source",
  "page",
  "drawing",
  "fit",
  "pick",
  "knownLength",
  "gridPick",
  "rectangle",
  "controlPoint",
  "levelMark",
  "gridAxis",
  "column",
  "object",
  "stair",
  "stairLimit",
  "fireClass",
  "enclosure",
  "enclosedRoom",
  "classesTogether",
  "escapeLimit",
  "finish",
  "surface",
  "savedView",
  "boundary",
  "leg",
  "mapPoint",
  "outline",
  "outlineCorner",
  "buildUp",
  "node",
  "wall",
  "opening",
  "room",
  "divider",
  "figure",
  "note",
  "drawnLine",
  "dimension",
  "sweep",
  "streetPart",
  "printSheet",
  "sheetView",
  "viewMark",
  "listedRoom",
  "assurance",
];

export function noRows(): Rows {
  return Object.fromEntries(KINDS.map((k) => [k, new Map()])) as unknown as Rows;
}

/** Rows with some replaced and some gone; kinds that nothing touches keep their identity. */
export function withRows(
  rows: Rows,
  changed: readonly Row[],
  removed: readonly { type: Kind; id: string }[] = [],
): Rows {
  const next: Record<string, Map<string, unknown>> = {};
  const open = (type: Kind) => {
    next[type] ??= new Map(rows[type] as ReadonlyMap<string, unknown>);
    return next[type];
  };
  for (const row of changed) {
    open(row.type).set(row.id, { id: row.id, revision: row.revision, ...row.values });
  }
  for (const { type, id } of removed) {
    open(type).delete(id);
  }
  return Object.keys(next).length === 0 ? rows : ({ ...rows, ...next } as Rows);
}

/** Rows in the order in which they were made: ids sort by time. */
export function inOrder<T extends { id: string }>(things: Iterable<T>): T[] {
  return [...things].sort((a, b) => (a.id < b.id ? -1 : 1));
}
