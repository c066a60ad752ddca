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
  const outcome = await mend("Mend walls that lie on each other", operations);
  if (outcome !== "opens") return;
  // Not all of them at once, then: each that leaves the rooms closed.
  let left = 0;
  for (const operation of operations)
    if ((await mend("Mend walls that lie on each other", [operation])) === "opens") left++;
  if (left > 0) say(OPENS);
}

const OPENS = "Mended so, a room would be open: the walls were left as they are.";
/** Smaller than this no room is missed, m²: a sliver between two walls that become one. */
const SLIVER_M2 = 0.5;

/** A room that runs out is worse than bodies that lie on each other: what would open one is taken back. */
async function mend(title: string, operations: readonly Operation[]): Promise<"mended" | "refused" | "opens"> {
  const all = () => [...useProject.getState().derived.values()];
  const leaks = () => all().reduce((n, shapes) => n + shapes.leaks.length, 0);
  const rooms = () =>
    all().reduce((n, { regions }) => n + [...regions.values()].filter((r) => r.netAreaM2 >= SLIVER_M2).length, 0);
  const before = { leaks: leaks(), rooms: rooms() };
  if (await change(title, [...operations])) return "refused";
  if (leaks() <= before.leaks && rooms() >= before.rooms) return "mended";
  await undo();
  return "opens";
}

/** One act mends two walls that lie on each other: which, the core has said by how they lie. */
export async function mendOverlap(finding: Finding): Promise<void> {
  const [wall, other] = finding.things;
  if (!wall || !other || finding.mend === null) return;
  const outcome = await mend(MENDS[finding.mend], [{ do: "rework", rework: { kind: "mend", wall, other } }]);
  if (outcome === "opens") say(OPENS);
}
