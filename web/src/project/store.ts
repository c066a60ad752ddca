import { create } from "zustand";
import type { FitReport, Operation, PageProgress, Schemas, State } from "../api/client";
import { api, Refused, settled } from "../api/client";
import { newId } from "../api/ids";
import type { paths } from "../api/schema";
import type { Rectified, Straightening } from "./rectified";
import { noRows, type Rows, withRows } from "./rows";
import { type Derived, withShapes } from "./shapes";

interface Pending {
  id: string;
  kind: "change" | "undo" | "redo";
  title: string;
  operations: Operation[];
  /** carry along what was traced, where a fit moves; kept where it is otherwise */
  carry: boolean;
  done: (refused: Refused | null) => void;
}

export interface ProjectState {
  id: string | null;
  revision: number;
  rows: Rows;
  fits: ReadonlyMap<string, FitReport>;
  derived: ReadonlyMap<string, Derived>;
  /** what the account may do with it */
  role: Schemas["Role"];
  pages: ReadonlyMap<string, PageProgress>;
  /** how far the straightened pictures for the present fits are, by drawing */
  straightening: ReadonlyMap<string, Straightening>;
  /** the latest straightened picture of a drawing */
  rectified: ReadonlyMap<string, Rectified>;
  steps: State["steps"];
  tolerance: number;
  /** changes not acknowledged yet */
  waiting: number;
  /** changes that are being looked at before they are made */
  preparing: number;
  away: boolean;
  signedOut: boolean;
  /** the latest refusal, said where the user looks until the next action */
  trouble: string | null;
}

const START: ProjectState = {
  id: null,
  revision: 0,
  rows: noRows(),
  fits: new Map(),
  derived: new Map(),
  role: "owner",
  pages: new Map(),
  straightening: new Map(),
  rectified: new Map(),
  steps: { undo: null, redo: null },
  tolerance: 20,
  waiting: 0,
  preparing: 0,
  away: false,
  signedOut: false,
  trouble: null,
};

export const useProject = create<ProjectState>(() => START);

const queue: Pending[] = [];
let sending = false;
const RETRY_MS = 700;
const POLL_MS = 1500;
/** While a page is being read its progress is asked for more often. */
const POLL_BUSY_MS = 400;

export async function openProject(id: string): Promise<void> {
  queue.length = 0;
  useProject.setState({ ...START });
  const state = await settled(api.GET("/api/projects/{project}", { params: { path: { project: id } } }));
  useProject.setState({ ...START, id });
  take(state);
  const kept = unsent(id);
  if (kept.length > 0) {
    queue.push(...kept.map((p) => ({ ...p, done: () => {} })));
    useProject.setState({ waiting: queue.length });
    void drain();
  }
}

/** Whose rows are meant by an id: that of the open project. */
export function projectId(): string {
  return useProject.getState().id ?? "";
}

/** Path parameters of a row of the open project. */
export function inProject(id: string): { project: string; id: string } {
  return { project: projectId(), id };
}

export function closeProject(): void {
  useProject.setState({ ...START });
}

/** Takes in what the server told, whole or in part. */
export function take(state: State): void {
  useProject.setState((old) => {
    const fits = new Map(old.fits);
    for (const fit of state.fits) {
      fits.set(fit.drawing, fit);
    }
    const derived = new Map(old.derived);
    for (const shapes of state.derived) {
      derived.set(shapes.storey, withShapes(derived.get(shapes.storey), shapes));
    }
    return {
      // What tells only of a change of ours does not tell of those before it: they are asked for.
      revision: state.since <= old.revision ? Math.max(old.revision, state.revision) : old.revision,
      role: state.role,
      rows: withRows(old.rows, state.rows, state.removed),
      fits: state.fits.length > 0 ? fits : old.fits,
      derived: state.derived.length > 0 ? derived : old.derived,
      pages: new Map(state.pages.map((p) => [p.page, p])),
      steps: state.steps,
      tolerance: state.tolerance,
    };
  });
}

/**
 * Sends one change. Changes go out one after another, each based on what the one before it told; while the server is
 * away they are kept and sent again under the same id.
 *
 * @returns null once acknowledged, or the refusal
 */
export function change(title: string, operations: Operation[], carry = false): Promise<Refused | null> {
  return enqueue("change", title, operations, carry);
}

export type Attempt = paths["/api/projects/{project}/try"]["post"]["responses"]["200"]["content"]["application/json"];

/** What a change would do to the fits; nothing is kept of it. Null when that cannot be asked just now. */
export async function attempt(operations: Operation[]): Promise<Attempt | null> {
  const { id, revision } = useProject.getState();
  if (id === null || queue.length > 0) return null;
  try {
    return await settled(
      api.POST("/api/projects/{project}/try", {
        params: { path: { project: id } },
        body: { base: revision, operations },
      }),
    );
  } catch (error) {
    if (error instanceof Refused && error.isPassing) return null;
    throw error;
  }
}

/** Work that ends in a change, or in a question about it: until then nothing is said to be saved. */
export async function towardsChange(work: () => Promise<void>): Promise<void> {
  useProject.setState(({ preparing }) => ({ preparing: preparing + 1 }));
  try {
    await work();
  } finally {
    useProject.setState(({ preparing }) => ({ preparing: Math.max(0, preparing - 1) }));
  }
}

export function undo(): Promise<Refused | null> {
  return enqueue("undo", "Undo", []);
}

export function redo(): Promise<Refused | null> {
  return enqueue("redo", "Redo", []);
}

function enqueue(
  kind: Pending["kind"],
  title: string,
  operations: Operation[],
  carry = false,
): Promise<Refused | null> {
  useProject.setState({ trouble: null });
  return new Promise((done) => {
    queue.push({ id: newId(), kind, title, operations, carry, done });
    keepUnsent();
    useProject.setState({ waiting: queue.length });
    void drain();
  });
}

async function drain(): Promise<void> {
  if (sending) return;
  sending = true;
  try {
    for (let next = queue[0]; next !== undefined; next = queue[0]) {
      try {
        await send(next);
        queue.shift();
        keepUnsent();
        next.done(null);
      } catch (error) {
        const refused = error instanceof Refused ? error : new Refused(0, "failure", String(error), "");
        if (refused.isPassing || refused.status === 401) {
          useProject.setState({ away: refused.status !== 401, signedOut: refused.status === 401 });
          await pause(RETRY_MS);
          continue;
        }
        queue.shift();
        keepUnsent();
        useProject.setState({ trouble: refused.message });
        // The refusal stands even when the newest rows cannot be fetched just now.
        if (refused.status === 409) await poll().catch(() => {});
        next.done(refused);
      }
      useProject.setState({ waiting: queue.length, away: false, signedOut: false });
    }
  } finally {
    sending = false;
  }
}

type Kept = Omit<Pending, "done">;

/** What is not acknowledged yet outlives a reload; sent twice, it is known by its id and done once. */
function keepUnsent(): void {
  const { id } = useProject.getState();
  if (id === null || !globalThis.localStorage) return;
  const kept: Kept[] = queue.map(({ done: _, ...rest }) => rest);
  if (kept.length === 0) localStorage.removeItem(`unsent/${id}`);
  else localStorage.setItem(`unsent/${id}`, JSON.stringify(kept));
}

function unsent(project: string): Kept[] {
  return JSON.parse(globalThis.localStorage?.getItem(`unsent/${project}`) ?? "[]") as Kept[];
}

async function send(pending: Pending): Promise<void> {
  const { id, revision } = useProject.getState();
  if (id === null) return;
  const params = { path: { project: id } };
  if (pending.kind === "change") {
    const { title, operations } = pending;
    const tracing = pending.carry ? ({ tracing: "carry" } as const) : {};
    const body = { id: pending.id, base: revision, title, operations, ...tracing };
    take(await settled(api.POST("/api/projects/{project}/changes", { params, body })));
    return;
  }
  const body = { id: pending.id, base: revision };
  take(
    await settled(
      pending.kind === "undo"
        ? api.POST("/api/projects/{project}/undo", { params, body })
        : api.POST("/api/projects/{project}/redo", { params, body }),
    ),
  );
}

async function poll(): Promise<void> {
  const { id, revision } = useProject.getState();
  if (id === null) return;
  const state = await settled(
    api.GET("/api/projects/{project}/changes", { params: { path: { project: id }, query: { since: revision } } }),
  );
  if (useProject.getState().id === id) take(state);
}

/** Asks for others' changes and for the progress of imports while the page is visible. */
export function startPolling(): () => void {
  let last = 0;
  const timer = setInterval(() => {
    const busy = [...useProject.getState().pages.values()].some((p) => p.state === "waiting" || p.state === "working");
    const due = Date.now() - last >= (busy ? POLL_BUSY_MS : POLL_MS);
    if (document.visibilityState !== "visible" || sending || !due) return;
    last = Date.now();
    poll().then(
      () => useProject.getState().away && useProject.setState({ away: false }),
      (error: unknown) => {
        if (error instanceof Refused && error.isPassing) useProject.setState({ away: true });
        if (error instanceof Refused && error.status === 401) useProject.setState({ signedOut: true });
      },
    );
  }, POLL_BUSY_MS);
  return () => clearInterval(timer);
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
