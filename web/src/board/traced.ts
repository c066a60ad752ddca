import type { XY } from "../geometry/plane";
import { TEAL } from "./marks";
import type { Pen } from "./pen";

/** What is being traced: the line as it will be, and the points that are taken already. */
export function drawTraced(pen: Pen, line: readonly XY[], taken: readonly XY[]): void {
  pen.path(
    line.map((p) => pen.at(p)),
    { colour: TEAL, width: 2, dash: [6, 3] },
  );
  for (const p of taken) pen.ring(pen.at(p), 3.5, { colour: TEAL, width: 1.6, fill: "#fdfcfa" });
}
