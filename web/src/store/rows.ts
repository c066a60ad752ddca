import type { Row, Schemas } from "../api/client";

export const DRAWING_KINDS = ["plan", "roof", "elevation", "section", "site", "detail"] as const;
export type DrawingKind = (typeof DRAWING_KINDS)[number];
export const TINTS = ["ink", "teal", "plum", "ochre", "rust"] as const;
export type Tint = (typeof TINTS)[number];

export const LEVEL_KINDS = ["ground", "finished floor", "sill", "head", "eaves", "ridge", "other"] as const;
export const OUTLINE_KINDS = ["face", "slab", "ceiling", "roof edge", "kerb", "plinth", "void"] as const;
export type OutlineKind = (typeof OUTLINE_KINDS)[number];

/** The centre line of a wall, or one of its faces as seen from its start. */
export type WallSide = "centre" | "left" | "right";

export type LevelKind = (typeof LEVEL_KINDS)[number];

/** Typed faces of the rows that the interface reads. */
export interface Values {
  project: {
    name: string;
    purpose: Schemas["Purpose"];
    unit: Schemas["Unit"];
    /** the building's module, mm */
    course: number | null;
    unitLength: number | null;
    joint: number;
  };
  storey: { name: string; elevation: number; height: number; alternativeOf: string | null };
  /** its line on the plan runs from its left end to its right as it is looked at */
  side: { name: string; fromX: number | null; fromY: number | null; toX: number | null; toY: number | null };
  source: {
    name: string;
    sha256: string;
    bytes: number;
    mediaType: string;
    origin: string;
    address: string;
    broughtBy: string;
    broughtAt: string;
  };
  page: {
    source: string;
    number: number;
    width: number;
    height: number;
    resolution: number | null;
    remark: string;
    hintMmPerPixel: number | null;
    hintFrom: string;
    replaces: string | null;
  };
  drawing: {
    page: string;
    storey: string | null;
    side: string | null;
    name: string;
    kind: DrawingKind;
    left: number;
    top: number;
    width: number;
    height: number;
    fade: number;
    /** quarter turns, counter-clockwise as seen */
    turns: number;
    inkOnly: boolean;
    tint: Tint;
    before: boolean;
    order: number;
    hidden: boolean;
    /** what its fit may do to the picture */
    model: Schemas["Model"];
    /** x's factor over y's as typed */
    ownFactor: number | null;
    statedScale: number | null;
    statedPaper: number | null;
    /** control points say where it lies, but not how large it is */
    keepsSize: boolean;
    locked: boolean;
  };
  fit: {
    model: string;
    isGuess: boolean;
    m00: number;
    m01: number;
    m02: number;
    m10: number;
    m11: number;
    m12: number;
    m20: number;
    m21: number;
    m22: number;
    lensK: number | null;
    lensX: number | null;
    lensY: number | null;
    plusMinusMmPer10m: number | null;
  };
  pick: { drawing: string; x: number; y: number; sigmaPx: number };
  knownLength: {
    drawing: string;
    a: string;
    b: string;
    text: string;
    unit: Schemas["Unit"];
    mm: number;
    stepMm: number;
    standing: string;
    ends: string;
    picked: string;
    wall: number;
    along: string;
    c: string | null;
    heldOut: boolean;
    wholePage: boolean;
    course: number | null;
    unitLength: number | null;
    joint: number;
    /** how far it stands before the wall plane, and from how far away that was photographed, mm */
    standOff: number | null;
    seenFrom: number | null;
  };
  gridPick: {
    drawing: string;
    a: string;
    b: string;
    axis: "x" | "y";
    bearing: number | null;
    hand: "picked" | "ink" | "typed";
  };
  rectangle: {
    drawing: string;
    a: string;
    b: string;
    c: string;
    d: string;
    width: string;
    depth: string;
    unit: Schemas["Unit"];
    standing: string;
  };
  controlPoint: { drawing: string; pick: string; x: number; y: number; text: string };
  levelMark: {
    drawing: string;
    pick: string;
    kind: LevelKind;
    name: string;
    text: string;
    unit: Schemas["Unit"];
  };
  outline: {
    side: string | null;
    storey: string | null;
    name: string;
    kind: OutlineKind;
    thickness: number | null;
    /** of its top above the storey's floor, mm */
    top: number | null;
  };
  outlineCorner: { outline: string; drawing: string | null; order: number; x: number; y: number };
  gridAxis: { along: "x" | "y"; at: number; label: string };
  boundary: { storey: string; name: string; x: number; y: number; up: string };
  leg: { boundary: string; order: number; length: string; bearing: string; unit: Schemas["Unit"] };
  column: { storey: string; x: number; y: number; width: number; depth: number; round: boolean };
  node: { storey: string; drawing: string | null; x: number; y: number };
  wall: {
    storey: string;
    fromNode: string;
    toNode: string;
    thickness: number;
    height: number | null;
    line: "centre" | "left" | "right";
    evidence: "figure" | "ink" | "free hand";
    /** of an arc over its chord, mm, positive to the left */
    rise: number;
    enclosing: boolean;
    buildUp: string | null;
  };
  buildUp: { name: string; thickness: number; height: number | null; enclosing: boolean };
  opening: {
    wall: string;
    kind: "door" | "window" | "opening";
    offset: number;
    width: number;
    sill: number;
    height: number | null;
    hand: "left" | "right";
    swing: "left" | "right";
    number: string;
    leaf: "single" | "double" | "sliding";
  };
  room: {
    storey: string;
    drawing: string | null;
    name: string;
    number: string;
    x: number;
    y: number;
    /** of its ceiling, mm; null takes the storey's */
    height: number | null;
  };
  divider: { storey: string; drawing: string | null; x1: number; y1: number; x2: number; y2: number };
  figure: {
    storey: string;
    drawing: string | null;
    a: string;
    aSide: WallSide;
    b: string;
    bSide: WallSide;
    text: string;
    mm: number;
    tracedMm: number | null;
    siteText: string;
    siteMm: number | null;
    decided: "open" | "figure" | "ink" | "site";
    reason: string;
  };
  note: {
    storey: string;
    x: number;
    y: number;
    toX: number | null;
    toY: number | null;
    words: string;
    assumption: boolean;
  };
  listedRoom: {
    storey: string;
    number: string;
    name: string;
    width: number | null;
    depth: number | null;
    areaM2: number | null;
  };
}

export type Kind = keyof Values;
export type Thing<K extends Kind> = { id: string; revision: number } & Values[K];
export type Rows = { readonly [K in Kind]: ReadonlyMap<string, Thing<K>> };

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
  "boundary",
  "leg",
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
  "listedRoom",
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
  return { ...rows, ...next } as Rows;
}
