import type { Operation, Progress, State } from "../api/client";
import { Refused } from "../api/client";
import { newId } from "../api/ids";
import { type Clash, type Edit, type Held, isClash, type Unsent } from "./edits";
import { expected, type Picture } from "./expected";
import { NOTHING_TOLD, type Told, taken } from "./told";
import { withWork } from "./work";

/** The way to the server, for one project and one account. */
export interface Line {
  /** @returns the project with one of its storeys, the others to be asked for */
  whole(): Promise<State>;
  /**
   * @param storey one that is told whole beside what has changed
   * @returns null where nothing has changed
   */
  since(revision: number, storey?: string): Promise<State | null>;
  /** @param known the revision from which on the answer tells */
  send(edit: Edit, known: number): Promise<State>;
}

/** Where unsent work outlives the page. */
export interface Shelf {
  read(): Unsent;
  /** false where there is no room for it */
  write(unsent: Unsent): boolean;
}

/** What a screen shows of a project. */
export interface View extends Told {
  /** edits not acknowledged yet */
  waiting: number;
  clashes: readonly Clash[];
  held: Held | null;
  /** the latest refusals, said where the user looks until the next action */
  trouble: string | null;
  /** unsent work would not outlive the page */
  unkept: boolean;
}

interface Sending {
  edit: Edit;
  /** tells whoever made it; nobody does any more after a reload */
  done: ((refused: Refused | null) => void) | null;
}

/** what the server takes */
const MOST_AFTER = 1000;
const FIRST_PAUSE_MS = 700;
const LONGEST_PAUSE_MS = 30_000;

/**
 * One project in one tab: what the server has told, and the edits made here upon it. Edits go out one after another and are shown at
 * once; they keep what they were composed on, so that the server can tell whether anybody else came between. While nothing is judged
 * they wait; what was refused is taken back exactly, and what met another's change is kept until its author has decided.
 */
export class Mirror {
  private queue: Sending[] = [];
  private clashes: Clash[] = [];
  private held: Held | null = null;
  private trouble: string | null = null;
  private unkept = false;
  private isSending = false;
  private isPausing = false;
  private opening: Promise<void> | null = null;
  private asking: Promise<void> | null = null;
  private deciding = 0;
  private isFilling = false;
  private first: string | null = null;
  private isClosed = false;
  private wake: () => void = () => {};
  private listeners: (() => void)[] = [];
  private filled: (() => void)[] = [];
  private shown: { told: Told; edits: readonly Edit[]; picture: Picture } | null = null;

  constructor(
    private readonly line: Line,
    private readonly shelf: Shelf,
    private readonly wait: (ms: number) => Promise<void>,
    private readonly publish: (view: View) => void,
    private told: Told = NOTHING_TOLD,
  ) {}

  /** Loads the project and goes on with what an earlier page has left, or goes on where it was left itself. */
  open(): Promise<void> {
    this.isClosed = false;
    if (this.told.revision > 0) {
      this.show();
      void this.poll();
      void this.fill();
      return Promise.resolve();
    }
    this.opening ??= this.load().finally(() => {
      this.opening = null;
    });
    return this.opening;
  }

  private async load(): Promise<void> {
    const state = await this.line.whole();
    this.told = taken(NOTHING_TOLD, { ...state, since: 0 });
    const { edits, clashes } = this.shelf.read();
    this.queue = edits.map((edit) => ({ edit, done: null }));
    this.clashes = clashes;
    this.show();
    void this.drain();
    void this.fill();
  }

  /** Fetches the storeys that were left out at first, one after the other, the one that is looked at before all. */
  private async fill(): Promise<void> {
    if (this.isFilling) return;
    this.isFilling = true;
    for (let tries = 0; !this.isClosed && this.told.missing.size > 0; ) {
      const { missing } = this.told;
      await this.poll();
      if (this.told.missing !== missing) tries = 0;
      else await this.wait(Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** tries++));
    }
    this.isFilling = false;
    for (const full of this.filled.splice(0)) full();
  }

  /** Fetches a storey before the others, where it is not there yet. */
  prefer(storey: string): void {
    this.first = storey;
  }

  /** Until all storeys are there. */
  async full(): Promise<void> {
    if (this.told.missing.size > 0) await new Promise<void>((full) => this.filled.push(full));
  }

  /** Asks no more; what waits is still sent. */
  close(): void {
    this.isClosed = true;
  }

  /** Nothing is under way: it may be forgotten. */
  get isIdle(): boolean {
    return (
      this.queue.length === 0 && this.opening === null && this.asking === null && this.deciding === 0 && !this.isFilling
    );
  }

  /** Until nothing is on its way any more: all is through, or it has to wait. */
  async sent(): Promise<void> {
    if (this.queue.length === 0 || this.held !== null) return;
    await new Promise<void>((over) => this.listeners.push(over));
  }

  /** @returns null once acknowledged, or the refusal */
  change(title: string, operations: Operation[], carry = false): Promise<Refused | null> {
    return this.enqueue({ kind: "change", title, operations, carry, target: null });
  }

  undo(): Promise<Refused | null> {
    return this.enqueue({
      kind: "undo",
      title: "Undo",
      operations: [],
      carry: false,
      target: this.steps().undo?.id ?? null,
    });
  }

  redo(): Promise<Refused | null> {
    return this.enqueue({
      kind: "redo",
      title: "Redo",
      operations: [],
      carry: false,
      target: this.steps().redo?.id ?? null,
    });
  }

  /** Asks for what others have done; never twice at a time. */
  poll(): Promise<void> {
    if (this.isClosed || this.told.revision === 0) return Promise.resolve();
    this.asking ??= this.ask().finally(() => {
      this.asking = null;
    });
    return this.asking;
  }

  private async ask(): Promise<void> {
    try {
      const state = await this.line.since(this.told.revision, this.coming());
      this.take(state);
      this.wake();
    } catch (error) {
      const refused = refusalOf(error);
      if (refused.isPassing && this.held === null) this.hold(refused, 0);
    }
  }

  /** The storey that is fetched next. */
  private coming(): string | undefined {
    const { missing } = this.told;
    return this.first !== null && missing.has(this.first) ? this.first : [...missing].sort()[0];
  }

  /** Does not wait any longer before the next try. */
  tryNow(): void {
    this.wake();
  }

  /** Puts the edit that the server fails at beside, so that those behind it go on; not while it is on its way once more. */
  putAside(): void {
    const [first] = this.queue;
    if (this.held?.why !== "failing" || !first || !this.isPausing) return;
    this.queue.shift();
    this.clash(first.edit, new Refused(0, "put-aside", `Put aside: ${this.held.message}`, ""));
    first.done?.(null);
    this.held = null;
    this.settle();
    this.wake();
  }

  /** Mine is done over what is there now, or let go. */
  async decide(id: string, mine: boolean): Promise<void> {
    // Theirs is known by then: what is decided over has been seen.
    this.deciding++;
    if (mine) await this.asking;
    this.deciding--;
    const clash = this.clashes.find((c) => c.edit.id === id);
    if (!clash) return;
    // It stands on itself: what was given up may yet arrive.
    if (mine) void this.enqueue({ ...clash.edit, target: null });
    this.clashes = this.clashes.filter((c) => c !== clash);
    this.settle();
  }

  /** What was answered of long work, before it is told to all. */
  hear(progress: Progress): void {
    const work = withWork(this.told.work, [progress]);
    if (work === this.told.work) return;
    this.told = { ...this.told, work };
    this.show();
  }

  say(trouble: string | null): void {
    this.trouble = trouble;
    this.show();
  }

  private enqueue(what: Pick<Edit, "kind" | "title" | "operations" | "carry" | "target">): Promise<Refused | null> {
    this.trouble = null;
    return new Promise((done) => {
      const { kind, title, operations, carry, target } = what;
      // What was put aside may yet have been made by a request that was given up.
      const after = [...this.clashes.map((c) => c.edit.id), ...this.queue.map(({ edit }) => edit.id)].slice(
        -MOST_AFTER,
      );
      const edit = { id: newId(), kind, title, operations, carry, base: this.told.revision, after, target };
      this.queue.push({ edit, done });
      this.settle();
      void this.drain();
    });
  }

  private async drain(): Promise<void> {
    if (this.isSending) return;
    this.isSending = true;
    try {
      for (let next = this.queue[0], tries = 1; next !== undefined; next = this.queue[0]) {
        const { edit } = next;
        try {
          const state = await this.line.send(edit, this.told.revision);
          this.queue.shift();
          this.held = null;
          tries = 1;
          this.told = taken(this.told, state);
          this.settle();
          next.done?.(null);
        } catch (error) {
          const refused = refusalOf(error);
          if (refused.isPassing) {
            this.hold(refused, tries);
            await this.pause(Math.min(LONGEST_PAUSE_MS, FIRST_PAUSE_MS * 2 ** (tries - 1)));
            tries = this.queue[0]?.edit === edit ? tries + 1 : 1;
            continue;
          }
          this.queue.shift();
          this.held = null;
          tries = 1;
          this.refuse(next, refused);
          this.settle();
          next.done?.(refused);
        }
      }
    } finally {
      this.isSending = false;
    }
  }

  private refuse({ edit, done }: Sending, refused: Refused): void {
    // Where nobody is looking any more the words would not be read: it is kept.
    if (isClash(refused) || done === null || this.isClosed) {
      this.clash(edit, refused);
      void this.poll();
      return;
    }
    const said = `${edit.title}: ${refused.message}`;
    this.trouble = this.trouble === null ? said : `${this.trouble} ${said}`;
  }

  private clash(edit: Edit, refused: Refused): void {
    const { rows = [], removed = [], by = null } = refused.more;
    const gone = refused.code === "gone" || removed.length > 0;
    this.clashes = [...this.clashes, { edit, message: refused.message, theirs: rows, gone, by }];
  }

  private hold(refused: Refused, tries: number): void {
    const why =
      refused.status === 401 ? "signed-out" : refused.status === 0 || refused.status === 503 ? "away" : "failing";
    this.held = { why, message: refused.message, tries };
    this.show();
  }

  private async pause(ms: number): Promise<void> {
    this.isPausing = true;
    const woken = new Promise<void>((wake) => {
      this.wake = wake;
    });
    await Promise.race([this.wait(ms), woken]);
    this.isPausing = false;
  }

  private take(state: State | null): void {
    const told = state === null ? this.told : taken(this.told, state);
    const isBack = this.queue.length === 0 && this.held !== null;
    if (told === this.told && !isBack) return;
    if (isBack) this.held = null;
    this.told = told;
    this.show();
  }

  /** Keeps what is not acknowledged, and shows it. */
  private settle(): void {
    this.unkept = !this.shelf.write({ edits: this.queue.map(({ edit }) => edit), clashes: this.clashes });
    this.show();
  }

  private show(): void {
    const { told, clashes, held, trouble, unkept } = this;
    const waiting = this.queue.length;
    if (waiting === 0 || held !== null) for (const over of this.listeners.splice(0)) over();
    this.publish({ ...told, ...this.picture(), steps: this.steps(), waiting, clashes, held, trouble, unkept });
  }

  private picture(): Picture {
    const edits = this.queue.map(({ edit }) => edit);
    const { shown, told } = this;
    const isSame =
      shown?.told === told && edits.length === shown.edits.length && edits.every((e, i) => e === shown.edits[i]);
    if (!isSame) this.shown = { told, edits, picture: expected(told, edits) };
    return this.shown?.picture ?? told;
  }

  /** What an undo and a redo would be about once all that waits is done. */
  private steps(): State["steps"] {
    let { undo, redo } = this.told.steps;
    for (const { edit } of this.queue) {
      if (edit.kind === "change") [undo, redo] = [{ id: edit.id, title: edit.title }, null];
      // What lay below the one that is taken back is known once the server has told.
      else if (edit.kind === "undo") [undo, redo] = [null, undo];
      else [undo, redo] = [redo, null];
    }
    return this.queue.length === 0 ? this.told.steps : { undo, redo };
  }
}

function refusalOf(error: unknown): Refused {
  return error instanceof Refused ? error : new Refused(0, "failure", String(error), "");
}
