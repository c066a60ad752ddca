import { memo, useEffect, useRef, useState } from "react";
import { useDesk, useDeskFields } from "../../../board/desk";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { toScreen, type View } from "../../../geometry/view";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import type { Derived, Region } from "../../../store/shapes";
import { area } from "../../../ui/measures";
import { MENDS, mendOverlap } from "../../overlaps";
import { mayBeOpen, useHeights } from "./heights";
import { neckOf } from "./Leaks";
import { type InRoom, inRoom, sidesOf } from "./labels";
import { mendLeak, openRooms } from "./rooms";

/** Labels narrower than this on the screen have no room for their figures. */
const LEAST_PX = 54;
/** A label whose middle lies further off than this beside the board shows nothing of itself. */
const BESIDE_PX = 90;
const PLAIN =
  "absolute -translate-x-1/2 -translate-y-1/2 rounded px-1.5 py-0.5 text-center leading-tight whitespace-nowrap";

/** Number and name, net area, clear width and depth of each room; those that do not close say so. */
export function RoomLabels({ screen }: { screen: Map2 }) {
  const storey = useDeskFields("storey").storey;
  const shapes = useProject((s) => s.derived.get(storey ?? ""));
  return shapes ? <Of shapes={shapes} screen={screen} /> : null;
}

/** Of more rooms than this, labels that come into view are made when it rests: a hundred at once would make it stumble. */
const MANY = 100;
const REST_MS = 120;

/** Whether the view has stood still for a moment. */
function useRested(view: View): boolean {
  const [rested, setRested] = useState<View>(view);
  useEffect(() => {
    const timer = setTimeout(() => setRested(view), REST_MS);
    return () => clearTimeout(timer);
  }, [view]);
  return rested === view;
}

/** A label under the pointer of an act at hand fades: it covers what is looked at. Moves of the pointer render nothing. */
function giveWay(labels: HTMLElement | null): () => void {
  let faded: HTMLElement | null = null;
  return useDesk.subscribe(({ pointer, act, view, size }, before) => {
    if (pointer === before.pointer && act === before.act) return;
    const under = pointer && act !== null && labels ? labelAt(labels, apply(toScreen(view, size), pointer)) : null;
    if (under === faded) return;
    if (faded) faded.style.opacity = "";
    if (under) under.style.opacity = "0.15";
    faded = under;
  });
}

function labelAt(labels: HTMLElement, [x, y]: XY): HTMLElement | null {
  if (labels.childElementCount > MANY) return null; // to look at each would make the pointer stumble
  const { left, top } = labels.getBoundingClientRect();
  for (const label of labels.querySelectorAll<HTMLElement>("[data-testid=room-label]")) {
    const box = label.getBoundingClientRect();
    if (x + left >= box.left && x + left <= box.right && y + top >= box.top && y + top <= box.bottom) return label;
  }
  return null;
}

function Of({ shapes, screen }: { shapes: Derived; screen: Map2 }) {
  const { view, size, step } = useDeskFields("view", "size", "step");
  const { k } = view;
  const quiet = step !== "trace";
  const rows = useProject((s) => s.rows);
  const mayEdit = useProject((s) => s.role !== "read");
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  const isRested = useRested(view) || shapes.regions.size <= MANY;
  const before = useRef<ReadonlySet<string>>(new Set());
  const there = new Set<string>();
  useEffect(() => {
    before.current = there;
  });
  const storey = useDesk((s) => s.storey);
  const heights = useHeights(storey, mayBeOpen(rows, storey ?? ""));
  const labels = useRef<HTMLDivElement>(null);
  useEffect(() => giveWay(labels.current), []);
  return (
    <div ref={labels} className="pointer-events-none absolute inset-0 overflow-hidden">
      {[...shapes.regions.values()].map((region) => {
        const [width = 0, depth = 0] = region.clear;
        const room = region.id === null ? undefined : rows.room.get(region.id);
        // A name may reach over its walls; a figure alone has to find its room.
        if (Math.max(width, depth) * k < (room ? LEAST_PX / 2 : LEAST_PX)) return null;
        const [x, y] = at(region.label);
        if (x < -BESIDE_PX || y < -BESIDE_PX || x > size.width + BESIDE_PX || y > size.height + BESIDE_PX) return null;
        if (!isRested && !before.current.has(region.key)) return null;
        there.add(region.key);
        return (
          // Moved, and not laid out anew: there may be hundreds.
          <div
            key={region.key}
            className="absolute rounded bg-sheet/85"
            style={{ transform: `translate(${Math.round(x)}px, ${Math.round(y)}px) translate(-50%, -50%)` }}
            data-testid="room-label"
          >
            <Label
              room={room}
              region={region}
              isOpen={(heights.get(region.key)?.openM2 ?? 0) > 0}
              {...inRoom(width * k, depth * k, room, region)}
            />
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

type LabelOf = InRoom & { room?: Thing<"room"> | undefined; region: Region; isOpen: boolean };

const Label = memo(({ room, region, isOpen, width, small, area: isArea, sides }: LabelOf) => (
  <div
    className={`px-0.5 py-0.5 text-center leading-tight ${small ? "text-[11px]" : "text-[13px]"}`}
    style={{ width: "max-content", maxWidth: width }}
  >
    <div className={`line-clamp-2 text-balance wrap-anywhere ${room ? "font-semibold text-teal" : "text-quiet"}`}>
      {room ? (
        <>
          {room.number && <span className="font-normal">{room.number} </span>}
          {room.name}
        </>
      ) : (
        "not named"
      )}
    </div>
    {isArea && <div className="whitespace-nowrap">{area(region.netAreaM2)}</div>}
    {sides && <div className="text-[0.92em] whitespace-nowrap text-quiet">{sidesOf(region)}</div>}
    {isOpen && isArea && <div className="text-[0.92em] whitespace-nowrap text-quiet">open to above</div>}
  </div>
));
