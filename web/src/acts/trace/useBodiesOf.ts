import { useQuery } from "@tanstack/react-query";
import { api, type Schemas, settled } from "../../api/client";
import { inProject, useProject } from "../../store/project";

/** Something of what stands on a storey, asked anew once something has been saved; undefined while it is not wanted or not there. */
export function useBodiesOf<T>(
  storey: string | null,
  isWanted: boolean,
  select: (told: Schemas["Bodies"]) => T,
): T | undefined {
  const revision = useProject((s) => (isWanted ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["bodies", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/bodies", { params: { path: inProject(storey ?? "") } })),
    enabled: isWanted && storey !== null,
    placeholderData: (old) => old,
    select,
  });
  return data;
}
