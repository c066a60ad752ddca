import { useEffect, useState } from "react";
import { drafted, type Picked, useDesk, useDrafted } from "../../board/desk";
import type { Ends } from "../../board/Lens";
import { NUDGED_PX } from "../../board/picking";
import { useProject } from "../../store/project";
import { sendStatement } from "../statements";

declare module "../../board/desk" {
  interface Drafts {
    /** the known length whose ends are looked at again, and the one that arrow keys move */
    audit: { length: string; focused: 0 | 1 };
  }
}

/** The ends of a known length are looked at again; those of the one that is looked at no more. */
export function audit(length: string): void {
  const isLooked = drafted("audit")?.length === length;
  useDesk.setState({ act: null, draft: isLooked ? null : { of: "audit", length, focused: 0 } });
}

/** ms after the last nudge before the pick is saved */
const SETTLED = 700;

/** The ends of a known length looked at again, and moved where they were picked a little off. */
export function useAudit(): Ends | null {
  const draft = useDrafted("audit");
  const id = draft?.length ?? null;
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
  if (!a || !b || !draft) return null;
  const shown = (p: typeof a): Picked => ({
    at: moved?.pick === p.id ? [p.x + moved.dx, p.y + moved.dy] : [p.x, p.y],
    sigmaPx: p.sigmaPx,
    words: `${p.x.toFixed(2)}, ${p.y.toFixed(2)} px`,
    thicknessPx: null,
  });
  return {
    picks: [shown(a), shown(b)],
    focused: draft.focused,
    focus: (focused) => useDesk.setState({ draft: { ...draft, focused } }),
    nudge: (dx, dy) => {
      const pick = draft.focused === 0 ? a.id : b.id;
      setMoved((old) => ({
        pick,
        dx: (old?.pick === pick ? old.dx : 0) + dx,
        dy: (old?.pick === pick ? old.dy : 0) + dy,
      }));
    },
  };
}
