import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../../../api/client";
import { inProject, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { cornersOf } from "./corners";

/** What an outline encloses, asked anew when one of its rows has changed. */
export function useOutline(outline: Thing<"outline">) {
  const all = useProject((s) => s.rows.outlineCorner);
  const corners = cornersOf(all.values(), outline.id);
  const { data } = useQuery({
    queryKey: ["outline", outline.id, ...corners.map((c) => `${c.id}${c.revision}`)],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/outlines/{id}", { params: { path: inProject(outline.id) } })),
    placeholderData: (old) => old,
  });
  return { corners, answer: data };
}
