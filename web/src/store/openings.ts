import { useProject } from "./project";
import type { Thing } from "./rows";

const LETTERS: Record<Thing<"opening">["kind"], string> = { door: "D", window: "W", opening: "O" };

/** The next number of an opening that none has yet: D01, W02. */
export function nextOpeningNumber(kind: Thing<"opening">["kind"]): string {
  const taken = new Set([...useProject.getState().rows.opening.values()].map((o) => o.number));
  let n = 1;
  while (taken.has(`${LETTERS[kind]}${String(n).padStart(2, "0")}`)) n++;
  return `${LETTERS[kind]}${String(n).padStart(2, "0")}`;
}
