import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type Schemas, settled } from "../../../api/client";
import { inProject, useProject } from "../../../store/project";
import type { Rows } from "../../../store/rows";
import { area, inWords, written } from "../../../ui/measures";

type Height = Schemas["RoomHeight"];

/** Whether anything lies over a storey that could make its rooms other than storey-high, or a stair that some lie under. */
export function isCovered(rows: Rows): boolean {
  return (
    rows.stair.size > 0 ||
    [...rows.outline.values()].some((o) => o.storey !== null && ["roof", "ceiling", "slab", "void"].includes(o.kind))
  );
}

/** Whether a void in a floor above may open a room of a storey. */
export function mayBeOpen(rows: Rows, storey: string): boolean {
  const elevation = rows.storey.get(storey)?.elevation ?? 0;
  return [...rows.outline.values()].some(
    (o) => o.kind === "void" && (rows.storey.get(o.storey ?? "")?.elevation ?? elevation) > elevation,
  );
}

/** How high the rooms of a storey are, by their regions; nothing while it is not wanted. */
export function useHeights(storey: string | null, isWanted: boolean): ReadonlyMap<string, Height> {
  const revision = useProject((s) => (isWanted ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["heights", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/heights", { params: { path: inProject(storey ?? "") } })),
    enabled: isWanted && storey !== null,
    placeholderData: (old) => old,
  });
  // Not by `select`: of what stands in for an answer it would be another one each time.
  return useMemo(() => (data && isWanted ? new Map(data.heights.map((h) => [h.region, h])) : NONE), [data, isWanted]);
}

const NONE: ReadonlyMap<string, Height> = new Map();

/** `2 425 mm high`, `2 425 to 6 800 mm high · open to above`. */
export function highInWords({ leastMm, mostMm, openM2 }: Height): string {
  const high = mostMm - leastMm < 0.5 ? inWords(mostMm) : `${written(leastMm)} to ${inWords(mostMm)}`;
  return `${high} high${openM2 > 0 ? " · open to above" : ""}`;
}

/** `3.15 m² under stairs, 2.10 m² of it too low to count`; null where none are. */
export function underStairsInWords({ underStairsM2, lowM2 }: Height): string | null {
  if (underStairsM2 < 0.005) return null;
  return `${area(underStairsM2)} under stairs${lowM2 < 0.005 ? "" : `, ${area(lowM2)} of it too low to count`}`;
}
