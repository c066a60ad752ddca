import { useQuery } from "@tanstack/react-query";
import { api, type Schemas, settled } from "../../../api/client";
import { inProject, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";

export type BoundaryAnswer = Schemas["BoundaryAnswer"];

/** Legs of a boundary in their order. */
export function legsOf(legs: Iterable<Thing<"leg">>, boundary: string): Thing<"leg">[] {
  return inOrder(legs)
    .filter((l) => l.boundary === boundary)
    .sort((a, b) => a.order - b.order);
}

/** Where a boundary runs and how it closes, asked anew when one of its rows has changed. */
export function useBoundary(boundary: Thing<"boundary"> | undefined): BoundaryAnswer | undefined {
  const legs = useProject((s) => s.rows.leg);
  const state = boundary
    ? [boundary.id, boundary.revision, ...legsOf(legs.values(), boundary.id).map((l) => `${l.id}${l.revision}`)]
    : [];
  const { data } = useQuery({
    queryKey: ["boundary", ...state],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/boundaries/{id}", { params: { path: inProject(boundary?.id ?? "") } })),
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
