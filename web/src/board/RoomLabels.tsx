import { memo } from "react";
import { area, grouped } from "../desk/numbers";
import { MENDS, mendOverlap } from "../desk/overlaps";
import { mendLeak } from "../desk/rooms";
import { openRooms } from "../desk/selectors";
import { useProject } from "../store/project";
import type { Thing } from "../store/rows";
import type { Derived, Leak, Region } from "../store/shapes";
import { apply, type Map2, type Size, type XY } from "./geometry";
import { RUST, Tag, TEAL } from "./marks";

/** Labels narrower than this on the screen have no room for their figures. */
const LEAST_PX = 54;
/** Its width and depth stand in the room that they measure, or not at all: px of the line that tells them. */
const SIDES_PX = 94;
/** A label whose middle lies further off than this beside the board shows nothing of itself. */
const BESIDE_PX = 90;
const PLAIN =
  "absolute -translate-x-1/2 -translate-y-1/2 rounded px-1.5 py-0.5 text-center leading-tight whitespace-nowrap";

/** Number and name, net area, clear width and depth of each room; those that do not close say so. */
export function RoomLabels(props: { shapes: Derived; screen: Map2; k: number; size: Size; quiet: boolean }) {
  const { shapes, screen, k, size, quiet } = props;
  const rows = useProject((s) => s.rows);
  const mayEdit = useProject((s) => s.role !== "read");
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  return (
    <div className="pointer-events-none absolute inset-0 overflow-hidden">
      {[...shapes.regions.values()].map((region) => {
        const [width = 0, depth = 0] = region.clear;
        const room = region.id === null ? undefined : rows.room.get(region.id);
        // A name may reach over its walls; a figure alone has to find its room.
        if (Math.max(width, depth) * k < (room ? LEAST_PX / 2 : LEAST_PX)) return null;
        const [x, y] = at(region.label);
        if (x < -BESIDE_PX || y < -BESIDE_PX || x > size.width + BESIDE_PX || y > size.height + BESIDE_PX) return null;
        return (
          // Moved, and not laid out anew: there may be hundreds.
          <div
            key={region.key}
            className="absolute rounded bg-sheet/85"
            style={{ transform: `translate(${Math.round(x)}px, ${Math.round(y)}px) translate(-50%, -50%)` }}
            data-testid="room-label"
          >
            <Label room={room} region={region} sides={width * k > SIDES_PX} />
          </div>
        );
      })}
      {openRooms(rows, shapes).map((room) => {
        const [x, y] = at([room.x, room.y]);
        return (
          <div
            key={room.id}
            className={`${PLAIN} border border-rust bg-sheet/90 text-[13px] text-rust`}
            style={{ left: x, top: y }}
            data-testid="room-label"
          >
            <div className="font-semibold">
              {room.number} {room.name}
            </div>
            {shapes.unplaced.has(room.id) ? "does not close" : "runs into the next room"}
          </div>
        );
      })}
      {!quiet &&
        mayEdit &&
        shapes.leaks.map((leak) => {
          const [x, y] = at(neckOf(leak));
          return (
            <button
              key={leak.room}
              type="button"
              className="pointer-events-auto absolute -translate-x-1/2 rounded-md border border-rust bg-sheet px-2 py-0.5 text-[13px] font-semibold text-rust"
              style={{ left: x, top: y + 20 }}
              onClick={() => void mendLeak(leak)}
            >
              Close it
            </button>
          );
        })}
      {!quiet &&
        mayEdit &&
        shapes.findings.map((finding) => {
          if (finding.mend === null) return null;
          const [x, y] = at([finding.at[0] ?? 0, finding.at[1] ?? 0]);
          return (
            <button
              key={finding.things.join()}
              type="button"
              className="pointer-events-auto absolute -translate-x-1/2 rounded-md border border-rust bg-sheet px-2 py-0.5 text-[13px] font-semibold text-rust"
              style={{ left: x, top: y + 8 }}
              onClick={() => void mendOverlap(finding)}
            >
              {MENDS[finding.mend]}
            </button>
          );
        })}
    </div>
  );
}

const Label = memo(({ room, region, sides }: { room?: Thing<"room"> | undefined; region: Region; sides: boolean }) => (
  <div className="px-1.5 py-0.5 text-center leading-tight whitespace-nowrap">
    <div className={room ? "text-[13px] font-semibold text-teal" : "text-xs text-quiet"}>
      {room ? (
        <>
          {room.number && <span className="font-normal">{room.number} </span>}
          {room.name}
        </>
      ) : (
        "not named"
      )}
    </div>
    <div className="text-[13px]">{area(region.netAreaM2)}</div>
    {sides && (
      <div className="text-xs text-quiet">
        {grouped(region.clear[0] ?? 0)} × {grouped(region.clear[1] ?? 0)}
      </div>
    )}
  </div>
));

/** The wash of a room that does not close runs out through its narrowest place. */
export function Leaks({ shapes, screen }: { shapes: Derived; screen: Map2 }) {
  const rooms = useProject((s) => s.rows.room);
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  return (
    <>
      {shapes.leaks.map((leak) => {
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
            <Tag
              at={[m[0], m[1] - 22]}
              text={`open ${grouped(leak.gapMm, leak.gapMm < 10 ? 1 : 0)} mm`}
              colour={RUST}
            />
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

export function neckOf(leak: Leak): XY {
  const [p = [0, 0], q = [0, 0]] = leak.neck;
  return [((p[0] ?? 0) + (q[0] ?? 0)) / 2, ((p[1] ?? 0) + (q[1] ?? 0)) / 2];
}
