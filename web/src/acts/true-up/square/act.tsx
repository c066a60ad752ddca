import type { Act } from "../../../board/act";
import { useDrafted } from "../../../board/desk";
import { BrokenLineLens } from "../../../board/Lens";
import { TEAL } from "../../../board/marks";
import { focusEnd, nudgeEnd, pick } from "../../../board/picking";
import { exactSnap } from "../../../board/snap";
import type { Map2 } from "../../../geometry/maps";
import { drawPickedLine } from "../picked";
import { SquarePanel } from "./SquarePanel";
import { SquareSlip } from "./SquareSlip";

/** The drawing is turned to its grid by a line that is picked on it. */
const act: Act = {
  name: "square",
  wanted: () => 2,
  click: (click) => pick(click, { wanted: 2, text: null }),
  snap: exactSnap,
  draws: (pen) => drawPickedLine(pen, 2, TEAL),
  Over,
  Panel: SquarePanel,
};

export default act;

function Over({ screen }: { screen: Map2 }) {
  const draft = useDrafted("picks");
  const [a, b] = draft?.picks ?? [];
  if (!draft || !a || !b) return null;
  return (
    <>
      <SquareSlip screen={screen} />
      <BrokenLineLens ends={{ picks: [a, b], focused: draft.focused, focus: focusEnd, nudge: nudgeEnd }} />
    </>
  );
}
