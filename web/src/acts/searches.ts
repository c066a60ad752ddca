import { useEffect } from "react";
import { create } from "zustand";
import { api, type Progress, type Schemas, settled } from "../api/client";
import type { XY } from "../geometry/plane";
import { inProject, say, useProject } from "../store/project";
import { workKey } from "../store/work";

export type Proposals = Schemas["Proposals"];
export type Readings = Schemas["Readings"];
export type Facade = Schemas["Facade"];
export type ShownOpening = Facade["openings"][number];
export type ProposedWall = Proposals["walls"][number];
export type ProposedOpening = Pick<
  Proposals["inTraced"][number],
  "kind" | "offset" | "width" | "leafAt" | "leafSide"
> & {
  id: string;
};
export type ReadFigure = Readings["figures"][number];
export type ReadRoom = Readings["rooms"][number];

interface Found {
  /** what was told last, and of which drawing */
  proposals: { of: string; told: Proposals } | null;
  readings: { of: string; told: Readings } | null;
  facade: { of: string; told: Facade } | null;
  /** the proposal or reading that is looked at */
  looked: string | null;
}

/** What searches of drawings have found. */
export const useFound = create<Found>(() => ({
  proposals: null,
  readings: null,
  facade: null,
  looked: null,
}));

export type Search = "proposals" | "readings" | "facade";
const PATHS = {
  proposals: {
    show: "/api/projects/{project}/drawings/{id}/proposals",
    refuse: "/api/projects/{project}/drawings/{id}/proposals/refuse",
  },
  readings: {
    show: "/api/projects/{project}/drawings/{id}/readings",
    refuse: "/api/projects/{project}/drawings/{id}/readings/refuse",
  },
  facade: {
    show: "/api/projects/{project}/drawings/{id}/facade",
    refuse: "/api/projects/{project}/drawings/{id}/facade/refuse",
  },
} as const;

function keep(search: Search, of: string, told: Proposals | Readings | Facade): void {
  useFound.setState({ [search]: { of, told } });
}

/** What a search has found. */
export async function look(search: Search, drawing: string): Promise<void> {
  try {
    const params = { path: inProject(drawing) };
    keep(search, drawing, await settled<Proposals | Readings | Facade>(api.GET(PATHS[search].show, { params })));
  } catch {
    // Away: it is asked again when the panel is next looked at.
  }
}

type Params = { path: { project: string; id: string } };
const REFUSES: Record<Search, (params: Params, ids: string[]) => Promise<Proposals | Readings | Facade>> = {
  proposals: (params, things) => settled(api.POST(PATHS.proposals.refuse, { params, body: { things } })),
  readings: (params, readings) => settled(api.POST(PATHS.readings.refuse, { params, body: { readings } })),
  facade: (params, openings) => settled(api.POST(PATHS.facade.refuse, { params, body: { openings } })),
};

/** What is not wanted; nothing takes all refusals back. */
export async function refuse(search: Search, drawing: string, ids: readonly string[]): Promise<void> {
  const params = { path: inProject(drawing) };
  await said(async () => {
    keep(search, drawing, await REFUSES[search](params, [...ids]));
  });
}

/** What goes wrong is said on top. */
export async function said(does: () => Promise<void>): Promise<void> {
  try {
    await does();
  } catch (error) {
    say((error as Error).message);
  }
}

/**
 * Keeps what a search has found in view: looked at when it is opened, whenever the work on it has come to its end, and whenever what tells
 * which of it is new (`told`) has changed, as by undo.
 */
export function useLook(search: Search, drawing: string | null, work: Progress | undefined, told: unknown): void {
  const ended = work?.state === "done" ? work : null;
  useEffect(() => {
    if (drawing !== null && (ended || told || drawing)) void look(search, drawing);
  }, [search, drawing, ended, told]);
}

/** What is written on a drawing, once it was read; null until then. */
export function useReadings(drawing: string | null): Readings | null {
  const work = useProject((s) => (drawing === null ? undefined : s.work.get(workKey("read-figures", drawing))));
  const stated = useProject((s) => s.rows.knownLength);
  useLook("readings", drawing, work, stated);
  return useToldReadings(drawing);
}

/** The same as it was told last, where somebody else keeps looking. */
export function useToldReadings(drawing: string | null): Readings | null {
  const readings = useFound((s) => s.readings);
  return readings?.of === drawing ? readings.told : null;
}

export function pair(p: readonly number[]): XY {
  return [p[0] ?? 0, p[1] ?? 0];
}
