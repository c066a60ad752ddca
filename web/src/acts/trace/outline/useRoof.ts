import { useQuery } from "@tanstack/react-query";
import { api, type Schemas, settled } from "../../../api/client";
import { inProject, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { cornersOf } from "./corners";

/** The ridges, hips and slopes of a roof, or why it cannot stand; asked anew when one of its rows has changed. */
export function useRoof(outline: Thing<"outline">): { roof: Schemas["RoofTold"] | null; refusal: string | null } {
  const all = useProject((s) => s.rows.outlineCorner);
  const storey = outline.storey ?? "";
  const corners = cornersOf(all.values(), outline.id);
  const { data } = useQuery({
    queryKey: ["roof", outline.id, outline.revision, ...corners.map((c) => `${c.id}${c.revision}`)],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/bodies", { params: { path: inProject(storey) } })),
    enabled: outline.kind === "roof" && outline.storey !== null,
    placeholderData: (old) => old,
  });
  return {
    roof: data?.roofs.find((r) => r.id === outline.id) ?? null,
    refusal: data?.refused.find((r) => r.id === outline.id)?.message ?? null,
  };
}
