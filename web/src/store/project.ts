import { create } from "zustand";
import { useShallow } from "zustand/react/shallow";
import { api, type Operation, type Progress, Refused, sending, settled } from "../api/client";
import type { paths } from "../api/schema";
import { lineTo } from "./line";
import { Mirror, type Shelf, type View } from "./mirror";
import type { Rectified } from "./straightened";
import { NOTHING_TOLD, type Told } from "./told";
import { shelfFor } from "./unsent";
import { type Asked, isUnderWay } from "./work";

export interface ProjectState extends View {
  id: string | null;
  /** the latest straightened picture of a drawing */
  rectified: ReadonlyMap<string, Rectified>;
  /** changes that are being looked at before they are made */
  preparing: number;
}

const START: ProjectState = {
  ...NOTHING_TOLD,
  id: null,
  rectified: new Map(),
  waiting: 0,
  preparing: 0,
  clashes: [],
  held: null,
  trouble: null,
  unkept: false,
};

/** The project that is open. */
export const useProject = create<ProjectState>(() => START);

/** Some fields of the project: redraws only when one of these is another. */
export function useProjectFields<K extends keyof ProjectState>(...keys: readonly K[]): Pick<ProjectState, K> {
  return useProject(useShallow((s) => Object.fromEntries(keys.map((k) => [k, s[k]])) as Pick<ProjectState, K>));
}

/** Questions that the server answers from rows: they are about what is shown, so what is on its way goes first. */
const ABOUT_ROWS = /^\/api\/projects\/[^/]+\/(drawings|boundaries|outlines|sides|storeys)\//;

sending.after = async ({ method, url }) => {
  if (method === "GET" && ABOUT_ROWS.test(new URL(url).pathname)) await current?.mirror.sent();
};

const POLL_MS = 1500;
/** While somebody else is there, what they do is seen within a second. */
const POLL_TOGETHER_MS = 700;
/** While long work is under way its progress is asked for more often. */
const POLL_BUSY_MS = 400;
const TICK_MS = 100;

/** Projects of this tab that are open, or still have something to send, each of the account whose work it is. */
const mirrors = new Map<string, Mirror>();
let wanted: string | null = null;
let current: { id: string; mirror: Mirror } | null = null;

export async function openProject(id: string, account: string): Promise<void> {
  useProject.setState({ ...START });
  wanted = id;
  const shelf = await shelfFor(account, id);
  if (wanted !== id) return; // left again meanwhile
  for (const [name, mirror] of mirrors) if (mirror.isIdle) mirrors.delete(name);
  const key = `${account}/${id}`;
  const mirror = mirrors.get(key) ?? mirrorOf(id, account, shelf);
  mirrors.set(key, mirror);
  enter(id, mirror);
  await mirror.open();
}

/** A mirror that is shown while its project is the one that is open. */
export function mirrorOf(id: string, account: string, shelf: Shelf, told?: Told): Mirror {
  const shown = (view: View) => {
    if (current?.mirror === mirror) useProject.setState({ id, ...view });
  };
  const mirror = new Mirror(lineTo(id, account), shelf, pause, shown, told);
  return mirror;
}

export function enter(id: string, mirror: Mirror): void {
  current = { id, mirror };
}

/** Leaves the project; what is still to be sent goes on being sent. */
export function closeProject(): void {
  current?.mirror.close();
  current = wanted = null;
  useProject.setState({ ...START });
}

/** Whose rows are meant by an id: that of the open project. */
export function projectId(): string {
  return useProject.getState().id ?? "";
}

/** Path parameters of a row of the open project. */
export function inProject(id: string): { project: string; id: string } {
  return { project: projectId(), id };
}

/**
 * Makes a change: shown at once, sent when what was made before it is through, kept while the server is away.
 *
 * @returns null once acknowledged, or the refusal
 */
export function change(title: string, operations: Operation[], carry = false): Promise<Refused | null> {
  return current?.mirror.change(title, operations, carry) ?? NO_PROJECT;
}

export function undo(): Promise<Refused | null> {
  return current?.mirror.undo() ?? NO_PROJECT;
}

export function redo(): Promise<Refused | null> {
  return current?.mirror.redo() ?? NO_PROJECT;
}

const NO_PROJECT = Promise.resolve(new Refused(0, "no-project", "No project is open.", ""));

/** Asks for what others have done, without waiting for the next time. */
export function refresh(): Promise<void> {
  return current?.mirror.poll() ?? Promise.resolve();
}

const WORK = "/api/projects/{project}/jobs/{kind}/{id}";

/** Asks for long work, unless it is under way for the same. */
export function ask(kind: Asked, about: string): Promise<void> {
  return worked(() => settled(api.POST(WORK, { params: { path: { ...inProject(about), kind } } })));
}

/** Stops long work; nothing of it is kept. */
export function stop(kind: Asked, about: string): Promise<void> {
  return worked(() => settled(api.POST(`${WORK}/stop`, { params: { path: { ...inProject(about), kind } } })));
}

async function worked(answer: () => Promise<Progress>): Promise<void> {
  const mirror = current?.mirror;
  try {
    mirror?.hear(await answer());
  } catch (error) {
    mirror?.say((error as Error).message);
  }
}

export function tryNow(): void {
  current?.mirror.tryNow();
}

export function putAside(): void {
  current?.mirror.putAside();
}

/** What met somebody else's change is done over it, or let go. */
export function decide(edit: string, mine: boolean): Promise<void> {
  return current?.mirror.decide(edit, mine) ?? Promise.resolve();
}

/** Says what is wrong where the user looks, until the next action; null takes it back. */
export function say(trouble: string | null): void {
  current?.mirror.say(trouble);
}

export type Attempt = paths["/api/projects/{project}/try"]["post"]["responses"]["200"]["content"]["application/json"];

/** What a change would do to the fits; nothing is kept of it. Null when that cannot be asked just now. */
export async function attempt(operations: Operation[]): Promise<Attempt | null> {
  const { id, revision, waiting } = useProject.getState();
  if (id === null || waiting > 0) return null;
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

/** Fetches a storey before the others, where it is not there yet. */
export function prefer(storey: string): void {
  current?.mirror.prefer(storey);
}

/** Until all storeys are there, for what is about all of them. */
export function allStoreys(): Promise<void> {
  return current?.mirror.full() ?? Promise.resolve();
}

/** Asks for others' changes and for how far long work is while the page is visible. */
export function startPolling(): () => void {
  let last = 0;
  const timer = setInterval(() => {
    const busy = [...useProject.getState().work.values()].some(isUnderWay);
    const together = useProject.getState().present.length > 1;
    const due = Date.now() - last >= (busy ? POLL_BUSY_MS : together ? POLL_TOGETHER_MS : POLL_MS);
    if (document.visibilityState !== "visible" || !due) return;
    last = Date.now();
    void refresh();
  }, TICK_MS);
  window.addEventListener("online", tryNow);
  return () => {
    clearInterval(timer);
    window.removeEventListener("online", tryNow);
  };
}

function pause(ms: number): Promise<void> {
  return new Promise((resolve) => setTimeout(resolve, ms));
}
