import type { Refused, Schemas } from "../api/client";
import { clearDraft, drafted, NOTHING_SELECTED, type Snap, useDesk } from "../board/desk";
import { distance, type XY } from "../geometry/plane";
import { chainOf, dimensionLine } from "../store/drawn";
import { change, say, useProject } from "../store/project";
import { drawnSnap } from "./drawnSnap";

declare module "../board/desk" {
  interface Drafts {
    /** what is selected waits for two places: from where to where it goes, or the line that it is mirrored over */
    arranged: { how: "move" | "mirror"; copies: number; from: XY | null };
  }
}

export type Thing = Schemas["Drawn"];
type How = Omit<Schemas["ArrangeAct"]["arrange"], "things">;

/** What is selected that can be arranged: several things, or one. */
export function thingsChosen(): readonly Thing[] {
  const { things, selected } = useDesk.getState();
  if (things.length > 0) return things;
  const type = selected && ARRANGEABLE.find((t) => t === selected.type);
  return selected && type ? [{ type, id: selected.id }] : [];
}

export const ARRANGEABLE = ["drawnLine", "dimension", "note", "outline"] as const;

/** Moves, turns, mirrors or repeats things by one operation, wherever they lie; null once that is made. */
export function arranged(title: string, things: readonly Thing[], how: How): Promise<Refused | null> {
  return change(title, [{ do: "arrange", arrange: { things: [...things], ...how } }]);
}

/** Points of a thing, model. */
export function pointsOf({ type, id }: Thing): XY[] {
  const { rows } = useProject.getState();
  const line = type === "drawnLine" ? rows.drawnLine.get(id) : undefined;
  const dimension = type === "dimension" ? rows.dimension.get(id) : undefined;
  const note = type === "note" ? rows.note.get(id) : undefined;
  if (line) return chainOf(line);
  if (dimension) {
    const { from, to } = dimensionLine(dimension);
    return [[dimension.x1, dimension.y1], from, to, [dimension.x2, dimension.y2]];
  }
  if (note) return [[note.x, note.y]];
  return [...rows.outlineCorner.values()].filter((c) => c.outline === id).map(({ x, y }) => [x, y]);
}

/** The middle of the box round things. */
export function middleOf(things: readonly Thing[]): XY {
  const points = things.flatMap(pointsOf);
  const half = (k: 0 | 1) => {
    const along = points.map((p) => p[k]);
    return (
      (along.reduce((a, b) => Math.min(a, b), Number.POSITIVE_INFINITY) +
        along.reduce((a, b) => Math.max(a, b), Number.NEGATIVE_INFINITY)) /
      2
    );
  };
  return points.length === 0 ? [0, 0] : [half(0), half(1)];
}

/** Waits for two places, or no more if it was waiting for the same already. */
export function askPlaces(how: "move" | "mirror", copies: number): void {
  const before = drafted("arranged");
  clearDraft();
  if (before?.how === how) return;
  useDesk.setState({ act: null, draft: { of: "arranged", how, copies, from: null } });
}

export const placesAsked = () => drafted("arranged");

export const placesWords = (): readonly string[] => {
  const asked = placesAsked();
  if (!asked) return [];
  if (asked.how === "mirror")
    return [asked.from ? "and a second place on it" : "click a place on the line it is mirrored over"];
  return [asked.from ? "click where that goes" : "click a place of it"];
};

/** What such a place holds to. */
export function placesSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  return placesAsked() ? drawnSnap(pointer, reach, free) : null;
}

export function placesPoint(at: XY): void {
  const asked = placesAsked();
  if (!asked) return;
  if (!asked.from) return useDesk.setState({ draft: { ...asked, from: at } });
  if (distance(asked.from, at) < 0.01) return say("The two places lie on each other: choose a second one.");
  const { from, how, copies } = asked;
  clearDraft();
  const things = thingsChosen();
  const many = copies > 0 ? { copies } : {};
  void (how === "mirror"
    ? arranged("Mirror", things, {
        mirror: [
          [from[0], from[1]],
          [at[0], at[1]],
        ],
        ...many,
      })
    : arranged(copies > 0 ? "Repeat" : "Move", things, { by: [at[0] - from[0], at[1] - from[1]], ...many }));
}

/** Removes all that is selected of what was drawn. */
export async function removeThings(): Promise<void> {
  const things = thingsChosen();
  useDesk.setState(NOTHING_SELECTED);
  await change(
    things.length === 1 ? "Remove what was drawn" : `Remove ${things.length} things`,
    things.map(({ type, id }) => ({ do: "remove" as const, type: type as (typeof ARRANGEABLE)[number], id })),
  );
}
