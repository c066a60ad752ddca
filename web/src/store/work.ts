import type { PageMade, Progress, Schemas } from "../api/client";

/** How far long work is, by kind and the row that it is about. */
export type Works = ReadonlyMap<string, Progress>;

/** Long work that can be asked for and stopped. */
export type Asked = Schemas["Asked"];

/** Under which it is known: of one kind about one row there is one. */
export function workKey(kind: Progress["kind"], about: string): string {
  return `${kind} ${about}`;
}

export function isUnderWay(progress: Progress | undefined): boolean {
  return progress?.state === "waiting" || progress?.state === "working";
}

/** How the pictures of a page are. */
export function picturesAre(
  told: { pages: ReadonlyMap<string, PageMade>; work: Works },
  page: string,
): "ready" | Progress["state"] {
  const made = told.pages.get(page);
  const state = told.work.get(workKey("import-page", page))?.state ?? "missing";
  return state === "missing" || state === "done" ? (made?.pictures ? "ready" : "missing") : state;
}

/** Work as it was known and as it is told: what is the same stays the same object. */
export function withWork(known: Works, told: readonly Progress[]): Works {
  const moved = told.filter((p) => !isSame(known.get(workKey(p.kind, p.about)), p));
  if (moved.length === 0) return known;
  const work = new Map(known);
  for (const p of moved) work.set(workKey(p.kind, p.about), p);
  return work;
}

function isSame(a: Progress | undefined, b: Progress): boolean {
  return a?.state === b.state && a.part === b.part && a.words === b.words && a.reason === b.reason;
}
