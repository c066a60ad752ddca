import type { Act } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { HOLD_RAD, held } from "../../../board/held";
import { distance, type XY } from "../../../geometry/plane";
import { inWords } from "../../../ui/measures";
import { withPlusMinus } from "../../withPlusMinus";

declare module "../../../board/desk" {
  interface Drafts {
    /** points between which is measured */
    measure: { points: readonly XY[] };
  }
}

const points = () => drafted("measure")?.points ?? [];

/** Measures anything; nothing of it is saved. */
const act: Act = {
  name: "measure",
  click({ pointer, snap }) {
    useDesk.setState({ draft: { of: "measure", points: [...points(), snap?.at ?? pointer] } });
  },
  snap(pointer, _reach, free) {
    const last = points().at(-1);
    return last && useDesk.getState().holdSquare && !free ? held(last, pointer, HOLD_RAD / 2) : null;
  },
  words(tip) {
    const all = points();
    const last = all.at(-1);
    if (!last) return [];
    const mm = distance(last, tip);
    const total = all.reduce((sum, p, i) => sum + (i > 0 ? distance(all[i - 1] ?? p, p) : 0), mm);
    return [withPlusMinus(mm), ...(all.length > 1 ? [`${inWords(total)} in all`] : [])];
  },
  draws(pen) {
    const { snap, pointer } = useDesk.getState();
    const tip = snap?.at ?? pointer;
    const line = [...points(), ...(tip && points().length > 0 ? [tip] : [])].map((p) => pen.at(p));
    if (line.length > 1) pen.path(line, { colour: "#1c2a26", width: 1.6, dash: [1, 3], round: true });
  },
};

export default act;
