import { useDesk } from "../../../board/desk";
import { RUST, Tag, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import type { Leak } from "../../../store/shapes";
import { fineInWords } from "../../../ui/measures";

/** The wash of a room that does not close runs out through its narrowest place. */
export function Leaks({ screen }: { screen: Map2 }) {
  const storey = useDesk((s) => s.storey);
  const shapes = useProject((s) => s.derived.get(storey ?? ""));
  const rooms = useProject((s) => s.rows.room);
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  return (
    <>
      {shapes?.leaks.map((leak) => {
        const room = rooms.get(leak.room);
        const [p, q] = [at(leak.neck[0] ?? []), at(leak.neck[1] ?? [])];
        const m = at(neckOf(leak));
        const from = room ? at([room.x, room.y]) : m;
        // Banks: wide in the room, through both ends of the neck, and spreading again beyond it.
        const [ux, uy] = unit(p, q);
        const out: XY = (m[0] - from[0]) * -uy + (m[1] - from[1]) * ux >= 0 ? [-uy, ux] : [uy, -ux];
        const spread = Math.min(90, 0.4 * Math.hypot(m[0] - from[0], m[1] - from[1]));
        const bank = (end: XY, side: number) => ({
          start: [from[0] + side * ux * spread, from[1] + side * uy * spread].join(" "),
          before: [end[0] - out[0] * 40, end[1] - out[1] * 40].join(" "),
          neck: end.join(" "),
          after: [end[0] + out[0] * 24, end[1] + out[1] * 24].join(" "),
          end: [end[0] + out[0] * 46 + side * ux * 26, end[1] + out[1] * 46 + side * uy * 26].join(" "),
        });
        const [a, b] = [bank(p, -1), bank(q, 1)];
        const flow = [
          `M ${a.start} Q ${a.before} ${a.neck} Q ${a.after} ${a.end}`,
          `L ${b.end} Q ${b.after} ${b.neck} Q ${b.before} ${b.start} Z`,
        ].join(" ");
        return (
          <g key={leak.room}>
            <path d={flow} fill={TEAL} opacity={0.22} />
            <line x1={p[0]} y1={p[1]} x2={q[0]} y2={q[1]} stroke={RUST} strokeWidth={4} strokeLinecap="round" />
            <Tag at={[m[0], m[1] - 22]} text={`open ${fineInWords(leak.gapMm)}`} colour={RUST} />
          </g>
        );
      })}
    </>
  );
}

function unit(a: XY, b: XY): XY {
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  return [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
}

/** Middle of the narrowest place. */
export function neckOf(leak: Leak): XY {
  const [p = [0, 0], q = [0, 0]] = leak.neck;
  return [((p[0] ?? 0) + (q[0] ?? 0)) / 2, ((p[1] ?? 0) + (q[1] ?? 0)) / 2];
}
