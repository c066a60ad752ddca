import type { Act, Shown } from "../../../board/act";
import { Boundaries } from "./Boundaries";
import { BoundaryPanel } from "./BoundaryPanel";
import { boundaryPoint } from "./tracing";

/** A site, leg by leg as its bearings and lengths are written. */
const act: Act = {
  name: "boundary",
  click: ({ pointer, snap }) => void boundaryPoint(snap?.at ?? pointer),
  Panel: BoundaryPanel,
};

export default act;

export const shows: readonly Shown[] = [{ in: () => true, Marks: Boundaries }];
