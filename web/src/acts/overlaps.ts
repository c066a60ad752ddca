import { change } from "../store/project";
import type { Finding } from "../store/shapes";

/** What is done about two walls that lie on each other, in words. */
export const MENDS = {
  merge: "Make them one wall",
  beside: "Move one aside",
  trim: "End one at the other",
  remove: "Remove one of them",
} as const;

/** One act mends two walls that lie on each other: which, the core has said by how they lie. */
export async function mendOverlap(finding: Finding): Promise<void> {
  const [wall, other] = finding.things;
  if (!wall || !other || finding.mend === null) return;
  await change(MENDS[finding.mend], [{ do: "rework", rework: { kind: "mend", wall, other } }]);
}
