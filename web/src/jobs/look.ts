import { useEffect } from "react";
import type { Progress } from "../api/client";
import { look, type Search } from "../desk/ink";

/** Keeps what a search has found in view: looked at when it is opened, and whenever the work on it has come to its end. */
export function useLook(search: Search, drawing: string, work: Progress | undefined): void {
  const ended = work?.state === "done" ? work : null;
  useEffect(() => {
    if (ended || drawing) void look(search, drawing);
  }, [search, drawing, ended]);
}
