import type { Schemas, Shapes } from "../api/client";

export type WallShape = Schemas["WallShape"];
export type Region = Schemas["Region"];
export type Unplaced = Schemas["Unplaced"];
export type Finding = Schemas["Finding"];
export type Leak = Schemas["Leak"];

/** What follows from a storey's walls, as the server told it piece by piece. */
export interface Derived {
  storey: string;
  walls: ReadonlyMap<string, WallShape>;
  regions: ReadonlyMap<string, Region>;
  unplaced: ReadonlyMap<string, Unplaced>;
  areas: Shapes["areas"];
  leaks: readonly Leak[];
  findings: readonly Finding[];
}

/** The shapes with those that differ put in their place. */
export function withShapes(old: Derived | undefined, told: Shapes): Derived {
  const walls = merged(told.whole ? undefined : old?.walls, told.walls, told.removed.walls, (w) => w.id);
  const regions = merged(told.whole ? undefined : old?.regions, told.regions, told.removed.regions, (r) => r.key);
  const unplaced = merged(told.whole ? undefined : old?.unplaced, told.unplaced, told.removed.unplaced, (u) => u.room);
  const places = [...unplaced.values()];
  const findings = [...walls.values(), ...regions.values()].flatMap((s) => (s.findings.length > 0 ? s.findings : []));
  return {
    storey: told.storey,
    walls,
    regions,
    unplaced,
    areas: told.areas,
    leaks: [...places.flatMap((p) => (p.leak ? [p.leak] : [])), ...[...regions.values()].flatMap((r) => r.leaks)],
    findings: [...findings, ...places.map((p) => p.finding)],
  };
}

/** The same map where nothing of it differs. */
function merged<T>(
  old: ReadonlyMap<string, T> | undefined,
  told: readonly T[],
  removed: readonly string[],
  name: (thing: T) => string,
): ReadonlyMap<string, T> {
  if (old && told.length === 0 && removed.length === 0) return old;
  const next = new Map(old);
  for (const gone of removed) next.delete(gone);
  for (const thing of told) next.set(name(thing), thing);
  return next;
}
