import { useEffect, useState } from "react";
import { type Picked, useDesk } from "../desk/desk";
import { NUDGED_PX } from "../desk/picking";
import { sendStatement } from "../desk/statements";
import { useProject } from "../store/project";

/** ms after the last nudge before the pick is saved */
const SETTLED = 700;

/** The ends of a known length looked at again, and moved where they were picked a little off. */
export function useAudit(): { picks: readonly [Picked, Picked]; nudge: (dx: number, dy: number) => void } | null {
  const id = useDesk((s) => s.audit);
  const rows = useProject((s) => s.rows);
  const length = id === null ? undefined : rows.knownLength.get(id);
  const [moved, setMoved] = useState<{ pick: string; dx: number; dy: number } | null>(null);
  const row = moved ? rows.pick.get(moved.pick) : undefined;
  useEffect(() => {
    if (!moved || !row) return;
    const timer = setTimeout(() => {
      const values = { x: row.x + moved.dx, y: row.y + moved.dy, sigmaPx: NUDGED_PX };
      void sendStatement("Nudge a pick", [{ do: "set", type: "pick", id: row.id, values }]).then(() => setMoved(null));
    }, SETTLED);
    return () => clearTimeout(timer);
  }, [moved, row]);
  const [a, b] = [length && rows.pick.get(length.a), length && rows.pick.get(length.b)];
  if (!a || !b) return null;
  const shown = (p: typeof a): Picked => ({
    at: moved?.pick === p.id ? [p.x + moved.dx, p.y + moved.dy] : [p.x, p.y],
    sigmaPx: p.sigmaPx,
    words: `${p.x.toFixed(2)}, ${p.y.toFixed(2)} px`,
    thicknessPx: null,
  });
  return {
    picks: [shown(a), shown(b)],
    nudge: (dx, dy) => {
      const pick = useDesk.getState().focusedEnd === 0 ? a.id : b.id;
      setMoved((old) => ({
        pick,
        dx: (old?.pick === pick ? old.dx : 0) + dx,
        dy: (old?.pick === pick ? old.dy : 0) + dy,
      }));
    },
  };
}
