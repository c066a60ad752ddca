import { useQuery } from "@tanstack/react-query";
import { planCorners } from "../desk/elevation";
import { useProject } from "../project/store";

/** Distances along a side of the plan's corners that stand nearest to its plane, each once. */
export function usePlanCorners(side: string | null): number[] {
  const rows = useProject((s) => s.rows);
  const row = side === null ? undefined : rows.side.get(side);
  const revision = useProject((s) => s.revision);
  const { data } = useQuery({
    queryKey: ["corners", side, row?.revision, revision],
    queryFn: async () => (side === null ? [] : ((await planCorners(side)) ?? [])),
    enabled: row !== undefined && row.fromX !== null,
    placeholderData: (old) => old,
  });
  if (!row || row.fromX === null || !data) return [];
  return nearestCorners(data);
}

/** Those of the building's near face: within a metre of the nearest, no two within a centimetre. */
export function nearestCorners(corners: readonly { alongMm: number; behindMm: number }[]): number[] {
  const near = Math.min(...corners.map((c) => Math.abs(c.behindMm)));
  const along = corners
    .filter((c) => Math.abs(c.behindMm) < near + 1000)
    .map((c) => c.alongMm)
    .sort((a, b) => a - b);
  return along.filter((x, i) => i === 0 || x - (along[i - 1] ?? 0) > 10);
}
