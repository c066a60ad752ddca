import { useQuery } from "@tanstack/react-query";
import { api, type Schemas, settled } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { nearestOn, type XY } from "../../../geometry/plane";
import { inProject, useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";
import { arcChain } from "../../../store/walls";

export type BoundaryAnswer = Schemas["BoundaryAnswer"];

/** Legs of a boundary in their order. */
export function legsOf(legs: Iterable<Thing<"leg">>, boundary: string): Thing<"leg">[] {
  return inOrder(legs)
    .filter((l) => l.boundary === boundary)
    .sort((a, b) => a.order - b.order);
}

/** The last answer of each boundary, which is what is drawn of it. */
const seen = new Map<string, BoundaryAnswer>();

/** Each leg as it runs, model points: a straight one has two, a curved one the chords of its arc. */
export function legLines(answer: BoundaryAnswer | undefined): (readonly XY[])[] {
  const corners: readonly (readonly number[])[] = answer?.closed?.corners ?? answer?.path ?? [];
  return (answer?.closed?.rises ?? answer?.rises ?? []).map((rise, i) => {
    const [[ax = 0, ay = 0] = [], [bx = 0, by = 0] = []] = [corners[i], corners[(i + 1) % corners.length]];
    return arcChain([ax, ay], [bx, by], rise);
  });
}

/** Legs of the storey at hand as they run. */
function legsHere(): { id: string; line: readonly XY[] }[] {
  const { rows } = useProject.getState();
  return boundariesOf(rows.boundary.values(), useDesk.getState().storey).flatMap((boundary) => {
    const lines = legLines(seen.get(boundary.id));
    return legsOf(rows.leg.values(), boundary.id).map(({ id }, i) => ({ id, line: lines[i] ?? [] }));
  });
}

export const legPoints = (): readonly XY[] => legsHere().flatMap(({ line }) => line);

/** The leg that a click at a place means. */
export function legAt(pointer: XY, reach: number): string | null {
  let best: { id: string; off: number } | null = null;
  for (const { id, line } of legsHere()) {
    for (let k = 1; k < line.length; k++) {
      const { off } = nearestOn(pointer, line[k - 1] ?? pointer, line[k] ?? pointer);
      if (off <= Math.min(reach, best?.off ?? reach)) best = { id, off };
    }
  }
  return best?.id ?? null;
}

/** Boundaries of a storey in the order in which they were made. */
export function boundariesOf(boundaries: Iterable<Thing<"boundary">>, storey: string | null): Thing<"boundary">[] {
  return inOrder(boundaries).filter((b) => b.storey === storey);
}

/** Where a boundary runs and how it closes, asked anew when one of its rows has changed. */
export function useBoundary(boundary: Thing<"boundary"> | undefined): BoundaryAnswer | undefined {
  const legs = useProject((s) => s.rows.leg);
  const state = boundary
    ? [boundary.id, boundary.revision, ...legsOf(legs.values(), boundary.id).map((l) => `${l.id}${l.revision}`)]
    : [];
  const { data } = useQuery({
    queryKey: ["boundary", ...state],
    queryFn: async () => {
      const path = inProject(boundary?.id ?? "");
      const answer = await settled(api.GET("/api/projects/{project}/boundaries/{id}", { params: { path } }));
      seen.set(path.id, answer);
      return answer;
    },
    enabled: boundary !== undefined,
    placeholderData: (old) => old,
  });
  return data;
}

/** How near what is built comes to each line of a boundary, asked anew when one of its rows or a wall has changed. */
export function useClearances(boundary: Thing<"boundary">): readonly Schemas["Clearance"][] {
  const { leg, wall, node } = useProject((s) => s.rows);
  let newest = boundary.revision;
  for (const rows of [leg, wall, node]) for (const { revision } of rows.values()) newest = Math.max(newest, revision);
  const { data } = useQuery({
    queryKey: ["clearances", boundary.id, leg.size, wall.size, newest],
    queryFn: () =>
      settled(
        api.GET("/api/projects/{project}/boundaries/{id}/clearances", { params: { path: inProject(boundary.id) } }),
      ),
    placeholderData: (old) => old,
  });
  return data?.clearances ?? [];
}
