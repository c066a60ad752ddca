import type { FitReport, PageMade, Schemas, State } from "../api/client";
import { noRows, type Rows, withRows } from "./rows";
import { type Derived, withShapes } from "./shapes";
import { type Works, withWork } from "./work";

/** A project as the server has told it, complete up to a revision. */
export interface Told {
  revision: number;
  rows: Rows;
  fits: ReadonlyMap<string, FitReport>;
  derived: ReadonlyMap<string, Derived>;
  /** what the account may do with it */
  role: Schemas["Role"];
  /** storeys of which the rows and shapes are still to come */
  missing: ReadonlySet<string>;
  /** what was made of pages */
  pages: ReadonlyMap<string, PageMade>;
  /** how far long work is, by kind and the row that it is about */
  work: Works;
  steps: State["steps"];
  tolerance: number;
  /** who has the project open just now, by their open pages */
  present: State["present"];
  /** what was done last, the latest first */
  news: State["news"];
}

export const NOTHING_TOLD: Told = {
  revision: 0,
  rows: noRows(),
  fits: new Map(),
  derived: new Map(),
  role: "owner",
  missing: new Set(),
  pages: new Map(),
  work: new Map(),
  steps: { undo: null, redo: null },
  tolerance: 20,
  present: [],
  news: [],
};

/**
 * Takes in an answer, however late it comes. What it tells of revisions that are known already is passed over, so that no row goes
 * back; one that leaves out revisions before it tells nothing at all. A storey that was left out is there once it was told whole.
 */
export function taken(told: Told, state: State): Told {
  if (state.revision < told.revision || state.since > told.revision) return told;
  // Told all anew, as after a long absence, nothing is left of what was known.
  const from = state.since === 0 ? { ...NOTHING_TOLD, revision: told.revision } : told;
  const gone = state.removed.flatMap(({ type, id }) => (type === "page" ? [id] : []));
  const missing = stillMissing(told, state);
  const live = {
    role: state.role,
    steps: alike(told.steps, state.steps) ? told.steps : state.steps,
    tolerance: state.tolerance,
    present: alike(told.present, state.present) ? told.present : state.present,
    news: state.news.length === 0 || alike(told.news, state.news) ? told.news : state.news,
    pages: withNews(from.pages, state.pages, (page) => page.page, gone),
    work: withWork(from.work, state.work),
    fits: withNews(from.fits, state.fits, (fit) => fit.drawing),
  };
  if (state.revision === told.revision && missing === told.missing) {
    const isNew = (Object.keys(live) as (keyof typeof live)[]).some((key) => live[key] !== told[key]);
    return isNew ? { ...told, ...live } : told;
  }
  const derived = new Map(from.derived);
  // Of a storey that is still to come, what differs says nothing.
  const known = state.derived.filter((shapes) => !missing.has(shapes.storey));
  for (const shapes of known) derived.set(shapes.storey, withShapes(derived.get(shapes.storey), shapes));
  return {
    ...live,
    revision: state.revision,
    rows: withRows(from.rows, state.rows, state.removed),
    derived: known.length > 0 ? derived : from.derived,
    missing,
  };
}

const alike = (a: unknown, b: unknown) => JSON.stringify(a) === JSON.stringify(b);

/** What is told without a change may be told more than once: where nothing of it is new, the same map. */
function withNews<T>(
  known: ReadonlyMap<string, T>,
  told: readonly T[],
  name: (thing: T) => string,
  gone: readonly string[] = [],
): ReadonlyMap<string, T> {
  const news = told.filter((thing) => !alike(known.get(name(thing)), thing));
  const lost = gone.filter((id) => known.has(id));
  if (news.length + lost.length === 0) return known;
  const next = new Map([...known, ...news.map((thing) => [name(thing), thing] as const)]);
  for (const id of lost) next.delete(id);
  return next;
}

function stillMissing(told: Told, state: State): Told["missing"] {
  const storeys = state.rows.flatMap((row) => (row.type === "storey" ? [row.id] : []));
  const before = state.since === 0 ? new Set(state.storeys === null ? [] : storeys) : told.missing;
  const gone = state.removed.flatMap(({ type, id }) => (type === "storey" ? [id] : []));
  const there = [...(state.storeys ?? []), ...gone].filter((id) => before.has(id));
  return there.length === 0 ? before : new Set([...before].filter((id) => !there.includes(id)));
}
