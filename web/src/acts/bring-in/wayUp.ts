import type { PageMade } from "../../api/client";
import type { Rows, Thing } from "../../store/rows";

/** A drawing that lies another way up than its page's writing is read, and the turns that mend it. */
export interface WrongWay {
  drawing: Thing<"drawing">;
  turns: number;
}

/** Only what nobody has turned yet: a drawing may be turned on purpose. */
export function wrongWayUp(rows: Rows, pages: ReadonlyMap<string, PageMade>): WrongWay[] {
  return [...rows.drawing.values()].flatMap((drawing) => {
    const way = pages.get(drawing.page)?.made?.wayUp;
    return way?.sure && way.turns !== 0 && drawing.turns === 0 ? [{ drawing, turns: way.turns }] : [];
  });
}

/** How a page lies, in words. */
export function lying(wrong: readonly WrongWay[]): string {
  const pages = new Set(wrong.map((w) => w.drawing.page)).size;
  const upsideDown = wrong.every((w) => w.turns === 2);
  const how = upsideDown ? "upside down" : "on its side";
  if (pages === 1) return `By its writing this page lies ${how}.`;
  return `By their writing ${pages} pages lie ${upsideDown ? "upside down" : "the wrong way up"}.`;
}

/** What the writing of one page says of how it lies now, once it was asked; where it lies wrongly, the way to mend it says so. */
export function wayUpWords(way: { turns: number; sure: boolean } | null | undefined, turns: number): string | null {
  if (way === undefined) return null;
  if (way === null || !way.sure) return "Its writing does not say which way up it lies.";
  if (way.turns === turns) return "By its writing it lies the right way up.";
  return turns === 0 ? null : "By its writing it lies another way up.";
}
