import { create } from "zustand";
import { api, settled } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { contains, nearestOn, type XY } from "../../../geometry/plane";
import { change, inProject } from "../../../store/project";
import { fine, inWords } from "../../../ui/measures";
import { look, type ProposedWall, pair, refuse, said, useFound } from "../../searches";

/** What the last probe found, told until the next. */
export const useProbed = create<{ words: string | null }>(() => ({ words: null }));

/** Lays proposed walls down with their openings, as one change: some, or all that are sure and the columns too. */
export async function accept(ids: readonly string[] | null): Promise<void> {
  const { proposals } = useFound.getState();
  const { storey, drawing } = useDesk.getState();
  if (!proposals || storey === null || proposals.of !== drawing) return;
  const walls = proposals.told.walls.filter((w) => (ids === null ? w.sure : ids.includes(w.id)));
  const columns = ids === null ? proposals.told.columns : [];
  if (walls.length === 0 && columns.length === 0) return;
  const index = new Map(walls.map((w, i) => [w.id, i]));
  const openings = proposals.told.openings.flatMap((o) => {
    const wall = index.get(o.wall);
    return wall === undefined || !o.sure
      ? []
      : [{ wall, kind: o.kind, offset: o.offset, width: o.width, leafAt: o.leafAt, leafSide: o.leafSide }];
  });
  const refused = await change(walls.length === 1 ? "Accept a wall" : "Accept walls", [
    {
      do: "lay",
      lay: {
        storey,
        drawing,
        walls: walls.map((w) => ({ from: w.from, to: w.to, thickness: w.thickness, buildUp: w.buildUp?.id ?? null })),
        openings,
        columns: columns.map(({ x, y, width, depth }) => ({ x, y, width, depth })),
      },
    },
  ]);
  if (!refused) await look("proposals", drawing);
}

/** The proposed wall under a place. */
export function proposalAt(at: XY): ProposedWall | null {
  const { proposals } = useFound.getState();
  const { view, drawing } = useDesk.getState();
  if (!proposals || proposals.of !== drawing) return null;
  const near = 6 / view.k;
  return (
    proposals.told.walls.find((w) => nearestOn(at, pair(w.from), pair(w.to)).off <= Math.max(w.thickness / 2, near)) ??
    null
  );
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
  await (takeAway ? refuse("proposals", proposals.of, ids) : accept(ids));
}

/** A click takes the proposal there, or else the drawn wall under it. */
export async function inkPoint(at: XY): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  if (storey === null || drawing === null) return;
  const proposed = proposalAt(at);
  if (proposed) return accept([proposed.id]);
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
