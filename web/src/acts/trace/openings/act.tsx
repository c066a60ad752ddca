import type { Act } from "../../../board/act";
import { drafted, useDesk } from "../../../board/desk";
import { wallUnder } from "../../../board/snap";
import { useProject } from "../../../store/project";
import { pointAlong, wallLine } from "../../../store/walls";
import { inWords } from "../../../ui/measures";
import { OpeningOptions } from "./OpeningOptions";
import { SelectedOpening } from "./OpeningPanel";
import { OpeningRows } from "./OpeningRows";
import { alongDoorWall, openingAt, openingDrag, removeOpening, setDoorWidth } from "./openings";

const hostLine = () => wallLine(useProject.getState().rows, drafted("jamb")?.wall);

/** Doors, windows and openings in walls, as the ink shows them or by their edges. */
const act: Act = {
  name: "openings",
  click: openingAt,
  snap(pointer, reach) {
    const hit = drafted("jamb") ? null : wallUnder(pointer, reach);
    return hit && { at: hit.at, words: "the middle of a gap, or an edge of the opening", wall: hit.id };
  },
  slip() {
    const door = drafted("jamb");
    const line = hostLine();
    if (!door || !line) return null;
    const rest = "Click the other edge, or type the width; the leaf swings to the pointer’s side.";
    const hint = door.noGap ? `No gap is drawn here: this is an edge of the opening. ${rest}` : rest;
    return { at: pointAlong(line, door.from), label: "width", hint, passes: true, send: setDoorWidth };
  },
  words() {
    const { pointer } = useDesk.getState();
    const door = drafted("jamb");
    const to = pointer && alongDoorWall(pointer);
    return door && to !== null ? [`${inWords(Math.abs(to - door.from))} wide`] : [];
  },
  draws(pen) {
    const { pointer } = useDesk.getState();
    const door = drafted("jamb");
    const line = hostLine();
    const to = pointer && alongDoorWall(pointer);
    if (!door || !line || to === null) return;
    const width = Math.max(6, line.wall.thickness * pen.k);
    const ends = [pen.at(pointAlong(line, door.from)), pen.at(pointAlong(line, to))];
    pen.path(ends, { colour: "#fdfcfa", width, alpha: 0.85 });
  },
  Panel: OpeningOptions,
  Rows: { of: OpeningRows, rank: 30 },
  selects: {
    opening: {
      Panel: SelectedOpening,
      remove: removeOpening,
      hit: {
        rank: 10,
        at(pointer, reach) {
          const hit = wallUnder(pointer, reach);
          const openings = [...useProject.getState().rows.opening.values()];
          const under = openings.find(
            (o) => o.wall === hit?.id && hit.along >= o.offset && hit.along <= o.offset + o.width,
          );
          return under?.id ?? null;
        },
      },
      handles(id) {
        const { rows } = useProject.getState();
        const opening = rows.opening.get(id);
        const line = wallLine(rows, opening?.wall);
        if (!opening || !line) return [];
        return [pointAlong(line, opening.offset), pointAlong(line, opening.offset + opening.width)];
      },
      drag: openingDrag,
    },
  },
};

export default act;
