import type { Refused } from "../api/client";
import { change, useProject } from "./project";
import type { Values } from "./rows";

type DisplayUnit = Values["project"]["shows"];

/** Ways in which sizes are shown, in words. */
export const SHOWN_IN: readonly (readonly [DisplayUnit, string])[] = [
  ["mm", "mm"],
  ["cm", "cm"],
  ["m", "metres"],
  ["ft-in/2", "ft-in, 1/2"],
  ["ft-in/4", "ft-in, 1/4"],
  ["ft-in/8", "ft-in, 1/8"],
  ["ft-in/16", "ft-in, 1/16"],
  ["ft-in/32", "ft-in, 1/32"],
  ["ft-in/64", "ft-in, 1/64"],
  ["ft", "decimal feet"],
  ["in", "decimal inches"],
];

export const isImperial = (unit: DisplayUnit) => unit.startsWith("ft") || unit === "in";

/** What a bare number means where sizes are shown so. */
function bareUnit(of: DisplayUnit): Values["project"]["unit"] {
  return of.startsWith("ft-in/") ? "ft" : (of as Values["project"]["unit"]);
}

/** All sizes are shown so from here on, and bare numbers mean it; what was typed stays as it was typed. */
export function showAllIn(project: string, shows: DisplayUnit): Promise<Refused | null> {
  const words = SHOWN_IN.find(([unit]) => unit === shows)?.[1] ?? shows;
  // Areas go along where the other system of measures is chosen.
  const before = useProject.getState().rows.project.get(project)?.shows ?? "mm";
  const areas =
    isImperial(shows) === isImperial(before) ? {} : { areas: isImperial(shows) ? ("ft2" as const) : ("m2" as const) };
  const values = { shows, unit: bareUnit(shows), ...areas };
  return change(`Sizes in ${words}`, [{ do: "set", type: "project", id: project, values }]);
}

/** Whether most of what is written on a drawing is in feet and inches; null where too little of it tells. */
export function writtenInFeet(texts: readonly string[]): boolean | null {
  const feet = texts.filter((text) => /['"\u2019\u201d]|\bft\b|\bin\b/.test(text)).length;
  if (texts.length < 3) return null;
  return feet > 0.6 * texts.length ? true : feet < 0.1 * texts.length ? false : null;
}
