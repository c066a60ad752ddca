import { useQuery } from "@tanstack/react-query";
import { create } from "zustand";
import { api, type Schemas, settled } from "../../api/client";
import type { XY } from "../../geometry/plane";
import { projectId, useProject } from "../../store/project";
import type { Rows } from "../../store/rows";
import type { Derived } from "../../store/shapes";
import { inWords } from "../../ui/measures";
import { pair } from "../searches";

export type Route = Schemas["EscapeRoute"];
export interface WayOut {
  /** of its region */
  key: string;
  storey: string;
  room: string | null;
  name: string;
  at: readonly number[];
  toExit: Route | null;
  toFinal: Route | null;
  second: { singleMm: number; degrees: number; route: Route } | null;
  /** whether the next floor above is open over it */
  openAbove: boolean;
  /** limits of the project that are not kept */
  broken: readonly { measure: string; message: string }[];
}
export interface WayDown {
  stair: string;
  storey: string;
  /** what it runs in */
  fireClass: string | null;
  route: Route | null;
}
export interface Ways {
  /** whether other ways are looked for */
  seconds: boolean;
  rooms: readonly WayOut[];
  stairs: readonly WayDown[];
}

/** The room whose way is shown on the board, by where its name stands, or the stair. */
export const useShownWay = create<{ key: string | null }>(() => ({ key: null }));

export function keyOf({ storey, at }: WayOut): string {
  return `${storey} ${at.join()}`;
}

const NONE: Ways = { seconds: true, rooms: [], stairs: [] };

/** So many rooms that an edit has touched are asked for by themselves, and told before all others. */
const MOST_ALONE = 20;

/**
 * Ways out of all rooms and down all stairs, asked for once a door is marked as an exit and anew after every change; null where none
 * is. Until all of them are told, those of rooms that have changed are.
 */
export function useWaysOut(): Ways | null {
  const isMarked = useProject((s) => hasExit(s.rows));
  const revision = useProject((s) => s.revision);
  const derived = useProject((s) => s.derived);
  const { data, isPlaceholderData } = useQuery({
    queryKey: ["escape", revision],
    queryFn: () => asked(),
    enabled: isMarked,
    placeholderData: (old) => old,
  });
  const changed = isPlaceholderData && data ? changedSince(data.rooms, derived) : [];
  const isAlone = changed.length > 0 && changed.length <= MOST_ALONE;
  const { data: part } = useQuery({
    queryKey: ["escape", revision, changed],
    queryFn: () => asked(changed.join()),
    enabled: isMarked && isAlone,
  });
  if (!isMarked) return null;
  if (!data) return NONE;
  return isPlaceholderData && part && isAlone ? { ...data, rooms: renewed(data.rooms, derived, part.rooms) } : data;
}

function asked(regions?: string) {
  const query = regions === undefined ? {} : { regions };
  return settled(api.GET("/api/projects/{project}/escape", { params: { path: { project: projectId() }, query } }));
}

/** Keys of regions that are there now and were not when ways were told. */
export function changedSince(told: readonly WayOut[], derived: ReadonlyMap<string, Derived>): string[] {
  const keys = new Set(told.map((w) => w.key));
  // Of an alternative storey nothing was told, and nothing will be.
  const storeys = new Set(told.map((w) => w.storey));
  const ofBuilding = [...derived].filter(([storey]) => storeys.has(storey));
  return ofBuilding.flatMap(([, { regions }]) => [...regions.keys()].filter((key) => !keys.has(key)));
}

/** What was told, without rooms that are as they were no more, and with those that were asked for by themselves. */
export function renewed(
  told: readonly WayOut[],
  derived: ReadonlyMap<string, Derived>,
  part: readonly WayOut[],
): WayOut[] {
  const isThere = ({ storey, key }: WayOut) => derived.get(storey)?.regions.has(key) ?? true;
  return [...told.filter(isThere), ...part];
}

function hasExit(rows: Rows): boolean {
  for (const opening of rows.opening.values()) if (opening.exit !== "none") return true;
  return false;
}

/** Those of a storey, the furthest first, after those from which there is none. */
export function waysOf(ways: readonly WayOut[], storey: string | null): WayOut[] {
  const far = (w: WayOut) => w.toFinal?.mm ?? w.toExit?.mm ?? Number.POSITIVE_INFINITY;
  return ways.filter((w) => w.storey === storey).sort((a, b) => far(b) - far(a));
}

/** How far it is, in words. */
export function farWords({ toExit, toFinal }: WayOut): string {
  if (!toExit) return "no way out";
  if (!toFinal) return `${inWords(toExit.mm)} to a storey exit, none into the open air`;
  const near = toExit.exit === toFinal.exit ? "" : `, ${inWords(toExit.mm)} to a storey exit`;
  return `${inWords(toFinal.mm)} into the open air${near}`;
}

/** Another way out from the same place, in words; nothing where there is no other exit. */
export function secondWords({ second }: WayOut, rows: Rows): string {
  if (!second) return "";
  const { singleMm, degrees, route } = second;
  const to = rows.opening.get(route.exit)?.number || "another exit";
  const from = singleMm < 1 ? "At once" : `After ${inWords(singleMm)}`;
  return `${from} another way, ${Math.round(degrees)}° apart: ${inWords(route.mm)} to ${to}.`;
}

/** What is passed on a way, and what is in its way, in words. */
export function passedWords(route: Route, rows: Rows): string {
  const named = (ids: readonly string[]) => ids.map((id) => rows.opening.get(id)?.number || "a door").join(", ");
  const stairs = route.stairs.length === 0 ? "" : route.stairs.length === 1 ? " and a stair" : " and stairs";
  const against =
    route.against.length === 0
      ? ""
      : `; against it ${route.against.length === 1 ? "opens" : "open"} ${named(route.against)}`;
  return `through ${named(route.doors)}${stairs}, ${inWords(route.narrowestMm)} at the narrowest${against}`;
}

/** How much of a way is enclosed, and by what; nothing where nothing of it is. */
export function enclosedWords(route: Route, rows: Rows): string {
  const byClass = new Map<string, number>();
  for (const { fireClass, mm } of route.enclosed) {
    if (fireClass !== null) byClass.set(fireClass, (byClass.get(fireClass) ?? 0) + mm);
  }
  const whole = route.enclosed.length === 1 && byClass.size === 1;
  const parts = [...byClass].map(
    ([id, mm]) => `${whole ? "all of it" : inWords(mm)} in ${rows.fireClass.get(id)?.name ?? "an enclosure"}`,
  );
  return parts.join(", ");
}

/** How far what encloses the beginning of a way goes without a break; null where nothing encloses it all the way. */
export function leftAfter(route: Route): number | null {
  const [first] = route.enclosed;
  if (!first || first.fireClass === null) return 0;
  return route.enclosed.length === 1 ? null : first.mm;
}

/** What of a way lies on a storey: stretches without a stair between them. */
export function stretchesOn(route: Route, storey: string | null): XY[][] {
  const stretches: XY[][] = [];
  let before: string | null = null;
  for (const place of route.places) {
    if (place.storey === storey) {
      if (before === storey) stretches.at(-1)?.push(pair(place.at));
      else stretches.push([pair(place.at)]);
    }
    before = place.storey;
  }
  return stretches;
}
