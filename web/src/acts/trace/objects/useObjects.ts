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

/** Rings of objects from above, about their middles, as the core draws them; objects of one size are asked for once. */
export function useForms(objects: readonly Form[]): ReadonlyMap<string, readonly (readonly XY[])[]> {
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
          (data?.plan ?? []).map((ring) => ring.map(([x = 0, y = 0]): XY => [x, y])),
        ]),
      ),
  });
}

export const formKey = ({ kind, width, depth, height }: Form) => `${kind} ${width} ${depth} ${height}`;
