// Many desks at once: each makes walls and changes them, asks for what others do, and looks at the picture.
//   node bench/clients.mjs ADDRESS CLIENTS PROJECTS SECONDS
import { randomUUID } from "node:crypto";

const [, , address, clients = "20", projects = "1", seconds = "60"] = process.argv;
const HEAD = { "csrf-token": "csrf-token", "Sec-Fetch-Site": "same-origin", "Content-Type": "application/json" };
const times = { edit: [], poll: [], told: [], tile: [], static: [] };
const statuses = new Map();
const faults = [];

class Desk {
  cookie = "";
  revision = 0;
  tag = "";
  heard = 0;
  mine = new Map();

  async ask(kind, path, init = {}) {
    const began = performance.now();
    const headers = { ...HEAD, ...(this.cookie ? { cookie: this.cookie } : {}), ...init.headers };
    const response = await fetch(address + path, { ...init, headers });
    const bytes = await response.arrayBuffer();
    const label = kind === "poll" && response.status === 200 ? "told" : kind;
    times[label]?.push(performance.now() - began);
    statuses.set(`${kind} ${response.status}`, (statuses.get(`${kind} ${response.status}`) ?? 0) + 1);
    if (response.status >= 500) faults.push(`${kind} ${path}: ${response.status} ${Buffer.from(bytes).toString().slice(0, 200)}`);
    const [cookie] = (response.headers.get("set-cookie") ?? "").split(";");
    if (cookie) this.cookie = cookie;
    const json = (response.headers.get("content-type") ?? "").includes("json") && bytes.byteLength > 0;
    return { status: response.status, head: response.headers, body: json ? JSON.parse(Buffer.from(bytes).toString()) : null };
  }

  signIn() {
    return this.ask("sign-in", "/api/demo-sign-in", { method: "POST" });
  }

  async begin(name) {
    this.project = randomUUID();
    const { body } = await this.ask("begin", "/api/projects", { method: "POST", body: JSON.stringify({ id: this.project, name }) });
    this.take(body);
    return this.project;
  }

  async open(project) {
    this.project = project;
    this.take((await this.ask("open", `/api/projects/${project}`)).body);
  }

  take(state) {
    this.storey ??= state.rows.find((r) => r.type === "storey")?.id;
    this.revision = Math.max(this.revision, state.revision);
    this.heard = state.heard;
  }

  async poll() {
    const headers = this.tag ? { "If-None-Match": this.tag } : {};
    const path = `/api/projects/${this.project}/changes?since=${this.revision}&heard=${this.heard}`;
    const { status, head, body } = await this.ask("poll", path, { headers });
    if (status === 200) {
      this.tag = head.get("etag");
      this.take(body);
    }
  }

  async edit() {
    const known = [...this.mine.keys()];
    const wall = known[Math.floor(Math.random() * known.length)];
    const again = wall !== undefined && Math.random() < 0.5;
    const thickness = 100 + Math.floor(Math.random() * 300);
    const [x, y] = [Math.random() * 60_000, Math.random() * 60_000];
    const made = randomUUID();
    const trace = {
      storey: this.storey, drawing: null, points: [[x, y], [x + 3000, y]], nodes: [randomUUID(), randomUUID()], walls: [made], line: "centre", thickness,
    };
    const operations = again ? [{ do: "set", type: "wall", id: wall, values: { thickness } }] : [{ do: "trace", trace }];
    const body = JSON.stringify({ id: randomUUID(), base: this.revision, heard: this.heard, title: "Bench", operations });
    for (;;) {
      const { status, head, body: told } = await this.ask("edit", `/api/projects/${this.project}/changes`, { method: "POST", body });
      if (status === 503) continue; // busy: the same again, as a desk does
      if (status === 200) {
        this.mine.set(again ? wall : made, thickness);
        this.tag = head.get("etag");
        this.take(told);
      } else faults.push(`edit: ${status} ${JSON.stringify(told)}`);
      return;
    }
  }

  async live(until, tile) {
    // Desks do not beat in time with each other.
    let polled = Date.now() - Math.random() * 1500;
    let edited = Date.now() + Math.random() * 4000;
    while (Date.now() < until) {
      if (Date.now() >= edited) {
        await this.edit();
        edited = Date.now() + 2000 + Math.random() * 4000;
      } else if (Date.now() - polled > 1500) {
        polled = Date.now();
        await this.poll();
        if (Math.random() < 0.3) await this.ask("tile", tile);
        if (Math.random() < 0.1) await this.ask("static", "/");
      }
      await new Promise((r) => setTimeout(r, 40));
    }
  }
}

const first = new Desk();
await first.signIn();
const list = (await first.ask("list", "/api/projects")).body.projects;
const withPicture = list.find((p) => p.preview);
const { pages } = (await first.ask("open", `/api/projects/${withPicture.id}`)).body;
const { pictures } = pages.find((p) => p.page === withPicture.preview);
const tile = `/api/projects/${withPicture.id}/pages/${withPicture.preview}/${pictures}/tiles/1/0/0`;
const ids = [];
for (let i = 0; i < Number(projects); i++) ids.push(await new Desk().signIn().then(() => first.begin(`Bench ${i}`)));
const desks = [];
for (let i = 0; i < Number(clients); i++) {
  const desk = new Desk();
  await desk.signIn();
  await desk.open(ids[i % ids.length]);
  desks.push(desk);
}
for (const kind of Object.keys(times)) times[kind].length = 0;
const until = Date.now() + 1000 * Number(seconds);
await Promise.all(desks.map((d) => d.live(until, tile)));

let lost = 0;
for (const id of ids) {
  const { body } = await first.ask("open", `/api/projects/${id}`);
  const there = new Map(body.rows.filter((r) => r.type === "wall").map((r) => [r.id, r.values.thickness]));
  for (const desk of desks.filter((d) => d.project === id)) {
    for (const [wall, thickness] of desk.mine) if (there.get(wall) !== thickness) lost++;
  }
}
const at = (all, part) => (all.length === 0 ? Number.NaN : all.sort((a, b) => a - b)[Math.min(all.length - 1, Math.floor(all.length * part))]);
console.log(`== ${clients} desks on ${projects} projects for ${seconds} s`);
for (const [kind, all] of Object.entries(times)) {
  console.log(`${kind.padEnd(7)} ${String(all.length).padStart(6)} ×   p50 ${at(all, 0.5).toFixed(1)}  p95 ${at(all, 0.95).toFixed(1)}  p99 ${at(all, 0.99).toFixed(1)} ms   p95 beside a static file's ${(at(all, 0.95) / at(times.static, 0.95)).toFixed(1)}`);
}
console.log([...statuses].map(([k, n]) => `${k}: ${n}`).join(", "));
console.log(`acknowledged and not there: ${lost}; faults: ${faults.length}`);
for (const fault of faults.slice(0, 5)) console.log(fault);
process.exitCode = lost > 0 || faults.length > 0 ? 1 : 0;
