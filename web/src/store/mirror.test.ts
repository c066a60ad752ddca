import { describe, expect, it } from "vitest";
import { type Operation, Refused } from "../api/client";
import type { Looked } from "../testing/desk";
import { chanceOf, ModelProject, Schedule, settle, storeyOf } from "../testing/server";
import type { Edit, Unsent } from "./edits";
import { Mirror, type View } from "./mirror";

declare const process: { env: { [name: string]: string | undefined } };

const SEEDS = Number(process.env.SEEDS ?? 400);
const FIRST_SEED = Number(process.env.FIRST_SEED ?? 1);
const ACTIONS = 70;
/** More answers than any of these lives needs until all is through. */
const REST = 5000;
const PROJECTS = ["meadow", "quarry"] as const;
type ProjectName = (typeof PROJECTS)[number];

/** Two people, three tabs, two projects, and a way to the server on which anything may be lost, late or doubled. */
class World {
  readonly schedule = new Schedule();
  readonly projects: Record<ProjectName, ModelProject>;
  /** every edit that was ever composed, and what its author had been shown by then */
  readonly composed = new Map<
    string,
    { edit: Edit; project: ProjectName; tab: string; shown: number; waits: () => boolean }
  >();
  readonly acknowledged = new Set<string>();
  readonly told = new Set<string>();
  readonly letGo = new Set<string>();
  readonly faults: string[] = [];
  isFaulty = true;
  count = 0;

  constructor(readonly chance: (below: number) => number) {
    const judged = () =>
      new ModelProject(
        (edit, lastTouch) => this.judge(edit, lastTouch),
        (edit, touches) => this.judgeRefusal(edit, touches),
      );
    this.projects = { meadow: judged(), quarry: judged() };
  }

  /** Nobody is in conflict with what was shown, or with oneself. */
  private judgeRefusal(edit: Edit, touches: readonly { revision: number; id: string }[]): void {
    const composed = this.composed.get(edit.id);
    // A doubled request may do later what was refused before: that is nobody's work on the screen.
    const isOwn = (id: string) =>
      this.composed.get(id)?.tab === composed?.tab && !this.told.has(id) && !this.letGo.has(id);
    const others = touches.filter((c) => c.revision > (composed?.shown ?? 0) && !isOwn(c.id));
    // What was judged already, and comes a second time by a way of its own, is heard by nobody.
    if (others.length === 0 && composed?.waits()) this.faults.push(`${edit.title} was refused for nobody's sake`);
  }

  /** No change goes over another that its author had not been shown. */
  private judge(edit: Edit, lastTouch: (row: string) => { revision: number; id: string } | undefined): void {
    const composed = this.composed.get(edit.id);
    if (!composed) this.faults.push(`${edit.title} was sent without having been kept`);
    for (const { do: what, id = "" } of edit.operations as Looked[]) {
      const last = what === "add" ? undefined : lastTouch(id);
      if (!last || !composed || last.revision <= composed.shown) continue;
      if (this.composed.get(last.id)?.tab !== composed.tab)
        this.faults.push(`${edit.title} goes over ${last.id} unseen`);
    }
  }
}

/** A browser's tab of one person: at most one project open, earlier ones still sending. */
class Tab {
  open: ProjectName | null = null;
  view: View | null = null;
  private mirrors = new Map<ProjectName, Mirror>();
  private shelves = new Map<ProjectName, Unsent>();
  private life = 0;

  constructor(
    private readonly world: World,
    private readonly name: string,
    private readonly user: string,
  ) {}

  get mirror(): Mirror | null {
    return this.open === null ? null : (this.mirrors.get(this.open) ?? null);
  }

  get isQuiet(): boolean {
    return [...this.mirrors.values()].every((m) => m.isIdle);
  }

  get kept(): readonly Unsent[] {
    return [...this.shelves.values()];
  }

  async goTo(project: ProjectName): Promise<void> {
    this.mirror?.close();
    this.open = project;
    this.view = null;
    for (const [name, mirror] of this.mirrors) if (mirror.isIdle) this.mirrors.delete(name);
    const mirror = this.mirrors.get(project) ?? this.mirrorOf(project);
    this.mirrors.set(project, mirror);
    // A page that cannot be loaded is loaded again by its reader.
    await mirror.open().catch(() => this.open === project && this.mirrors.get(project) === mirror && this.leave());
  }

  /** The page is loaded anew: whatever was under way is heard of no more. */
  reload(): void {
    this.life++;
    this.mirrors.clear();
    this.leave();
  }

  private leave(): void {
    this.open = null;
    this.view = null;
  }

  private mirrorOf(project: ProjectName): Mirror {
    const { world, life } = { world: this.world, life: this.life };
    const server = world.projects[project];
    let revision = 0;
    const isAlive = () => this.life === life;
    const mirror: Mirror = new Mirror(
      {
        whole: () => this.call(life, () => server.whole(this.user)),
        since: (since, storey) => this.call(life, () => server.since(this.user, since, storey)),
        send: (edit, known) => this.call(life, () => server.send(this.user, edit, known)),
      },
      {
        read: () => structuredClone(this.shelves.get(project) ?? { edits: [], clashes: [] }),
        write: (unsent) => {
          if (!isAlive()) return true;
          this.shelves.set(project, structuredClone(unsent));
          for (const edit of unsent.edits) {
            if (!world.composed.has(edit.id)) {
              const waits = () => this.shelves.get(project)?.edits.some((e) => e.id === edit.id) ?? false;
              world.composed.set(edit.id, { edit, project, tab: this.name, shown: revision, waits });
            }
          }
          return true;
        },
      },
      (ms) => new Promise((over) => world.schedule.after(ms, () => isAlive() && over())),
      (view) => {
        if (!isAlive()) return;
        // Thrown in here, a fault would be taken for one of the way to the server.
        if (view.revision < revision) world.faults.push("the project went back");
        revision = view.revision;
        this.check(project, view);
        if (this.mirrors.get(project) === mirror && this.open === project) this.view = view;
      },
    );
    return mirror;
  }

  /** What is shown is what the server had at that revision, and what of one's own is still on its way. */
  private check(project: ProjectName, view: View): void {
    const words = new Map(this.world.projects[project].past[view.revision]);
    const waiting = this.shelves.get(project)?.edits ?? [];
    if (view.waiting !== waiting.length) this.world.faults.push("what waits is not what is kept");
    const back = new Set<string>();
    for (const e of waiting) {
      if (e.kind === "undo" && e.target) back.add(e.target);
      if (e.kind === "redo" && e.target) back.delete(e.target);
    }
    for (const edit of waiting.filter((e) => !back.has(e.id))) {
      for (const { do: what, id = "", values } of edit.operations as Looked[]) {
        if (what === "add" || (what === "set" && words.has(id))) words.set(id, String(values?.words));
        if (what === "remove") words.delete(id);
      }
    }
    const shown = new Map([...view.rows.note.values()].map((n) => [n.id, n.words]));
    const isSame =
      [...shown].every(([id, said]) => words.get(id) === said) &&
      [...words.keys()].every((id) => shown.has(id) || view.missing.has(storeyOf(id)));
    if (!isSame) this.world.faults.push(`shown is ${JSON.stringify([...shown])}, not ${JSON.stringify([...words])}`);
    if (this.open !== project) return;
    for (const [id, { edit }] of this.world.composed) if (view.trouble?.includes(edit.title)) this.world.told.add(id);
  }

  /** A request: lost, answered, its answer lost or late, doubled, or failed by the server. */
  private call<T>(life: number, act: () => T): Promise<T> {
    const { schedule, chance, isFaulty } = this.world;
    return new Promise((resolve, reject) => {
      const heard = (ms: number, then: () => void) => schedule.after(ms, () => this.life === life && then());
      const fate = isFaulty ? chance(12) : 11;
      const away = () => reject(new Refused(0, "offline", "The server cannot be reached.", ""));
      const serve = (ms: number, answered: (value: () => T) => void) =>
        schedule.after(ms, () => {
          try {
            const value = act();
            answered(() => value);
          } catch (error) {
            answered(() => {
              throw error;
            });
          }
        });
      const answer = (ms: number) => (value: () => T) =>
        heard(ms, () => {
          try {
            resolve(value());
          } catch (error) {
            reject(error);
          }
        });
      if (fate === 0) heard(200, away);
      else if (fate === 1) heard(30, () => reject(new Refused(500, "failure", "This went wrong on our side.", "")));
      else if (fate === 2) heard(30, () => reject(new Refused(chance(2) ? 503 : 401, "passing", "Later.", "")));
      // Done, and nobody hears of it.
      else if (fate === 3) serve(20, () => heard(300, away));
      // Given up, and done all the same when nobody expects it any more.
      else if (fate === 4) {
        serve(900 + chance(4000), () => {});
        heard(300, away);
      } else if (fate === 5) {
        serve(20 + chance(50), answer(20));
        serve(60 + chance(3000), () => {});
      } else serve(1 + chance(60), answer(1 + (fate === 6 ? chance(4000) : chance(60))));
    });
  }

  act(): void {
    const { world } = this;
    const { chance } = world;
    const { mirror, view } = this;
    const what = chance(20);
    if (mirror === null || (what === 0 && chance(2))) return void this.goTo(PROJECTS[chance(2)] ?? "meadow");
    if (what === 0) return chance(2) ? this.reload() : undefined;
    if (view === null || view.revision === 0) return;
    if (what <= 2) return void mirror.poll();
    if (what === 3) return mirror.tryNow();
    if (what === 4) return mirror.putAside();
    if (what === 5) {
      const clash = view.clashes[chance(Math.max(1, view.clashes.length))];
      if (!clash) return;
      const mine = chance(2) === 0 && !clash.gone;
      world.letGo.add(clash.edit.id);
      return void mirror.decide(clash.edit.id, mine);
    }
    if (what === 6) return this.made(mirror, () => mirror.undo());
    if (what === 7) return this.made(mirror, () => mirror.redo());
    const notes = [...view.rows.note.keys()];
    const id = notes[chance(Math.max(1, notes.length))];
    const n = ++world.count;
    const words = chance(12) === 0 ? "unlawful" : `${n}`;
    const [type, title] = ["note", `#${n}#`] as const;
    const operations: Operation[] =
      id === undefined || what < 11
        ? [{ do: "add", type, id: `${this.open}-${n}`, values: { words } }]
        : what < 13
          ? [{ do: "remove", type, id }]
          : [{ do: "set", type, id, values: { words } }];
    this.made(mirror, () => mirror.change(title, operations));
  }

  private made(mirror: Mirror, act: () => Promise<Refused | null>): void {
    const project = this.open;
    const before = new Set(this.world.composed.keys());
    const done = act();
    expect(mirror).toBe(this.mirror);
    for (const [id] of this.world.composed) {
      if (before.has(id)) continue;
      void done.then((refused) => {
        if (refused === null && !this.isAside(project, id)) this.world.acknowledged.add(id);
        if (refused !== null) this.world.told.add(id);
        const judged = refused === null || (refused.status >= 400 && refused.status < 500);
        if (!judged) this.world.faults.push(`given up at ${refused.status}`);
      });
    }
  }

  private isAside(project: ProjectName | null, id: string): boolean {
    return this.shelves.get(project ?? "meadow")?.clashes.some((c) => c.edit.id === id) ?? false;
  }
}

async function live(seed: number): Promise<void> {
  const world = new World(chanceOf(seed));
  const tabs = [new Tab(world, "one", "ada"), new Tab(world, "two", "ada"), new Tab(world, "three", "ben")];
  for (let i = 0; i < ACTIONS; i++) {
    tabs[world.chance(tabs.length)]?.act();
    await settle();
    expect(world.faults.join("; ")).toBe("");
    for (let k = world.chance(6); k > 0; k--) await world.schedule.next();
  }
  // The way is sound again: everything that waits goes through, in every project of every tab.
  world.isFaulty = false;
  for (const project of PROJECTS) {
    for (const tab of tabs) void tab.goTo(project);
    let turns = 0;
    do {
      expect(++turns, "it never comes to rest").toBeLessThan(REST);
      for (const tab of tabs) if (tab.open === null) void tab.goTo(project);
      for (const tab of tabs) tab.mirror?.tryNow();
      await settle();
      expect(world.faults.join("; ")).toBe("");
    } while ((await world.schedule.next()) || tabs.some((t) => !t.isQuiet));
    for (const tab of tabs) void tab.mirror?.poll();
    while (await world.schedule.next()) expect(++turns, "it never comes to rest").toBeLessThan(REST);
    for (const tab of tabs) {
      expect(tab.view?.revision, "a tab is behind").toBe(world.projects[project].revision);
      expect(tab.view?.missing.size, "a storey has not come").toBe(0);
    }
  }
  const kept = new Set(tabs.flatMap((t) => t.kept.flatMap((k) => k.clashes.map((c) => c.edit.id))));
  for (const tab of tabs) for (const { edits } of tab.kept) expect(edits, "not sent").toEqual([]);
  for (const [id, { edit, project }] of world.composed) {
    const times = world.projects[project].history.filter((c) => c.id === id).length;
    expect(times, `${edit.title} was done ${times} times`).toBeLessThanOrEqual(1);
    if (world.acknowledged.has(id)) expect(times, `${edit.title} was acknowledged and is not there`).toBe(1);
    const known = times === 1 || world.told.has(id) || kept.has(id) || world.letGo.has(id);
    expect(known, `${edit.title} is silently gone`).toBe(true);
  }
}

describe("the queue", () => {
  it(`loses nothing and goes over nobody, whatever becomes of ${SEEDS} lives of two projects`, {
    timeout: 600_000,
  }, async () => {
    for (let seed = FIRST_SEED; seed < FIRST_SEED + SEEDS; seed++) {
      try {
        await live(seed);
      } catch (error) {
        throw new Error(`seed ${seed}: ${(error as Error).message}`, { cause: error });
      }
    }
  });
});
