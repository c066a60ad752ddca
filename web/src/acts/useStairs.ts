import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { create } from "zustand";
import { api, type Schemas, settled } from "../api/client";
import { inProject, useProject } from "../store/project";

export type StairShown = Schemas["StairShown"];
export type StairLimit = Required<Schemas["StairLimitValues"]>;

/** What the server has told of the stairs of the storey on the board, for the pointer. */
export const useShown = create<{ storey: string | null; stairs: readonly StairShown[] }>(() => ({
  storey: null,
  stairs: [],
}));

const NONE = {
  stairs: [] as readonly StairShown[],
  refused: [] as readonly { id: string; message: string }[],
  limits: [] as readonly StairLimit[],
};

/** Stairs of a storey as the core draws them, those that arrive from below with them; asked anew once something has been saved. */
export function useStairs(storey: string | null) {
  const isWanted = useProject((s) => s.rows.stair.size > 0);
  const revision = useProject((s) => (isWanted ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["stairs", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/stairs", { params: { path: inProject(storey ?? "") } })),
    enabled: isWanted && storey !== null,
    placeholderData: (old, query) => (query?.queryKey[1] === storey ? old : undefined),
  });
  const told = isWanted && data ? data : NONE;
  useEffect(() => useShown.setState({ storey, stairs: told.stairs }), [storey, told]);
  return told;
}
