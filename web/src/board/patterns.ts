import { useQueries } from "@tanstack/react-query";
import { api, settled } from "../api/client";
import type { Thing } from "../store/rows";

/** What repeats of a pattern, and the pieces in it: their least and most corners, mm. */
export interface Repeat {
  size: readonly [number, number];
  pieces: readonly (readonly number[])[];
}

/** How dark the joints between pieces are. */
export const JOINT = { colour: "#1c2a26", alpha: 0.45 };

/** What repeats of finishes, by their ids; those that are alike are asked for once. A plain one has nothing. */
export function useRepeats(finishes: readonly Thing<"finish">[]): ReadonlyMap<string, Repeat> {
  return useQueries({
    queries: finishes.map(({ pattern, width, height, joint, bond }) => ({
      queryKey: ["pattern", pattern, width, height, joint, bond],
      queryFn: () => settled(api.GET("/api/pattern", { params: { query: { pattern, width, height, joint, bond } } })),
      staleTime: Number.POSITIVE_INFINITY,
      enabled: pattern !== "plain",
    })),
    combine: (told) =>
      new Map(
        told.flatMap(({ data }, i) => {
          const id = finishes[i]?.id;
          const [u = 1, v = 1] = data?.size ?? [];
          return data && id ? [[id, { size: [u, v], pieces: data.pieces }] as const] : [];
        }),
      ),
  });
}
