import type { Operation } from "../api/client";
import { change, say, undo, useProject } from "../store/project";
import type { Finding } from "../store/shapes";

/** What is done about two walls that lie on each other, in words. */
export const MENDS = {
  merge: "Make them one wall",
  beside: "Move one aside",
  trim: "End one at the other",
  remove: "Remove one of them",
} as const;

/** Pairs of walls that lie on each other and can be mended, on a storey whose findings these are. */
export const overlapsOf = (findings: readonly Finding[]) => findings.filter((f) => f.mend !== null);

/** What is said of all of them. */
export function overlapWords(overlaps: readonly Finding[]): string {
  const [first] = overlaps;
  return overlaps.length === 1 && first?.mend
    ? `Two walls lie on each other: ${MENDS[first.mend].toLowerCase()}`
    : `${overlaps.length} pairs of walls lie on each other: mend them`;
}

/** What makes one of two goes first: it often mends what else lies on them. */
const FIRST: Record<keyof typeof MENDS, number> = { remove: 0, merge: 1, beside: 2, trim: 3 };
const rankOf = ({ mend }: Finding) => (mend === null ? 4 : FIRST[mend]);

/** Mends all of them as one change; where a wall lies on several, one of those, and the others are told again after it. */
export async function mendOverlaps(overlaps: readonly Finding[]): Promise<void> {
  const [first] = overlaps;
  if (overlaps.length === 1 && first) return mendOverlap(first);
  const taken = new Set<string>();
  const inOrder = [...overlaps].sort((a, b) => rankOf(a) - rankOf(b));
  const operations = inOrder.flatMap((finding): Operation[] => {
    const [wall, other] = finding.things;
    if (!wall || !other || taken.has(wall) || taken.has(other)) return [];
    taken.add(wall).add(other);
    return [{ do: "rework", rework: { kind: "mend", wall, other } }];
  });
  await mend("Mend walls that lie on each other", operations);
}

/** A room that runs out is worse than bodies that lie on each other: what would open one is taken back, and said. */
async function mend(title: string, operations: readonly Operation[]): Promise<void> {
  const leaks = () => [...useProject.getState().derived.values()].reduce((n, shapes) => n + shapes.leaks.length, 0);
  const before = leaks();
  if (await change(title, [...operations])) return;
  if (leaks() <= before) return;
  await undo();
  say("Mended so, a room would be open: the walls were left as they are.");
}

/** One act mends two walls that lie on each other: which, the core has said by how they lie. */
export async function mendOverlap(finding: Finding): Promise<void> {
  const [wall, other] = finding.things;
  if (!wall || !other || finding.mend === null) return;
  await mend(MENDS[finding.mend], [{ do: "rework", rework: { kind: "mend", wall, other } }]);
}
