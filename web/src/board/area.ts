import type { XY } from "../geometry/plane";
import type { Drag } from "./act";
import { drafted, useDesk } from "./desk";

/** A drag over an area: what lies in it is taken, or with Alt taken away. */
export function areaDrag(done: (from: XY, to: XY, takeAway: boolean) => unknown): Drag {
  return {
    move: (from, to, takeAway) => useDesk.setState({ draft: { of: "area", from, to, takeAway } }),
    drop: async () => {
      const area = drafted("area");
      useDesk.setState({ draft: null });
      if (area) await done(area.from, area.to, area.takeAway);
    },
  };
}
