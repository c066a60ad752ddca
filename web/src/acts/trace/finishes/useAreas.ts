import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, settled } from "../../../api/client";
import { inProject, useProject } from "../../../store/project";

const NONE: ReadonlyMap<string, number> = new Map();

/** Net areas of the surfaces of a storey, m², by their ids; asked anew once something has been saved. */
export function useAreas(storey: string | null, isWanted: boolean): ReadonlyMap<string, number> {
  const revision = useProject((s) => (isWanted ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["surfaces", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/bodies", { params: { path: inProject(storey ?? "") } })),
    enabled: isWanted && storey !== null,
    placeholderData: (old) => old,
  });
  return useMemo(
    () => (data && isWanted ? new Map(data.surfaces.map((s) => [s.id, s.areaM2])) : NONE),
    [data, isWanted],
  );
}
