import { create } from "zustand";
import { api, settled } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { contains, nearestOn, type XY } from "../../../geometry/plane";
import { change, inProject, useProject } from "../../../store/project";
import { heightsOf } from "../../../store/usual";
import { type Course, courseOf, nearestOnLine, pointAlong, wallLine } from "../../../store/walls";
import { fine, inWords } from "../../../ui/measures";
import { look, type ProposedOpening, type ProposedWall, pair, refuse, said, useFound } from "../../searches";

/** What the last probe found, told until the next. */
export const useProbed = create<{ words: string | null }>(() => ({ words: null }));

/** What is accepted together, by id. */
export interface Wanted {
  walls: readonly string[];
  /** those of its walls that are sure come along; false leaves them out */
  openings?: boolean;
  inTraced?: readonly string[];
  columns?: readonly string[];
}

/** Lays what is proposed down, walls with their openings, as one change. */
export async function accept(wanted: Wanted): Promise<void> {
  const { proposals } = useFound.getState();
  const { storey, drawing } = useDesk.getState();
  if (!proposals || storey === null || proposals.of !== drawing) return;
  const { told } = proposals;
  const walls = told.walls.filter((w) => wanted.walls.includes(w.id));
  const inTraced = told.inTraced.filter((o) => wanted.inTraced?.includes(o.id));
  const columns = told.columns.filter((c) => wanted.columns?.includes(c.id));
  if (walls.length + inTraced.length + columns.length === 0) return;
  const index = new Map(walls.map((w, i) => [w.id, i]));
  const openings = (wanted.openings ?? true) ? told.openings.filter((o) => o.sure && index.has(o.wall)) : [];
  const of = ({ kind, offset, width, leafAt, leafSide }: ProposedOpening) => ({
    ...{ kind, offset, width, leafAt, leafSide, ...heightsOf(kind, width) },
  });
  const refused = await change(acceptWords(walls.length, inTraced.length), [
    {
      do: "lay",
      lay: {
        storey,
        drawing,
        walls: walls.map(({ from, to, thickness, rise, buildUp }) => ({
          ...{ from, to, thickness, rise, buildUp: buildUp?.id ?? null },
        })),
        openings: [
          ...openings.map((o) => ({ wall: index.get(o.wall) ?? 0, ...of(o) })),
          ...inTraced.map((o) => ({ on: o.wall, ...of(o) })),
        ],
        columns: columns.map(({ x, y, width, depth }) => ({ x, y, width, depth })),
      },
    },
  ]);
  if (!refused) await look("proposals", drawing);
}

function acceptWords(walls: number, inTraced: number): string {
  if (walls === 0) return inTraced === 1 ? "Accept an opening" : inTraced > 1 ? "Accept openings" : "Accept columns";
  return walls === 1 ? "Accept a wall" : "Accept walls";
}

/** The opening under a place that is proposed in a traced wall. */
export function openingProposedAt(at: XY): ProposedOpening | null {
  const { proposals } = useFound.getState();
  const { view, drawing } = useDesk.getState();
  if (!proposals || proposals.of !== drawing) return null;
  const { rows } = useProject.getState();
  return (
    proposals.told.inTraced.find((o) => {
      const line = wallLine(rows, o.wall);
      if (!line) return false;
      const [a, b] = [pointAlong(line, o.offset), pointAlong(line, o.offset + o.width)];
      return nearestOn(at, a, b).off <= Math.max(line.wall.thickness / 2, 6 / view.k);
    }) ?? null
  );
}

/** The proposed wall under a place. */
export function proposalAt(at: XY): ProposedWall | null {
  const { proposals } = useFound.getState();
  const { view, drawing } = useDesk.getState();
  if (!proposals || proposals.of !== drawing) return null;
  const near = 6 / view.k;
  return (
    proposals.told.walls.find((w) => nearestOnLine(at, proposedCourse(w)).off <= Math.max(w.thickness / 2, near)) ??
    null
  );
}

export function proposedCourse(w: ProposedWall): Course {
  return courseOf(pair(w.from), pair(w.to), w.rise, w.thickness);
}

/** All proposed walls whose ends lie in an area: accepted as far as they are sure, or refused. */
export async function acceptWithin(a: XY, b: XY, takeAway: boolean): Promise<void> {
  const { proposals } = useFound.getState();
  if (!proposals) return;
  const ring = [a, [b[0], a[1]], b, [a[0], b[1]]] as const;
  const ids = proposals.told.walls
    .filter((w) => (takeAway || w.sure) && contains(ring, pair(w.from)) && contains(ring, pair(w.to)))
    .map((w) => w.id);
  if (ids.length === 0) return;
  await (takeAway ? refuse("proposals", proposals.of, ids) : accept({ walls: ids }));
}

/** A click takes the proposal there, or else the drawn wall under it. */
export async function inkPoint(at: XY): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  if (storey === null || drawing === null) return;
  const opening = openingProposedAt(at);
  if (opening) return accept({ walls: [], inTraced: [opening.id] });
  const proposed = proposalAt(at);
  if (proposed) return accept({ walls: [proposed.id] });
  await said(async () => {
    const params = { path: inProject(drawing), query: { x: at[0], y: at[1] } };
    const { found } = await settled(api.GET("/api/projects/{project}/drawings/{id}/probe", { params }));
    if (!found) {
      useProbed.setState({ words: "No wall is drawn there: click on its body or between its two lines." });
      return;
    }
    const walls = [{ from: found.from, to: found.to, thickness: found.thickness, buildUp: found.buildUp?.id ?? null }];
    const refused = await change("Probe a wall", [{ do: "lay", lay: { storey, drawing, walls } }]);
    if (refused) return;
    const taken = found.buildUp ? `, taken as ${found.buildUp.name}` : "";
    useProbed.setState({
      words: `${inWords(found.thickness)} thick, ±${fine(Math.max(0.1, found.plusMinusMm), 1)}${taken}.`,
    });
    if (useFound.getState().proposals?.of === drawing) await look("proposals", drawing);
  });
}
