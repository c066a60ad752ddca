import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, type Progress } from "../api/client";
import { newId } from "../api/ids";
import { EMPTY, json, progress, row } from "../testing/desk";
import {
  allStoreys,
  ask,
  change,
  closeProject,
  decide,
  openProject,
  prefer,
  putAside,
  stop,
  tryNow,
  useProject,
} from "./project";
import { noRows, withRows } from "./rows";
import { unsentBy } from "./unsent";
import { workKey } from "./work";

interface Sent {
  url: string;
  body: { id: string; base?: number; known?: number; after?: string[]; account?: string; title?: string } | null;
}

/** A server that answers from a script; every request is kept. */
function server(...answers: (Response | Error)[]): Sent[] {
  return serverOf("", ...answers);
}

/** Heard only where it is asked about one project: what waits of others may be sent again meanwhile. */
function serverOf(project: string, ...answers: (Response | Error)[]): Sent[] {
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (!request.url.includes(project)) return json(EMPTY);
    const text = await request.text();
    sent.push({ url: new URL(request.url).pathname, body: text ? JSON.parse(text) : null });
    const next = answers.shift() ?? json(EMPTY);
    if (next instanceof Error) throw next;
    return next;
  });
  return sent;
}

const ACCOUNT = newId();

describe("changes", () => {
  let id = newId();
  beforeEach(() => {
    id = newId();
  });
  afterEach(() => {
    closeProject();
    vi.unstubAllGlobals();
  });

  it("go out one after another, each based on what was shown and on own ones before it", async () => {
    const sent = server(json(EMPTY), json({ ...EMPTY, revision: 7 }), json({ ...EMPTY, revision: 8 }));
    await openProject(id, ACCOUNT);
    await Promise.all([change("first", []), change("second", [])]);
    expect(sent.slice(1).map(({ body }) => [body?.title, body?.base, body?.known, body?.account])).toEqual([
      ["first", 1, 1, ACCOUNT],
      ["second", 1, 7, ACCOUNT],
    ]);
    expect(sent[2]?.body?.after).toEqual([sent[1]?.body?.id]);
    expect(useProject.getState().waiting).toBe(0);
  });

  it("are kept while the server is away and sent again under the same id", async () => {
    const sent = server(
      json(EMPTY),
      new TypeError("no route"),
      json({ error: { code: "server-away", message: "", at: "" } }, 503),
      json({ ...EMPTY, revision: 2 }),
    );
    await openProject(id, ACCOUNT);
    const done = change("kept", []);
    await vi.waitFor(() => expect(useProject.getState().held?.why).toBe("away"));
    expect(useProject.getState().waiting).toBe(1);
    tryNow();
    await vi.waitFor(() => expect(sent.length).toBe(3));
    await vi.waitFor(() => expect(useProject.getState().held?.tries).toBe(2));
    tryNow();
    expect(await done).toBeNull();
    expect(new Set(sent.slice(1).map((s) => s.body?.id)).size).toBe(1);
    expect(useProject.getState().held).toBeNull();
  });

  it("that the server fails at are no refusals: they wait, may be put beside, and let those behind them go on", async () => {
    const failure = () => json({ error: { code: "failure", message: "This went wrong on our side.", at: "" } }, 500);
    const sent = server(json(EMPTY), failure(), json({ ...EMPTY, revision: 2 }));
    await openProject(id, ACCOUNT);
    void change("breaks it", []);
    const next = change("goes on", []);
    await vi.waitFor(() => expect(useProject.getState().held).toMatchObject({ why: "failing", tries: 1 }));
    expect(useProject.getState()).toMatchObject({ waiting: 2, trouble: null });
    putAside();
    expect(await next).toBeNull();
    expect(sent.at(-1)?.body?.title).toBe("goes on");
    expect(useProject.getState().clashes.map((c) => c.edit.title)).toEqual(["breaks it"]);
  });

  it("are shown at once, and taken back exactly when they are refused", async () => {
    const note = { storey: "s", x: 1, y: 2, toX: null, toY: null, words: "as told", assumption: false };
    const told = { ...EMPTY, rows: [row("note", "n", note)] };
    const refusal = json({ error: { code: "words-too-long", message: "Shorter, please.", at: "" } }, 422);
    server(json(told), refusal);
    await openProject(id, ACCOUNT);
    const before = useProject.getState().rows;
    const done = change("Words", [{ do: "set", type: "note", id: "n", values: { words: "as wished" } }]);
    expect(useProject.getState().rows.note.get("n")?.words).toBe("as wished");
    expect((await done)?.code).toBe("words-too-long");
    expect(useProject.getState().rows).toBe(before);
    expect(useProject.getState().trouble).toBe("Words: Shorter, please.");
  });

  it("that met another's are kept until their author decides, with the newest rows beside them", async () => {
    const rows = [{ type: "wall", id: "w", revision: 2, values: { thickness: 175 } }];
    const by = { name: "Somebody", title: "Thickness", at: "2026-05-04T10:12:00+00:00" };
    const refusal = { error: { code: "changed-since", message: "This wall was changed meanwhile.", at: "" }, rows, by };
    const sent = server(
      json(EMPTY),
      json(refusal, 409),
      json({ ...EMPTY, revision: 3 }),
      json({ ...EMPTY, revision: 4 }),
    );
    await openProject(id, ACCOUNT);
    expect((await change("late", []))?.code).toBe("changed-since");
    const [clash] = useProject.getState().clashes;
    expect(clash).toMatchObject({ theirs: rows, by, gone: false });
    await vi.waitFor(() => expect(useProject.getState().revision).toBe(3));
    expect(sent.at(-1)?.url).toBe(`/api/projects/${id}/changes`);
    await decide(clash?.edit.id ?? "", true);
    await vi.waitFor(() => expect(useProject.getState().waiting).toBe(0));
    expect(sent.at(-1)?.body).toMatchObject({ title: "late", base: 3 });
    expect(useProject.getState().clashes).toEqual([]);
  });

  it("go before a question that is answered from rows, and hold up no other and none while they wait", async () => {
    const asked: string[] = [];
    let answer: (response: Response) => void = () => {};
    vi.stubGlobal("fetch", (request: Request) => {
      asked.push(`${request.method} ${new URL(request.url).pathname.split("/").at(-1)}`);
      if (request.method === "GET")
        return Promise.resolve(json(request.url.includes("/changes") ? EMPTY : { ...EMPTY }));
      return new Promise<Response>((resolve) => {
        answer = resolve;
      });
    });
    await openProject(id, ACCOUNT);
    void change("a wall", []);
    const path = { project: id, id: "d" };
    const about = api.GET("/api/projects/{project}/drawings/{id}/fits", { params: { path } });
    await api.GET("/api/account");
    expect(asked.slice(1)).toEqual(["POST changes", "GET account"]);
    answer(json({ ...EMPTY, revision: 2 }));
    await about;
    expect(asked.at(-1)).toBe("GET fits");
    void change("another", []);
    await vi.waitFor(() => expect(asked.at(-1)).toBe("POST changes"));
    answer(json({ error: { code: "failure", message: "", at: "" } }, 500));
    await vi.waitFor(() => expect(useProject.getState().held).not.toBeNull());
    await api.GET("/api/projects/{project}/drawings/{id}/fits", { params: { path } });
    expect(asked.at(-1)).toBe("GET fits");
  });

  it("are each account's own: whoever signs in next in the same tab neither sends nor sees them", async () => {
    const somebody = newId();
    vi.stubGlobal("fetch", (request: Request) =>
      request.method === "GET"
        ? Promise.resolve(json(EMPTY))
        : Promise.resolve(json({ error: { code: "other-account", message: "", at: "" } }, 401)),
    );
    await openProject(id, ACCOUNT);
    void change("mine", []);
    await vi.waitFor(() => expect(useProject.getState().held?.why).toBe("signed-out"));
    closeProject();
    await openProject(id, somebody);
    expect(useProject.getState()).toMatchObject({ id, waiting: 0, held: null });
    closeProject();
    await openProject(id, ACCOUNT);
    expect(useProject.getState().waiting, "and they are there for their author").toBe(1);
  });

  it("of a project that was left are still sent, and touch nothing of the next one", async () => {
    const other = newId();
    let answer: (response: Response) => void = () => {};
    const urls: string[] = [];
    vi.stubGlobal("fetch", (request: Request) => {
      urls.push(new URL(request.url).pathname);
      if (request.method === "GET") return Promise.resolve(json(EMPTY));
      return new Promise<Response>((resolve) => {
        answer = resolve;
      });
    });
    await openProject(id, ACCOUNT);
    const done = change("in the middle", []);
    closeProject();
    await openProject(other, ACCOUNT);
    const room = { type: "room", id: "r", revision: 2, values: {} };
    answer(json({ ...EMPTY, revision: 2, rows: [room] }));
    expect(await done).toBeNull();
    expect(useProject.getState()).toMatchObject({ id: other, revision: 1 });
    expect(useProject.getState().rows.room.size).toBe(0);
    expect(urls).toEqual([id, id, other].map((p, i) => `/api/projects/${p}${i === 1 ? "/changes" : ""}`));
  });
});

/** The browser's stores, and locks that tabs hold by name. */
function browser(held: readonly string[] = []): Map<string, string> {
  const kept = new Map<string, string>();
  const store = (map: Map<string, string>) =>
    new Proxy(
      {
        getItem: (key: string) => map.get(key) ?? null,
        setItem: (key: string, value: string) => map.set(key, value),
        removeItem: (key: string) => map.delete(key),
      },
      { ownKeys: () => [...map.keys()], getOwnPropertyDescriptor: () => ({ enumerable: true, configurable: true }) },
    );
  vi.stubGlobal("localStorage", store(kept));
  vi.stubGlobal("sessionStorage", store(new Map()));
  const request = async (name: string, _: object, act: (lock: object | null) => unknown) =>
    void act(held.includes(name) ? null : {});
  vi.stubGlobal("navigator", { locks: { request } });
  return kept;
}

describe("unsent work", () => {
  const id = newId();
  const edit = (title: string) => ({
    ...{ id: newId(), kind: "change", title, operations: [], carry: false, base: 1, after: [], target: null },
  });
  const kept = (title: string) => JSON.stringify({ at: 0, edits: [edit(title)], clashes: [] });
  afterEach(() => {
    closeProject();
    vi.unstubAllGlobals();
  });

  it("of a tab that is gone is taken over, of one that lives and of another account is left alone", async () => {
    const stored = browser(["plinth/living"]);
    stored.set(`unsent/${ACCOUNT}/${id}/gone`, kept("left behind"));
    stored.set(`unsent/${ACCOUNT}/${id}/living`, kept("somewhere else"));
    stored.set(`unsent/${newId()}/${id}/gone`, kept("somebody else's"));
    const sent = serverOf(id, json(EMPTY), json({ ...EMPTY, revision: 2 }));
    await openProject(id, ACCOUNT);
    await vi.waitFor(() => expect(useProject.getState()).toMatchObject({ waiting: 0, revision: 2 }));
    expect(sent.flatMap((s) => s.body?.title ?? [])).toEqual(["left behind"]);
    expect(stored.size, "what was sent is kept no more").toBe(2);
    expect([...unsentBy(ACCOUNT)]).toEqual([[id, 1]]);
  });

  it("is kept under this tab's name from when it is made until it is acknowledged", async () => {
    const stored = browser();
    let answer = null as ((response: Response) => void) | null;
    vi.stubGlobal("fetch", (request: Request) =>
      request.method === "GET"
        ? Promise.resolve(json(EMPTY))
        : new Promise<Response>((resolve) => {
            answer = resolve;
          }),
    );
    await openProject(newId(), ACCOUNT);
    const done = change("kept", []);
    expect([...stored.values()].join()).toContain("kept");
    await vi.waitFor(() => expect(answer).not.toBeNull());
    answer?.(json({ ...EMPTY, revision: 2 }));
    await done;
    expect(stored.size).toBe(0);
  });
});

describe("rows", () => {
  it("of kinds that nothing touches keep their identity, so nothing redraws", () => {
    const first = withRows(noRows(), [row("room", "r", { name: "Log room" })]);
    const second = withRows(first, [row("node", "n", { x: 1, y: 2 }, 2)], [{ type: "wall", id: "gone" }]);
    expect(second.room).toBe(first.room);
    expect(second.node.get("n")?.x).toBe(1);
    expect(withRows(second, [], [{ type: "node", id: "n" }]).node.size).toBe(0);
  });
});

describe("ids", () => {
  it("are UUIDs of version 7 that sort by their time", () => {
    const [a, b] = [newId(1_000), newId(2_000_000_000_000)];
    for (const made of [a, b])
      expect(made).toMatch(/^[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/);
    expect(a < b).toBe(true);
  });
});

describe("a project of several storeys", () => {
  afterEach(() => {
    closeProject();
    vi.unstubAllGlobals();
  });

  it("is shown with its first one, fetches the others by itself, and the one that is looked at before all", async () => {
    const storeys = ["g", "m", "t", "u"].map((id) => row("storey", id, { name: id }));
    const asked: string[] = [];
    const held: (() => void)[] = [];
    vi.stubGlobal("fetch", async (request: Request) => {
      const { pathname, searchParams } = new URL(request.url);
      // What projects of earlier tests still ask for is none of this.
      if (!pathname.includes("/several")) return json(EMPTY);
      if (!pathname.endsWith("/changes")) return json({ ...EMPTY, storeys: ["g"], rows: storeys });
      const storey = searchParams.get("storey") ?? "";
      asked.push(storey);
      await new Promise<void>((go) => held.push(go));
      return json({ ...EMPTY, storeys: [storey], rows: [row("node", `of ${storey}`, { storey })] });
    });
    await openProject("several", "ada");
    expect([...useProject.getState().missing]).toEqual(["m", "t", "u"]);
    await vi.waitFor(() => expect(asked).toEqual(["m"]));
    prefer("u");
    let isAll = false;
    const all = allStoreys().then(() => {
      isAll = true;
    });
    held.shift()?.();
    await vi.waitFor(() => expect(asked).toEqual(["m", "u"]));
    expect([...useProject.getState().rows.node.keys()]).toEqual(["of m"]);
    expect(isAll, "what is about all of them waits").toBe(false);
    held.shift()?.();
    await vi.waitFor(() => expect(asked).toEqual(["m", "u", "t"]));
    held.shift()?.();
    await all;
    expect([...useProject.getState().rows.node.keys()]).toEqual(["of m", "of u", "of t"]);
    expect(useProject.getState().missing.size).toBe(0);
  });
});

describe("long work", () => {
  afterEach(() => {
    closeProject();
    vi.unstubAllGlobals();
  });

  it("is known as soon as it is asked for or stopped; where it cannot be, the reason is said", async () => {
    const about = newId();
    const told = (state: Progress["state"]) => json(progress({ kind: "find-walls", about, state }), 202);
    const words = "This page is still being read: its ink cannot be looked at yet.";
    const refused = json({ error: { code: "not-ready", message: words, at: "" } }, 409);
    const sent = server(json(EMPTY), told("waiting"), told("stopped"), refused);
    await openProject("long", "ada");
    const state = () => useProject.getState().work.get(workKey("find-walls", about))?.state;
    await ask("find-walls", about);
    expect(state()).toBe("waiting");
    await stop("find-walls", about);
    expect(state()).toBe("stopped");
    await ask("find-walls", about);
    expect([state(), useProject.getState().trouble]).toEqual(["stopped", words]);
    expect(sent.slice(1).map((s) => s.url.split("/").slice(4).join("/"))).toEqual([
      `jobs/find-walls/${about}`,
      `jobs/find-walls/${about}/stop`,
      `jobs/find-walls/${about}`,
    ]);
  });
});
