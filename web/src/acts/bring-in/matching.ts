import { create } from "zustand";
import type { XY } from "../../geometry/plane";

/** Points being picked on an older page and on its newer version, page pixels. */
export interface Matching {
  page: string | null;
  pairs: { old?: XY; new?: XY }[];
  key: string;
}

export const useMatching = create<Matching>(() => ({ page: null, pairs: [], key: "" }));

/** The next point goes to the first pair that lacks one on this side. */
export function addPoint(side: "old" | "new", at: XY): void {
  useMatching.setState(({ pairs }) => {
    const open = pairs.findIndex((p) => p[side] === undefined);
    return {
      pairs: open < 0 ? [...pairs, { [side]: at }] : pairs.map((p, i) => (i === open ? { ...p, [side]: at } : p)),
    };
  });
}

export function wholePairs(pairs: Matching["pairs"]): { old: [number, number]; new: [number, number] }[] {
  return pairs.flatMap((p) => (p.old && p.new ? [{ old: [...p.old], new: [...p.new] }] : []));
}
