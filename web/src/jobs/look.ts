import { useEffect } from "react";
import type { Progress } from "../api/client";
import { look, type Readings, type Search, useInk } from "../desk/ink";
import { useProject } from "../store/project";
import { workKey } from "../store/work";

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
  const readings = useInk((s) => s.readings);
  return readings?.of === drawing ? readings.told : null;
}
