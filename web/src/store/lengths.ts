import { api, type Refused, settled } from "../api/client";
import { say, useProject } from "./project";

export function projectUnit() {
  const [project] = useProject.getState().rows.project.values();
  return project?.unit ?? "mm";
}

/**
 * What a text says of a length, read by the core; throws a `Refused` where it says none. Whole millimetres, which say
 * nothing else in any reading, need no server: walls are traced without one as well.
 */
export async function lengthOf(text: string): Promise<number> {
  const plain = /^\s*(\d{1,6})\s*(mm)?\s*$/.exec(text);
  const mm = plain && (plain[2] || projectUnit() === "mm") ? Number(plain[1]) : 0;
  if (mm > 0) return mm;
  return (await settled(api.GET("/api/length", { params: { query: { text, unit: projectUnit() } } }))).mm;
}

/** The same with a sign before it, and nothing at all as `0`: where something lies. */
async function placeOf(text: string): Promise<number> {
  const [, sign = "", rest = ""] = /^\s*([+\-−±]?)\s*(.*?)\s*$/.exec(text) ?? [];
  if (/^0+([.,]0*)?\s*(mm|cm|m|ft|in|'|")?$/.test(rest)) return 0;
  const mm = await lengthOf(rest);
  return sign === "-" || sign === "−" ? -mm : mm;
}

/** @returns mm, or null after what is wrong with the length was said on top */
async function lengthOrSaid(text: string, read = lengthOf): Promise<number | null> {
  try {
    return await read(text);
  } catch (error) {
    say((error as Refused).message);
    return null;
  }
}

/** A length typed into a field of the ledger; what is wrong with it is said on top. */
export async function typed(text: string, take: (mm: number) => unknown): Promise<void> {
  const mm = await lengthOrSaid(text);
  if (mm !== null) take(mm);
}

/** The pitch of a roof typed into a field of the ledger, degrees; what is wrong with it is said on top. */
export async function typedPitch(text: string, take: (degrees: number) => unknown): Promise<void> {
  try {
    take((await settled(api.GET("/api/pitch", { params: { query: { text } } }))).degrees);
  } catch (error) {
    say((error as Refused).message);
  }
}

/** A place typed into a field of the ledger, which may lie below zero or at it. */
export async function typedPlace(text: string, take: (mm: number) => unknown): Promise<void> {
  const mm = await lengthOrSaid(text, placeOf);
  if (mm !== null) take(mm);
}

/** A point or a size as typed, `0 0`, `3.6 x 4.2`, read by the core; throws a `Refused` where it is none. */
export async function twoLengths(text: string, mayBeOne: "yes" | "no" = "no"): Promise<readonly [number, number]> {
  const query = { text, unit: projectUnit(), mayBeOne };
  const [first = 0, second = 0] = (await settled(api.GET("/api/lengths", { params: { query } }))).mm;
  return [first, second];
}

/** Width and depth as typed, `350` or `350 × 450`, in mm; null after what is wrong with them was said on top. */
export async function sidesOf(text: string): Promise<readonly [number, number] | null> {
  try {
    return await twoLengths(text, "yes");
  } catch (error) {
    say((error as Refused).message);
    return null;
  }
}
