import { useQueries } from "@tanstack/react-query";
import { api, type Schemas, settled } from "../../../api/client";
import { useBodiesOf } from "../useBodiesOf";
import type { Finish } from "./finishes";

/** What repeats of a pattern, and the pieces in it, mm. */
export interface Repeat {
  size: readonly [number, number];
  pieces: readonly (readonly number[])[];
}

const areas = (told: Schemas["Bodies"]) => new Map(told.surfaces.map((s) => [s.id, s.areaM2]));

/** Net areas of the surfaces of a storey, m², by their ids. */
export function useAreas(storey: string | null, isWanted: boolean): ReadonlyMap<string, number> {
  return useBodiesOf(storey, isWanted, areas) ?? NONE;
}

const NONE: ReadonlyMap<string, number> = new Map();

/** What repeats of finishes, by their ids; those that look alike are asked for once. */
export function useRepeats(finishes: readonly Finish[]): ReadonlyMap<string, Repeat> {
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
          return data && id
            ? [[id, { size: [data.size[0] ?? 1, data.size[1] ?? 1], pieces: data.pieces }] as const]
            : [];
        }),
      ),
  });
}
