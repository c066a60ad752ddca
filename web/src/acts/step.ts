import type { Act, Shown } from "../board/act";

/** What an act's folder brings: itself, and what it shows of what is there. */
export interface ActModule {
  default: Act;
  shows?: readonly Shown[];
}

/** All acts of a step, gathered from their folders. */
export function gathered(modules: Record<string, ActModule>): { acts: readonly Act[]; shows: readonly Shown[] } {
  const all = Object.values(modules);
  return { acts: all.map((m) => m.default), shows: all.flatMap((m) => m.shows ?? []) };
}
