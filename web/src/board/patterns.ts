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
  const alike = new Map<string, Thing<"finish">>();
  for (const finish of finishes) if (finish.pattern !== "plain") alike.set(keyOf(finish), finish);
  return useQueries({
    queries: [...alike].map(([key, { pattern, width, height, joint, bond }]) => ({
      queryKey: ["pattern", key],
      queryFn: () => settled(api.GET("/api/pattern", { params: { query: { pattern, width, height, joint, bond } } })),
      staleTime: Number.POSITIVE_INFINITY,
    })),
    combine: (told) => {
      const byKey = new Map([...alike.keys()].map((key, i) => [key, told[i]?.data]));
      return new Map(
        finishes.flatMap((finish) => {
          const data = byKey.get(keyOf(finish));
          const [u = 1, v = 1] = data?.size ?? [];
          return data ? [[finish.id, { size: [u, v], pieces: data.pieces }] as const] : [];
        }),
      );
    },
  });
}

const keyOf = ({ pattern, width, height, joint, bond }: Thing<"finish">) =>
  `${pattern} ${width} ${height} ${joint} ${bond}`;
