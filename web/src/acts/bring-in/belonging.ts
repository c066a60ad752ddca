import type { Operation, PageMade } from "../../api/client";
import { change, type ProjectState } from "../../store/project";
import type { DrawingKind, Rows, Thing } from "../../store/rows";
import { drawingsOfPage, isWhole } from "./cutting";
import { Places, placedBy, placeOf, sideNamed, stands, titleIn, type Wanted, wantedName } from "./places";
import { wrongWayUp } from "./wayUp";

/** What a drawing seems to be, and where it belongs by that. */
export interface Belonging {
  drawing: Thing<"drawing">;
  kind: DrawingKind;
  place: Wanted;
  /** what says so */
  by: string;
  /** the turns that lay it the right way up, where it lies another way */
  turns: number | null;
}

/** Where a drawing belongs that is still as it arrived: by the title on it, the name of its file, or because it is a photograph of a wall. */
export function belongings(project: Pick<ProjectState, "rows" | "pages">): Belonging[] {
  const wrong = new Map(wrongWayUp(project.rows, project.pages).map((w) => [w.drawing.id, w.turns]));
  return [...project.rows.drawing.values()].flatMap((drawing) => {
    const page = project.rows.page.get(drawing.page);
    // What somebody has changed since is theirs; a page of several drawings is cut first.
    if (!page || drawing.revision !== page.revision) return [];
    const found = belongingOf(project.rows, drawing, page, project.pages.get(page.id)?.made ?? null);
    return found && !isThere(drawing, found) ? [{ ...found, turns: wrong.get(drawing.id) ?? null }] : [];
  });
}

function belongingOf(
  rows: Rows,
  drawing: Thing<"drawing">,
  page: Thing<"page">,
  made: PageMade["made"],
): Omit<Belonging, "turns"> | null {
  if (!made) return null;
  const uncut = drawingsOfPage(rows, page.id).length === 1 && isWhole(drawing, page);
  if (uncut && made.cuts.length > 1) return null;
  const title = titleIn(made.titles ?? [], drawing);
  if (title)
    return {
      drawing,
      ...placedBy(rows, title, placeOf(drawing), drawing.name),
      by: `“${title.words}” is written on it`,
    };
  if (made.named)
    return { drawing, ...placedBy(rows, made.named, placeOf(drawing), drawing.name), by: "its file is called so" };
  if (!made.isScene || drawing.side !== null) return null;
  return { drawing, kind: "elevation", place: sideNamed(rows, drawing.name), by: "it is a photograph of a building" };
}

function isThere(drawing: Thing<"drawing">, { kind, place }: Pick<Belonging, "kind" | "place">): boolean {
  return kind === drawing.kind && JSON.stringify(place) === JSON.stringify(placeOf(drawing));
}

/** A sentence for each. */
export function belongingWords(rows: Rows, { drawing, kind, place, by, turns }: Belonging): string {
  const isNew = "newStorey" in place || "newSide" in place;
  const what = stands(kind) ? "side" : "storey";
  const where = `${isNew ? `a new ${what}, ` : stands(kind) ? "the side " : ""}${wantedName(rows, place)}`;
  return `${drawing.name} seems to be ${kind === "elevation" ? "an" : "a"} ${kind}, as ${by}. It goes to ${where}${turns === null ? "" : ", turned the right way up"}.`;
}

type Wish = Pick<Belonging, "drawing" | "kind" | "place"> & Partial<Pick<Belonging, "turns">>;

/** Puts drawings where they are wanted, as one change. */
export function putThere(rows: Rows, all: readonly Wish[]): Promise<unknown> {
  const [first] = all;
  const words =
    all.length === 1 ? `Put ${first?.drawing.name} in its place` : `Put ${all.length} drawings in their places`;
  return change(words.slice(0, 110), placings(rows, all));
}

/** Places are made first, storeys from the lowest up. */
export function placings(rows: Rows, all: readonly Wish[]): Operation[] {
  const places = new Places(rows);
  const level = ({ place }: Wish) => ("newStorey" in place ? (place.level ?? Number.POSITIVE_INFINITY) : 0);
  // Where something is seen already, what comes waits as it did; otherwise the first that comes is seen.
  const going = new Set(all.map(({ drawing }) => drawing.id));
  const shown = [...rows.drawing.values()].filter((d) => !d.hidden && !going.has(d.id));
  const taken = new Set(shown.map((d) => d.storey ?? d.side ?? ""));
  const sets = [...all]
    .sort((a, b) => level(a) - level(b))
    .map(({ drawing, kind, place, turns }): Operation => {
      const at = places.at(place);
      const key = at.storey ?? at.side ?? "";
      const stays = key === (drawing.storey ?? drawing.side);
      const hidden = drawing.hidden && (stays || taken.has(key));
      if (!hidden) taken.add(key);
      return {
        do: "set",
        type: "drawing",
        id: drawing.id,
        values: { kind, ...at, hidden, ...(turns ? { turns } : {}) },
      };
    });
  return [...places.operations, ...sets];
}
