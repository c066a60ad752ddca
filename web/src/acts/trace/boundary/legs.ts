import { create } from "zustand";
import type { Operation, Refused } from "../../../api/client";
import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { isClash } from "../../../store/edits";
import { projectUnit } from "../../../store/lengths";
import { change, say, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { typedOnSite } from "../../../ui/measures";
import { boundariesOf, legsOf } from "./boundary";

/** A leg as it is typed; without a radius it is straight. */
export type LegTyped = Pick<Thing<"leg">, "bearing" | "length" | "radius" | "turns" | "gives">;

export const NO_LEG: LegTyped = { bearing: "", length: "", radius: "", turns: "left", gives: "chord" };

/**
 * Which boundary of the storey is being typed, whether the next click begins another one, the leg that is open, and how often the board
 * was clicked: what is typed after that belongs to the next leg.
 */
export const useBoundaryAtHand = create<{
  boundary: string | null;
  another: boolean;
  leg: string | null;
  clicks: number;
}>(() => ({ boundary: null, another: false, leg: null, clicks: 0 }));

/** The one that was chosen, or the first of the storey. */
export function boundaryAtHand(): Thing<"boundary"> | undefined {
  const here = boundariesOf(useProject.getState().rows.boundary.values(), useDesk.getState().storey);
  return here.find((b) => b.id === useBoundaryAtHand.getState().boundary) ?? here[0];
}

/** @returns why it was refused, or null; what it met of somebody else's is told elsewhere */
async function made(title: string, operations: Operation[]): Promise<Refused | null> {
  const refused = await change(title, operations);
  if (!refused || isClash(refused)) return null;
  // It is said at the fields.
  say(null);
  return refused;
}

/** Adds the leg that closes a boundary, or computes that leg anew; it says that it was computed. */
export function close(
  boundary: string,
  { mm, bearing }: { mm: number; bearing: string },
  before?: string,
): Promise<Refused | null> {
  const leg = { ...NO_LEG, bearing, length: typedOnSite(mm) };
  return before === undefined ? addLeg(boundary, leg, undefined, true) : setLeg(before, leg, true);
}

/** A further leg at the end, or after another: those behind it move on. */
export function addLeg(boundary: string, leg: LegTyped, after?: string, computed = false): Promise<Refused | null> {
  const own = legsOf(useProject.getState().rows.leg.values(), boundary);
  const at = after === undefined ? own.length : own.findIndex((l) => l.id === after) + 1;
  const order = (own[at - 1]?.order ?? -1) + 1;
  return made(after === undefined ? "Boundary leg" : "Insert a leg", [
    ...own.slice(at).map((l, i): Operation => ({ do: "set", type: "leg", id: l.id, values: { order: order + 1 + i } })),
    { do: "add", type: "leg", id: newId(), values: { boundary, order, ...leg, unit: siteUnit(), computed } },
  ]);
}

export function setLeg(id: string, leg: LegTyped, computed = false): Promise<Refused | null> {
  return made("Correct a leg", [{ do: "set", type: "leg", id, values: { ...leg, unit: siteUnit(), computed } }]);
}

/** What a bare number means along a boundary: sites are measured in metres, or in feet; common practice, no source. */
function siteUnit(): Thing<"leg">["unit"] {
  return ["ft", "in"].includes(projectUnit()) ? "ft" : "m";
}

/** As it stands on a plan, bare numbers with the unit that they had when they were typed. */
export function legWords({
  bearing,
  length,
  radius,
  turns,
  gives,
  unit,
}: LegTyped & Pick<Thing<"leg">, "unit">): string {
  const told = (text: string) => (/^[\d.,\s]+$/.test(text) ? `${text.trim()} ${unit}` : text);
  if (radius === "") return `${bearing} · ${told(length)}`;
  const given = { chord: "chord", arc: "along it", angle: "angle" }[gives];
  return `${bearing} · ${given} ${gives === "angle" ? length : told(length)} · R ${told(radius)} ${turns}`;
}
