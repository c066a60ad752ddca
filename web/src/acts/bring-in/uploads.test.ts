import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import type { State } from "../../api/client";
import { useDesk } from "../../board/desk";
import { noRows, withRows } from "../../store/rows";
import { EMPTY, presentProject, progress, row } from "../../testing/desk";
import { Sent } from "../../testing/sent";
import { addPoint, useMatching, wholePairs } from "./matching";
import { difference } from "./NewerVersion";
import { bringIn, putAside, takeDocument, useUploads } from "./uploads";

/** What the server tells of a file once it has been looked at. */
function looksAt(taken: State | null, message = "") {
  const arrival = {
    id: "a",
    name: "x",
    revision: taken ? 2 : null,
    progress: progress({ kind: "look-at-arrival", about: "a", state: taken ? "done" : "failed", words: message }),
  };
  vi.stubGlobal("fetch", (request: Request) =>
    Promise.resolve(Response.json(request.url.includes("/arrivals/") ? { arrival } : taken)),
  );
}
const WAITING = {
  arrival: { id: "a", name: "x", revision: null, progress: progress({ kind: "look-at-arrival", about: "a" }) },
};

const file = (name: string) => new File(["x"], name);
const state = (rows: State["rows"]): State => ({ ...EMPTY, revision: 2, rows });
const source = (id: string, name: string, revision = 2) => row("source", id, { name, sha256: "same" }, revision);
const drawing = (id: string, hidden: boolean) =>
  row("drawing", id, { page: "p", storey: "s", side: null, name: id, order: 0, hidden }, 2);

describe("files on their way in", () => {
  beforeEach(() => {
    Sent.all = [];
    vi.stubGlobal("XMLHttpRequest", Sent);
    presentProject("p", "a", { revision: 1, rows: noRows() });
    useDesk.setState({ storey: "s", side: null, drawing: null });
    useUploads.setState({ uploads: [] });
  });
  afterEach(() => vi.unstubAllGlobals());

  it("carry the world file of the same name with them", () => {
    bringIn([file("A.png"), file("b.jpg"), file("a.PGW"), file("lost.tfw")]);
    expect(Sent.all).toHaveLength(2);
    expect(Sent.all[0]?.form?.get("world")).toMatchObject({ name: "a.PGW" });
    expect(Sent.all[1]?.form?.get("world")).toBeNull();
    expect(Sent.all[0]?.form?.get("storey")).toBe("s");
    expect(useUploads.getState().uploads.at(-1)?.error).toContain("together with its picture");
  });

  it("are plan documents where they are JSON: read, taken as changes of bearable size, and told", async () => {
    const storey = { do: "add", type: "storey", id: "g", values: { name: "Ground", elevation: 0, height: 2700 } };
    const nodes = Array.from({ length: 1600 }, (_, i) => ({
      do: "add",
      type: "node",
      id: `n${i}`,
      values: { storey: "g", x: i, y: 0 },
    }));
    const sent: { title: string; operations: unknown[] }[] = [];
    let answer: Response = Response.json({ operations: [storey, ...nodes], left: ["figures"], storeys: 1, walls: 2 });
    vi.stubGlobal("fetch", async (request: Request) => {
      if (request.url.endsWith("/document")) return answer;
      if (request.method === "POST") sent.push(await request.json());
      return Response.json({ ...EMPTY, revision: 1 + sent.length });
    });
    await takeDocument(new File(['{"format":"zesty-plinth/plan"}'], "lodge.json"));
    expect(sent.map((s) => [s.title, s.operations.length])).toEqual([
      ["Bring in a plan document", 1500],
      ["Bring in a plan document", 101],
    ]);
    expect(useUploads.getState().uploads.at(-1)?.remark).toBe("1 storey with 2 walls taken in. Not taken: figures.");
    expect(useDesk.getState().storey).toBe("g");
    expect(Sent.all).toHaveLength(0);

    // What is wrong is said in the server's words, and what is no JSON in ours.
    answer = Response.json(
      { error: { code: "unreadable", message: "storeys/0/walls/1/to is missing.", at: "x" } },
      { status: 422 },
    );
    await takeDocument(new File(["{}"], "broken.json"));
    expect(useUploads.getState().uploads.at(-1)?.error).toContain("storeys/0/walls/1/to is missing");
    await takeDocument(new File(["not json"], "other.JSON"));
    expect(useUploads.getState().uploads.at(-1)?.error).toContain("no plan document");
    expect(sent).toHaveLength(2);
  });

  it("tell how far they are, and can be stopped", () => {
    bringIn([file("scan.png")]);
    Sent.all[0]?.upload.onprogress?.({ lengthComputable: true, loaded: 30, total: 40 });
    expect(useUploads.getState().uploads[0]?.sent).toBe(0.75);
    useUploads.getState().uploads[0]?.stop();
    expect(Sent.all[0]?.aborted).toBe(true);
    expect(useUploads.getState().uploads).toEqual([]);
  });

  it("show the first drawing that came, and say when the same bytes are here already", async () => {
    const old = source("old", "first.png", 1);
    presentProject("p", "a", { revision: 1, rows: withRows(noRows(), [old]) });
    bringIn([file("again.png")]);
    looksAt(state([source("new", "again.png"), drawing("d2", true), drawing("d1", false)]));
    Sent.all[0]?.answer(202, WAITING);
    await vi.waitFor(() => expect(useDesk.getState().drawing).toBe("d1"));
    const [upload] = useUploads.getState().uploads;
    expect(upload?.remark).toBe("The same file is here already as first.png: its bytes are stored once.");
    putAside(upload?.id ?? "");
    expect(useUploads.getState().uploads).toEqual([]);
  });

  it("that are refused or lost say why and stay until put aside", async () => {
    bringIn([file("a.png"), file("b.png"), file("c.png")]);
    Sent.all[0]?.answer(422, { error: { code: "empty-file", message: "This file is empty.", at: "file" } });
    Sent.all[1]?.onerror?.();
    looksAt(null, "This file is damaged.");
    Sent.all[2]?.answer(202, WAITING);
    await vi.waitFor(() => expect(useUploads.getState().uploads[2]?.error).not.toBeNull());
    expect(useUploads.getState().uploads.map((u) => u.error)).toEqual([
      "This file is empty.",
      "The server cannot be reached. Bring the file in again.",
      "This file is damaged.",
    ]);
  });

  it("that replace an older page leave the drawing at hand alone", async () => {
    useDesk.setState({ drawing: "mine" });
    bringIn([file("newer.png")], "old-page");
    expect(Sent.all[0]?.form?.get("replaces")).toBe("old-page");
    looksAt(state([source("new", "newer.png")]));
    Sent.all[0]?.answer(202, WAITING);
    await vi.waitFor(() => expect(useUploads.getState().uploads).toEqual([]));
    expect(useDesk.getState().drawing).toBe("mine");
  });
});

describe("a newer version", () => {
  it("is told apart in words and figures", () => {
    const found = {
      map: [1, 0, 0, 0, 1, 0],
      samePixels: false,
      turnDegrees: -1.99,
      scaleX: 1.2,
      scaleY: 1.2,
      points: 77,
      rmsPx: 0.05,
      greatestPx: 0.15,
    };
    expect(difference(found, 6.35)).toBe(
      "It is turned 1.99° right, 1.200 × as fine. 77 places agree within 0.05 px; the greatest difference is 0.15 px (1.0 mm).",
    );
    expect(difference({ ...found, turnDegrees: 0, scaleX: 1.01 }, undefined)).toContain(
      "not turned, 1.101 × as fine, 15.83 % wider than high",
    );
    expect(difference({ ...found, samePixels: true }, 5)).toContain("The same pixels");
  });

  it("is matched by pairs that are picked on both sides in any order", () => {
    useMatching.setState({ page: "p", pairs: [] });
    addPoint("old", [1, 2]);
    addPoint("old", [3, 4]);
    addPoint("new", [10, 20]);
    expect(wholePairs(useMatching.getState().pairs)).toEqual([{ old: [1, 2], new: [10, 20] }]);
    addPoint("new", [30, 40]);
    expect(wholePairs(useMatching.getState().pairs)).toHaveLength(2);
  });
});
