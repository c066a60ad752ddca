import { Refused, type Row, type State } from "../api/client";
import type { Edit } from "../store/edits";
import { EMPTY, type Looked, row } from "./desk";

interface Touch {
  id: string;
  before: string | null;
  after: string | null;
}

interface Made {
  id: string;
  revision: number;
  user: string;
  state: "done" | "undone" | "left" | "step";
  title: string;
  touches: Touch[];
}

const STOREYS = ["ground", "upper"] as const;

/** On which of the two storeys a note lies: by its number. */
export function storeyOf(note: string): string {
  return STOREYS[Number(note.split("-")[1]) % 2] ?? "ground";
}

/**
 * One project as the server keeps it, of notes on two storeys alone: rows with revisions, a history, conflicts and steps by the rules that the real
 * one is held to by its own tests.
 */
export class ModelProject {
  readonly history: Made[] = [];
  /** what the notes said at each revision */
  readonly past: ReadonlyMap<string, string>[] = [new Map()];
  private notes = new Map<string, string>();

  /**
   * @param accepts called with each change before it is made, and with whoever touched a row of it last
   * @param refuses called with each change that met another, and with all that touched its row
   */
  constructor(
    private readonly accepts: (edit: Edit, lastTouch: (row: string) => Made | undefined) => void,
    private readonly refuses: (edit: Edit, since: readonly Made[]) => void,
  ) {
    this.write({ id: "begin", user: "", state: "left", title: "Begin", touches: [] });
  }

  get revision(): number {
    return this.history.length;
  }

  send(user: string, edit: Edit, known: number): State {
    const made = this.history.find((c) => c.id === edit.id);
    if (!made) edit.kind === "change" ? this.change(user, edit) : this.step(user, edit);
    const revision = made?.revision ?? this.revision;
    return this.state(user, Math.min(known, revision - 1));
  }

  since(user: string, revision: number, storey?: string): State | null {
    if (revision === this.revision && storey === undefined) return null;
    const { rows, ...told } = this.state(user, revision);
    if (storey === undefined) return { ...told, rows };
    const whole = [...this.notes.keys()].filter((id) => storeyOf(id) === storey && !rows.some((r) => r.id === id));
    return { ...told, rows: [...rows, ...whole.map((id) => this.row(id))], storeys: [storey] };
  }

  /** The project with its first storey alone. */
  whole(user: string): State {
    const { rows, ...told } = this.state(user, 0);
    const first = rows.filter((r) => storeyOf(r.id) === STOREYS[0]);
    return {
      ...told,
      rows: [...STOREYS.map((id) => row("storey", id, { name: id })), ...first],
      storeys: [STOREYS[0]],
    };
  }

  private state(user: string, since: number): State {
    const touched = new Set(this.history.slice(since).flatMap((c) => c.touches.map((t) => t.id)));
    const rows = [...touched].filter((id) => this.notes.has(id)).map((id) => this.row(id));
    const removed = [...touched].filter((id) => !this.notes.has(id)).map((id) => ({ type: "note" as const, id }));
    const undo = this.history.findLast((c) => c.user === user && c.state === "done");
    const redo = this.history.find((c) => c.user === user && c.state === "undone");
    const named = (c: Made | undefined) => (c ? { id: c.id, title: c.title } : null);
    return { ...EMPTY, revision: this.revision, since, rows, removed, steps: { undo: named(undo), redo: named(redo) } };
  }

  private change(user: string, edit: Edit): void {
    const touches = (edit.operations as Looked[]).map((o): Touch => {
      const id = o.id ?? "";
      const before = this.notes.get(id) ?? null;
      if (o.do === "add") return { id, before, after: String(o.values?.words) };
      if (before === null) throw new Refused(409, "gone", "This note is not there any more.", "");
      const other = this.history
        .slice(edit.base)
        .some((c) => touching(c, id) && !(c.user === user && edit.after.includes(c.id)));
      const more = { rows: [this.row(id)] };
      if (other) {
        this.refuses(
          edit,
          this.history.filter((c) => touching(c, id)),
        );
        throw new Refused(409, "changed-since", "This note was changed meanwhile.", "", more);
      }
      return { id, before, after: o.do === "remove" ? null : String(o.values?.words) };
    });
    if (touches.some((t) => t.after === "unlawful")) throw new Refused(422, "unlawful", "A note may not say this.", "");
    this.accepts(edit, (row) => this.history.findLast((c) => touching(c, row)));
    for (const c of this.history) if (c.user === user && c.state === "undone") c.state = "left";
    this.write({ id: edit.id, user, state: "done", title: edit.title, touches });
  }

  private step(user: string, edit: Edit): void {
    const back = edit.kind === "undo";
    const from = back ? "done" : "undone";
    const mine = this.history.filter((c) => c.user === user && c.state === from);
    const target = back ? mine.at(-1) : mine[0];
    if (!target) throw new Refused(409, "nothing-left", "There is nothing left.", "");
    if (edit.target !== null && edit.target !== target.id) throw new Refused(409, "other-step", "Another by now.", "");
    if (target.touches.some((t) => (this.notes.get(t.id) ?? null) !== (back ? t.after : t.before))) {
      throw new Refused(409, "changed-since", "Somebody has changed it since.", "");
    }
    target.state = back ? "undone" : "done";
    const touches = target.touches.map(({ id, before, after }) =>
      back ? { id, before: after, after: before } : { id, before, after },
    );
    this.write({ id: edit.id, user, state: "step", title: edit.title, touches });
  }

  private write(made: Omit<Made, "revision">): void {
    this.notes = new Map(this.notes);
    for (const { id, after } of made.touches) {
      if (after === null) this.notes.delete(id);
      else this.notes.set(id, after);
    }
    this.history.push({ ...made, revision: this.revision + 1 });
    this.past.push(this.notes);
  }

  private row(id: string): Row {
    const revision = this.history.findLast((c) => touching(c, id))?.revision ?? 0;
    return row("note", id, { words: this.notes.get(id) ?? "" }, revision);
  }
}

function touching(made: Made, row: string): boolean {
  return made.touches.some((t) => t.id === row);
}

/** Chance that is the same for the same seed (a linear congruential generator, Numerical Recipes' constants). */
export function chanceOf(seed: number): (below: number) => number {
  let state = (seed * 2654435761) >>> 0;
  return (below) => {
    state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
    return Math.floor((state / 2 ** 32) * below);
  };
}

/** Time that passes only when something is due. */
export class Schedule {
  now = 0;
  private due: { at: number; act: () => void }[] = [];

  after(ms: number, act: () => void): void {
    this.due.push({ at: this.now + ms, act });
  }

  /** Does what is due next, and lets what hangs on it happen; false when nothing is. */
  async next(): Promise<boolean> {
    this.due.sort((a, b) => a.at - b.at);
    const first = this.due.shift();
    if (!first) return false;
    this.now = first.at;
    first.act();
    await settle();
    return true;
  }
}

declare function setImmediate(act: () => void): void;

/** Lets promises that are settled be heard. */
export function settle(): Promise<void> {
  return new Promise((heard) => setImmediate(() => heard()));
}
