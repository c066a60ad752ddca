import { useQuery } from "@tanstack/react-query";
import { useProject } from "../../../store/project";
import { nearestCorners, planCorners } from "./sides";

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
