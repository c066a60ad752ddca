import { create } from "zustand";
import { api, Refused, refusal, type Schemas, settled, WRITE_HEADERS } from "../../api/client";
import { newId } from "../../api/ids";
import { useDesk } from "../../board/desk";
import { chooseDrawing } from "../../board/place";
import { showTraced, showWholePage } from "../../board/views";
import { change, refresh, useProject } from "../../store/project";
import { inOrder } from "../../store/rows";
import { isUnderWay } from "../../store/work";
import { count } from "../../ui/numbers";

export interface Upload {
  id: string;
  name: string;
  /** 0 to 1 of the bytes sent; at 1 the server looks at it */
  sent: number;
  error: string | null;
  /** what the user should know once it has arrived */
  remark: string | null;
  stop: () => void;
}

/** Files on their way in, and what became of them. */
export const useUploads = create<{ uploads: readonly Upload[] }>(() => ({ uploads: [] }));

/** between two looks at what has become of a file */
const LOOK_MS = 150;
const WORLD_FILE = /\.([a-z]{1,2}w|wld)$/i;

const DOCUMENT = /\.json$/i;
/** operations of one change of a plan document that is taken in */
const AT_ONCE = 1500;

/**
 * Brings files in: each on its own, world files with the picture of the same name, plan documents as what is traced. `replaces` names an
 * older page.
 */
export function bringIn(files: Iterable<File>, replaces: string | null = null): void {
  const given = [...files];
  for (const document of given.filter((f) => DOCUMENT.test(f.name))) void takeDocument(document);
  const all = given.filter((f) => !DOCUMENT.test(f.name));
  const worlds = new Map(all.filter((f) => WORLD_FILE.test(f.name)).map((f) => [stem(f.name), f]));
  const pictures = all.filter((f) => !WORLD_FILE.test(f.name));
  for (const file of pictures) void send(file, worlds.get(stem(file.name)) ?? null, replaces);
  for (const world of worlds.values()) {
    if (!pictures.some((p) => stem(p.name) === stem(world.name))) {
      add({
        ...blank(world.name),
        error: "A world file comes in together with its picture: choose both at once.",
      });
    }
  }
}

/** A plan document becomes storeys with all that stands on them, by one change that one undo takes back; a large one by several. */
export async function takeDocument(file: File): Promise<void> {
  const { id: project } = useProject.getState();
  if (project === null) return;
  const upload = add({ ...blank(file.name), sent: 1 });
  try {
    const body = parsed(await file.text());
    if (body === null) {
      update(upload, { error: "This is no plan document: it is not JSON. Hand over gives one away." });
      return;
    }
    const told = await settled(api.POST("/api/projects/{project}/document", { params: { path: { project } }, body }));
    for (let from = 0; from < told.operations.length; from += AT_ONCE) {
      const refused = await change("Bring in a plan document", told.operations.slice(from, from + AT_ONCE));
      if (refused) {
        update(upload, { error: refused.message });
        return;
      }
    }
    const [first] = told.operations.flatMap((o) => ("type" in o && o.type === "storey" && "id" in o ? [o.id] : []));
    if (first !== undefined) {
      useDesk.setState({ storey: first, side: null, drawing: null });
      showTraced();
    }
    const left = told.left.length === 0 ? "" : ` Not taken: ${told.left.join("; ")}.`;
    update(upload, { remark: `${count(told.storeys, "storey")} with ${count(told.walls, "wall")} taken in.${left}` });
  } catch (error) {
    update(upload, { error: error instanceof Refused ? error.message : String(error) });
  }
}

function parsed(text: string): Record<string, unknown> | null {
  try {
    const value: unknown = JSON.parse(text);
    return typeof value === "object" && value !== null && !Array.isArray(value)
      ? (value as Record<string, unknown>)
      : null;
  } catch {
    return null;
  }
}

/** Takes a file that waits in the drop-in folder into this project. */
export async function takeFromDropIn(name: string): Promise<void> {
  const { id } = useProject.getState();
  const { storey, side } = useDesk.getState();
  if (id === null) return;
  const upload = add({ ...blank(name), sent: 1 });
  try {
    const body = { name, change: newId(), storey, side };
    const told = await settled(
      api.POST("/api/projects/{project}/drop-in", { params: { path: { project: id } }, body }),
    );
    await followed(upload, id, told.arrival, false);
  } catch (error) {
    update(upload, { error: error instanceof Refused ? error.message : String(error) });
  }
}

export function putAside(id: string): void {
  useUploads.setState(({ uploads }) => ({ uploads: uploads.filter((u) => u.id !== id) }));
}

function send(file: File, world: File | null, replaces: string | null): Promise<void> {
  const { id: project } = useProject.getState();
  const { storey, side } = useDesk.getState();
  if (project === null) return Promise.resolve();
  const request = new XMLHttpRequest();
  const form = new FormData();
  form.set("change", newId());
  if (storey) form.set("storey", storey);
  if (side) form.set("side", side);
  if (replaces) form.set("replaces", replaces);
  if (world) form.set("world", world);
  form.set("file", file);
  const id = add({ ...blank(file.name), stop: () => request.abort() });
  return new Promise((done) => {
    request.upload.onprogress = (e) => update(id, { sent: e.lengthComputable ? e.loaded / e.total : 0 });
    request.onload = () => {
      const body: unknown = JSON.parse(request.responseText || "null");
      if (request.status === 202) {
        const { arrival } = body as Schemas["ArrivalAnswer"];
        void followed(id, project, arrival, replaces !== null).finally(done);
        return;
      }
      update(id, { error: refusal(request.status, body).message });
      done();
    };
    request.onerror = () => {
      update(id, { error: "The server cannot be reached. Bring the file in again." });
      done();
    };
    request.onabort = () => {
      putAside(id);
      done();
    };
    request.open("POST", `/api/projects/${project}/sources`);
    for (const [name, value] of Object.entries(WRITE_HEADERS)) request.setRequestHeader(name, value);
    request.send(form);
  });
}

/** Waits until the server has looked at a file; while it is away it is asked again. */
async function followed(
  id: string,
  project: string,
  arrival: Schemas["ArrivalAnswer"]["arrival"],
  isNewer: boolean,
): Promise<void> {
  let told = arrival;
  update(id, { sent: 1 });
  while (isUnderWay(told.progress)) {
    await new Promise((resolve) => setTimeout(resolve, LOOK_MS));
    const path = { project, id: told.id };
    try {
      told = (await settled(api.GET("/api/projects/{project}/arrivals/{id}", { params: { path } }))).arrival;
    } catch (error) {
      if (error instanceof Refused && error.isPassing) continue;
      update(id, { error: error instanceof Refused ? error.message : String(error) });
      return;
    }
  }
  if (told.revision === null) {
    update(id, { error: told.progress.words || "This file was not taken in. Bring it in again." });
    return;
  }
  await refresh().catch(() => {});
  // One that was under way already may have been asked too early.
  if (useProject.getState().revision < told.revision) await refresh().catch(() => {});
  // What is not told now comes with the next look at the project.
  const { id: open, revision } = useProject.getState();
  if (open !== project || revision < told.revision) putAside(id);
  else arrived(id, told.revision, isNewer);
}

function arrived(id: string, revision: number, isNewer: boolean): void {
  const { rows } = useProject.getState();
  const source = [...rows.source.values()].find((s) => s.revision === revision);
  const same = [...rows.source.values()].find((s) => s.sha256 === source?.sha256 && s.id !== source?.id);
  if (same) update(id, { remark: `The same file is here already as ${same.name}: its bytes are stored once.` });
  else putAside(id);
  const [first] = inOrder(rows.drawing.values()).filter((d) => d.revision === revision && !d.hidden);
  if (first && !isNewer) {
    chooseDrawing(first.id);
    showWholePage();
  }
}

function blank(name: string): Upload {
  return { id: newId(), name, sent: 0, error: null, remark: null, stop: () => {} };
}

function add(upload: Upload): string {
  useUploads.setState(({ uploads }) => ({ uploads: [...uploads, upload] }));
  return upload.id;
}

function update(id: string, change: Partial<Upload>): void {
  useUploads.setState(({ uploads }) => ({ uploads: uploads.map((u) => (u.id === id ? { ...u, ...change } : u)) }));
}

function stem(name: string): string {
  return name.replace(/\.[^.]*$/, "").toLowerCase();
}
