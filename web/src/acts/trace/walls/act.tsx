import type { Act } from "../../../board/act";
import { clearDraft, drafted, useDesk } from "../../../board/desk";
import { selectedWalls } from "../../../board/selection";
import { wallUnder } from "../../../board/snap";
import { drawTraced } from "../../../board/traced";
import { withPlusMinus } from "../../../board/withPlusMinus";
import { distance, middle, type XY } from "../../../geometry/plane";
import type { Place } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { arcChain, riseThrough, wallLine, wallLines } from "../../../store/walls";
import { inWords, written } from "../../../ui/measures";
import { mendOverlaps, overlapsOf, overlapWords } from "../../overlaps";
import { SelectRow } from "../../SelectRow";
import { Some } from "../Some";
import { removeWalls, wallDrag } from "./editing";
import { useWallOptions } from "./options";
import { SelectedWalls } from "./SelectedWalls";
import { inkForWall, wallSnap } from "./snapping";
import { setWallFigure, wallPoint } from "./tracing";
import { WallOptions } from "./WallOptions";

const tip = () => useDesk.getState().snap?.at ?? useDesk.getState().pointer;

const NEXT_LINE = { right: "left", left: "centre", centre: "right" } as const;

/** Walls along a face or their middle: one after another, as a rectangle, or curved. */
const act: Act = {
  name: "walls",
  click: wallPoint,
  snap: wallSnap,
  asksInk: (snap) => useWallOptions.getState().snapTo.ink && !snap?.closes,
  takesInk(found, pointer) {
    const { line } = useWallOptions.getState();
    // A face lies half a thickness beside the centre line that is traced.
    if (line === "centre" && found.kind !== "line" && found.kind !== "column centre") return null;
    const put = inkForWall(found, pointer);
    const wall = useDesk.getState().snap?.wall;
    return wall === undefined ? put : { ...put, wall, words: `joins this wall, ${put.words}` };
  },
  slip() {
    const to = tip();
    const last = drafted("chain")?.points.at(-1);
    const corner = drafted("rectangle")?.from;
    const [start, end] = drafted("arc")?.ends ?? [];
    const shared = { passes: true, send: setWallFigure };
    if (last && to) {
      const hint = "Enter sets the next corner: 4.2 m, or 4.2 m 30°.";
      return { at: middle(last, to), about: [last, to], label: "length", hint, ...shared };
    }
    if (corner && to) {
      const hint = "Click the opposite corner, or type both: 3.6 m x 4.2 m.";
      return { at: middle(corner, to), about: [corner, to], label: "sides", hint, ...shared };
    }
    if (start && end) {
      const hint = "Click a point that the arc passes through, or type its rise over the chord.";
      return { at: middle(start, end), about: [start, end], label: "rise", hint, ...shared };
    }
    return null;
  },
  words(to) {
    const last = drafted("chain")?.points.at(-1);
    if (last) return [withPlusMinus(distance(last, to))];
    const corner = drafted("rectangle")?.from;
    if (corner) return [`${written(Math.abs(to[0] - corner[0]))} × ${inWords(Math.abs(to[1] - corner[1]))}`];
    // Where there are several, the one drawn on is named before the first wall.
    const { storey } = useProject.getState().rows;
    return storey.size > 1 ? [`on ${storey.get(useDesk.getState().storey ?? "")?.name}`] : [];
  },
  key(e) {
    if (e.key.toLowerCase() === "x") {
      useWallOptions.setState(({ line }) => ({ line: NEXT_LINE[line] }));
      return true;
    }
    if (e.key !== "Enter" || !drafted("chain")) return false;
    clearDraft();
    return true;
  },
  draws(pen) {
    const to = tip();
    const chain = drafted("chain");
    const corner = drafted("rectangle")?.from;
    const [a, b] = drafted("arc")?.ends ?? [];
    if (chain) drawTraced(pen, [...chain.points, ...(to ? [to] : [])], chain.points);
    if (corner && to) {
      const ring: XY[] = [corner, [to[0], corner[1]], to, [corner[0], to[1]], corner];
      drawTraced(pen, ring, [corner]);
    }
    if (a && to) drawTraced(pen, b ? arcChain(a, b, riseThrough(a, to, b)) : [a, to], b ? [a, b] : [a]);
  },
  Panel: WallOptions,
  Rows: { of: WallRows, rank: 90 },
  selects: {
    wall: {
      Panel: SelectedWalls,
      remove: () => void removeWalls(selectedWalls()),
      hit: { rank: 30, at: (pointer, reach) => wallUnder(pointer, reach)?.id ?? null },
      handles(id) {
        const line = wallLine(useProject.getState().rows, id);
        return line ? [line.from, line.to] : [];
      },
      drag: wallDrag,
    },
  },
  next(storey) {
    const overlaps = overlapsOf(useProject.getState().derived.get(storey)?.findings ?? []);
    if (overlaps.length === 0) return null;
    return { rank: 20, words: overlapWords(overlaps), go: () => void mendOverlaps(overlaps) };
  },
};

export default act;

function WallRows({ storey }: Place) {
  const rows = useProject((s) => s.rows);
  const lines = wallLines(rows, storey).map((line, i) => ({ ...line, i }));
  return (
    <Some of={lines} words="walls">
      {({ wall, length, i }) => (
        <SelectRow key={wall.id} type="wall" id={wall.id} slim>
          <span>
            Wall {i + 1}{" "}
            <span className="text-[13px] text-quiet">
              · {written(wall.thickness)} · {wall.evidence}
            </span>
          </span>
          <span>{written(length)}</span>
        </SelectRow>
      )}
    </Some>
  );
}
