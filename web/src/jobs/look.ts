import { useEffect } from "react";
import type { Progress } from "../api/client";
import { look, type Search } from "../desk/ink";

/**
 * Keeps what a search has found in view: looked at when it is opened, whenever the work on it has come to its end, and whenever what tells
 * which of it is new (`told`) has changed, as by undo.
 */
export function useLook(search: Search, drawing: string, work: Progress | undefined, told: unknown): void {
  const ended = work?.state === "done" ? work : null;
  useEffect(() => {
    if (ended || drawing || told) void look(search, drawing);
  }, [search, drawing, ended, told]);
}
