import type { XY } from "../geometry/plane";

/** px of a tag's box for a text */
export const TAG_HEIGHT = 22;
export function tagWidth(text: string): number {
  return text.length * 7.4 + 16;
}

export interface Tagged {
  id: string;
  at: XY;
  text: string;
  /** what counts more is told where not all can be */
  weight: number;
}

/** Tags that do not lie on each other: of those that would, the one that counts most. A line without its tag is told by the ledger. */
export function tagsApart(tags: readonly Tagged[]): Set<string> {
  const kept: Tagged[] = [];
  for (const tag of [...tags].sort((a, b) => b.weight - a.weight)) {
    const lies = kept.some(
      (k) =>
        Math.abs(k.at[0] - tag.at[0]) < (tagWidth(k.text) + tagWidth(tag.text)) / 2 &&
        Math.abs(k.at[1] - tag.at[1]) < TAG_HEIGHT,
    );
    if (!lies) kept.push(tag);
  }
  return new Set(kept.map((k) => k.id));
}
