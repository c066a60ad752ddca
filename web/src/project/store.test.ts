import { afterEach, describe, expect, it, vi } from "vitest";
import { newId } from "../api/ids";
import { EMPTY, json } from "../testing/desk";
import { noRows, withRows } from "./rows";
import { change, openProject, undo, useProject } from "./store";

interface Sent {
  url: string;
  body: { id: string; base?: number; title?: string } | null;
}

/** A server that answers from a script; every request is kept. */
function server(...answers: (Response | Error)[]): Sent[] {
  const sent: Sent[] = [];
  vi.stubGlobal("fetch", async (request: Request) => {
    const text = await request.text();
    sent.push({ url: new URL(request.url).pathname, body: text ? JSON.parse(text) : null });
    const next = answers.shift() ?? json(EMPTY);
    if (next instanceof Error) throw next;
    return next;
  });
  return sent;
}

describe("changes", () => {
  const id = newId();
  afterEach(() => vi.unstubAllGlobals());

  it("go out one after another, each based on what the one before it told", async () => {
    const sent = server(json(EMPTY), json({ ...EMPTY, revision: 7 }), json({ ...EMPTY, revision: 8 }));
    await openProject(id);
    await Promise.all([change("first", []), change("second", [])]);
    expect(sent.slice(1).map((s) => [s.body?.title, s.body?.base])).toEqual([
      ["first", 1],
      ["second", 7],
    ]);
    expect(useProject.getState().waiting).toBe(0);
  });

  it("are kept while the server is away and sent again under the same id", async () => {
    const sent = server(
      json(EMPTY),
      new TypeError("no route"),
      json({ error: { code: "server-away", message: "", at: "" } }, 503),
      json({ ...EMPTY, revision: 2 }),
    );
    await openProject(id);
    const done = change("kept", []);
    await vi.waitFor(() => expect(useProject.getState().away).toBe(true));
    expect(useProject.getState().waiting).toBe(1);
    expect(await done).toBeNull();
    expect(new Set(sent.slice(1).map((s) => s.body?.id)).size).toBe(1);
    expect(useProject.getState().away).toBe(false);
  });

  it("outlive a reload under the same id until they are acknowledged", async () => {
    const kept = new Map<string, string>();
    vi.stubGlobal("localStorage", {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    });
    const waiting = [{ id: newId(), kind: "change", title: "before the reload", operations: [] }];
    kept.set(`unsent/${id}`, JSON.stringify(waiting));
    const sent = server(json(EMPTY), json({ ...EMPTY, revision: 2 }));
    await openProject(id);
    await vi.waitFor(() => expect(useProject.getState().waiting).toBe(0));
    expect(sent[1]?.body).toMatchObject({ id: waiting[0]?.id, title: "before the reload", base: 1 });
    expect(kept.size).toBe(0);
  });

  it("that are refused say why, and the newest rows are fetched after a conflict", async () => {
    const refusal = {
      error: { code: "changed-since", message: "This wall was changed meanwhile.", at: "operations/0" },
    };
    const sent = server(json(EMPTY), json(refusal, 409), json({ ...EMPTY, revision: 3 }));
    await openProject(id);
    expect((await change("late", []))?.code).toBe("changed-since");
    expect(useProject.getState().trouble).toBe("This wall was changed meanwhile.");
    expect(sent.at(-1)?.url).toBe(`/api/projects/${id}/changes`);
    expect(useProject.getState().revision).toBe(3);
    server(json({ ...EMPTY, revision: 4 }));
    await undo();
    expect(useProject.getState().trouble).toBeNull();
  });
});

describe("rows", () => {
  it("of kinds that nothing touches keep their identity, so nothing redraws", () => {
    const first = withRows(noRows(), [{ type: "room", id: "r", revision: 1, values: { name: "Log room" } }]);
    const second = withRows(
      first,
      [{ type: "node", id: "n", revision: 2, values: { x: 1, y: 2 } }],
      [{ type: "wall", id: "gone" }],
    );
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
