import { useProject } from "./project";
import { inOrder, type Values } from "./rows";
import { isImperial } from "./units";

export type OpeningKind = Values["opening"]["kind"];
type Heights = { sill: number; height: number | null };

/** Heights, mm, until the project has some of its own, round in what its sizes are shown in: common practice, no source. */
const USUAL: Record<"metric" | "imperial", Record<OpeningKind, Heights> & { storey: number }> = {
  metric: {
    storey: 2700,
    door: { sill: 0, height: 2040 },
    window: { sill: 900, height: 1200 },
    opening: { sill: 0, height: 2100 },
  },
  imperial: {
    storey: 2743.2, // 9 ft
    door: { sill: 0, height: 2032 }, // 6 ft 8 in
    window: { sill: 914.4, height: 1219.2 }, // 3 ft, 4 ft
    opening: { sill: 0, height: 2133.6 }, // 7 ft
  },
};

const usual = () => {
  const [project] = useProject.getState().rows.project.values();
  return USUAL[project && isImperial(project.shows) ? "imperial" : "metric"];
};

/** mm from floor to floor where no storey says so. */
export const usualStoreyHeight = () => usual().storey;

/** Widths differ by less than this where they mean one size, mm. */
const SAME_SIZE_MM = 15;

/** The project's usual sizes of a kind: those that occur, the most frequent first. */
export function usualSizes(kind: OpeningKind): ({ width: number; count: number } & Heights)[] {
  const sizes: ({ width: number; count: number } & Heights)[] = [];
  for (const o of inOrder(useProject.getState().rows.opening.values())) {
    if (o.kind !== kind) continue;
    const known = sizes.find(
      (s) => Math.abs(s.width - o.width) < SAME_SIZE_MM && s.sill === o.sill && s.height === o.height,
    );
    if (known) known.count++;
    else sizes.push({ width: o.width, sill: o.sill, height: o.height, count: 1 });
  }
  return sizes.sort((a, b) => b.count - a.count);
}

/** Sill and height of the project's most usual opening of this kind and width, or of the kind. */
export function heightsOf(kind: OpeningKind, width: number): Heights {
  const sizes = usualSizes(kind);
  const { sill, height } = sizes.find((s) => Math.abs(s.width - width) < SAME_SIZE_MM) ?? sizes[0] ?? usual()[kind];
  return { sill, height };
}
