import { newId } from "../api/ids";
import type { Unsent } from "./edits";
import type { Shelf } from "./mirror";

interface Kept extends Unsent {
  /** when it was written, ms */
  at: number;
}

/** Where there are no locks to ask, a tab that has written nothing for so long is taken for gone; a change sent twice is made once. */
const GONE_MS = 60_000;
const WHOLE = /^unsent\/([^/]+)\/([^/]+)\/([^/]+)$/;

let tab: Promise<string> | null = null;

/** The name of this tab: kept over a reload, another one in a copy of the tab. It is locked while the tab lives. */
function tabName(): Promise<string> {
  tab ??= (async () => {
    const known = sessionStorage.getItem("tab");
    const name = known !== null && (await hold(known)) ? known : newId();
    if (name !== known) await hold(name);
    sessionStorage.setItem("tab", name);
    return name;
  })();
  return tab;
}

/** Takes a tab's lock for as long as this one lives; false where it is taken. */
function hold(name: string): Promise<boolean> {
  if (!navigator.locks) return Promise.resolve(true);
  return new Promise((told) => {
    void navigator.locks.request(`plinth/${name}`, { ifAvailable: true }, (lock) => {
      told(lock !== null);
      return lock === null ? undefined : new Promise<void>(() => {});
    });
  });
}

/** Does something in the name of a tab that is gone; nothing where it lives. */
async function ifGone(name: string, kept: Kept, act: () => void): Promise<void> {
  if (!navigator.locks) {
    if (Date.now() - kept.at > GONE_MS) act();
    return;
  }
  await navigator.locks.request(`plinth/${name}`, { ifAvailable: true }, (lock) => {
    if (lock !== null) act();
  });
}

/**
 * This tab's place for unsent work on a project, with what tabs that are gone have left behind. Work of other accounts stays where it
 * is until they sign in again.
 */
export async function shelfFor(account: string, project: string): Promise<Shelf> {
  if (!globalThis.localStorage) return { read: () => ({ edits: [], clashes: [] }), write: () => true };
  const name = await tabName();
  const mine = `unsent/${account}/${project}/${name}`;
  for (const key of Object.keys(localStorage)) {
    const [, ownedBy, of, other = ""] = WHOLE.exec(key) ?? [];
    if (ownedBy !== account || of !== project || other === name) continue;
    const left = readAt(key);
    await ifGone(other, left, () => {
      if (writeAt(mine, together(readAt(mine), left))) localStorage.removeItem(key);
    });
  }
  return { read: () => readAt(mine), write: (unsent) => writeAt(mine, unsent) };
}

/** How many changes of an account wait in this browser, by project. */
export function unsentBy(account: string): ReadonlyMap<string, number> {
  const counts = new Map<string, number>();
  for (const key of Object.keys(globalThis.localStorage ?? {})) {
    const [, ownedBy, project = ""] = WHOLE.exec(key) ?? [];
    if (ownedBy !== account) continue;
    const { edits, clashes } = readAt(key);
    counts.set(project, (counts.get(project) ?? 0) + edits.length + clashes.length);
  }
  return counts;
}

function together(a: Unsent, b: Unsent): Unsent {
  // Ids sort by time.
  const edits = [...a.edits, ...b.edits].sort((x, y) => (x.id < y.id ? -1 : 1));
  return { edits, clashes: [...a.clashes, ...b.clashes] };
}

function readAt(key: string): Kept {
  const { at = 0, edits = [], clashes = [] } = JSON.parse(localStorage.getItem(key) ?? "{}") as Partial<Kept>;
  return { at, edits, clashes };
}

function writeAt(key: string, { edits, clashes }: Unsent): boolean {
  try {
    if (edits.length + clashes.length === 0) localStorage.removeItem(key);
    else localStorage.setItem(key, JSON.stringify({ at: Date.now(), edits, clashes } satisfies Kept));
    return true;
  } catch {
    return false; // the browser's room is used up
  }
}
