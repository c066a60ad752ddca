import { useQueries, useQuery } from "@tanstack/react-query";
import { api, settled } from "../../../api/client";
import type { XY } from "../../../geometry/plane";
import type { Thing } from "../../../store/rows";

/** What stands in rooms, with what each usually measures. */
export function useObjectKinds() {
  const { data } = useQuery({
    queryKey: ["objects"],
    queryFn: () => settled(api.GET("/api/objects")),
    staleTime: Number.POSITIVE_INFINITY,
  });
  return data?.kinds ?? [];
}

type Form = Pick<Thing<"object">, "kind" | "width" | "depth" | "height">;

/** Rings that an object is made of, about its middle, as the core draws them: from above and from the front. */
export interface Faces {
  plan: readonly (readonly XY[])[];
  front: readonly (readonly XY[])[];
}

/** Faces of objects by their form; those of one size are asked for once. */
export function useForms(objects: readonly Form[]): ReadonlyMap<string, Faces> {
  const keys = [...new Map(objects.map((o) => [formKey(o), o])).entries()];
  return useQueries({
    queries: keys.map(([key, { kind, width, depth, height }]) => ({
      queryKey: ["object", key],
      queryFn: () => settled(api.GET("/api/object", { params: { query: { kind, width, depth, height } } })),
      staleTime: Number.POSITIVE_INFINITY,
    })),
    combine: (told) =>
      new Map(
        told.map(({ data }, i) => [
          keys[i]?.[0] ?? "",
          { plan: (data?.plan ?? []).map(points), front: (data?.front ?? []).map(points) },
        ]),
      ),
  });
}

const points = (ring: readonly (readonly number[])[]) => ring.map(([x = 0, y = 0]): XY => [x, y]);

export const formKey = ({ kind, width, depth, height }: Form) => `${kind} ${width} ${depth} ${height}`;
