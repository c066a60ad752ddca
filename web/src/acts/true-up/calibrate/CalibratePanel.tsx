import { clearDraft, useDesk, useDrafted } from "../../../board/desk";
import { read } from "../../../board/slip";
import { change, useProject } from "../../../store/project";
import { Field, OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { type NextLength, useNextLength } from "../../nextLength";
import { sendStatement } from "../../statements";
import { picksWanted } from "./calibrate";

const WAYS = [
  ["length", "a length"],
  ["room", "a room"],
  ["count", "a count"],
] as const;

/** How the drawing's size is stated: by a length, a room's width and depth, a count of courses or units, or its own scale. */
export function CalibratePanel() {
  const drawing = useDesk((s) => s.drawing);
  const { by: calibrateBy, along } = useNextLength();
  const left = picksWanted() - (useDrafted("picks")?.picks.length ?? 0);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Calibrate">
      <OneOf label="Known by" value={calibrateBy} of={WAYS} set={(by) => begin({ by })} />
      {calibrateBy === "length" && (
        <label className="mt-2 flex items-center gap-2">
          measured
          <select
            className="rounded border border-line bg-white px-1 py-0.5"
            value={along}
            onChange={(e) => begin({ along: e.target.value as typeof along })}
          >
            <option value="straight">straight from end to end</option>
            <option value="x">left to right only</option>
            <option value="y">up and down only</option>
            <option value="across">square across, from a line</option>
          </select>
        </label>
      )}
      {calibrateBy === "room" && <GhostSize />}
      {calibrateBy === "count" && <ModuleSize />}
      <p className="mt-2 text-quiet">
        {calibrateBy === "length" &&
          (along === "across"
            ? ["Pick a point of the other line.", "Pick a second point of the line.", "Pick two points of one line."][
                left - 1
              ]
            : left === 2
              ? "Point near one end: it is put on the corner or face. No need to zoom."
              : left === 1
                ? "Point near the other end."
                : "")}
        {calibrateBy === "room" && left > 0 && `Pick its four corners in order, width first: ${left} to go.`}
        {calibrateBy === "count" && left > 0 && "Pick the first and the last joint; the ticks between are counted."}
      </p>
      {calibrateBy === "length" && drawing !== null && <StatedScale drawing={drawing} />}
    </section>
  );
}

/** Another way to state it: what was picked for the one before is of no use. */
function begin(way: Partial<NextLength>): void {
  useNextLength.setState(way);
  clearDraft();
}

/** The size ghost: a room of typed size laid over the picture. */
function GhostSize() {
  const ghost = useNextLength((s) => s.ghost);
  const set = async (width: string, depth: string) => {
    useNextLength.setState({ ghost: { width, depth, mm: null } });
    if (width.trim() === "" || depth.trim() === "") return;
    const [w, d] = [await read(width), await read(depth)];
    const now = useNextLength.getState().ghost;
    if (now.width === width && now.depth === depth) {
      useNextLength.setState({ ghost: { width, depth, mm: w !== null && d !== null ? [w, d] : null } });
      useDesk.setState({ slipError: null });
    }
  };
  return (
    <div className="mt-2 flex items-end gap-2">
      <Field label="width" value={ghost.width} onChange={(v) => void set(v, ghost.depth)} />
      <span className="pb-1.5">×</span>
      <Field label="depth" value={ghost.depth} onChange={(v) => void set(ghost.width, v)} />
      <Plain onClick={() => void set(ghost.depth, ghost.width)}>turn it</Plain>
    </div>
  );
}

/** The building's module: what a course and a unit add, and the joint. */
function ModuleSize() {
  const [project] = useProject((s) => s.rows.project).values();
  if (!project) return null;
  const set = async (key: "course" | "unitLength" | "joint", text: string) => {
    const mm = await read(text);
    if (mm !== null) await change("Module", [{ do: "set", type: "project", id: project.id, values: { [key]: mm } }]);
  };
  const shown = (v: number | null) => (v === null ? "" : `${Number(v.toFixed(3))}`);
  return (
    <>
      <div className="mt-2 flex items-end gap-2">
        <Typed label="course up" value={shown(project.course)} set={(t) => void set("course", t)} />
        <Typed label="unit along" value={shown(project.unitLength)} set={(t) => void set("unitLength", t)} />
        <Typed label="joint" value={shown(project.joint)} set={(t) => void set("joint", t)} />
      </div>
      <p className="mt-1 text-quiet">Course and unit from joint to joint, as they repeat: the joint is in them.</p>
    </>
  );
}

const PAPERS = [
  { name: "by resolution", mm: null },
  { name: "on A4", mm: 297 },
  { name: "on A3", mm: 420 },
  { name: "on A2", mm: 594 },
  { name: "on A1", mm: 841 },
  { name: "on A0", mm: 1189 },
] as const;

/** What the drawing says of its own scale: no copy keeps it for certain, so it counts little beside a length. */
function StatedScale({ drawing }: { drawing: string }) {
  const row = useProject((s) => s.rows.drawing.get(drawing));
  const page = useProject((s) => (row ? s.rows.page.get(row.page) : undefined));
  if (!row) return null;
  const set = (values: { statedScale?: number | null; statedPaper?: number | null }) =>
    void sendStatement("Stated scale", [{ do: "set", type: "drawing", id: drawing, values }]);
  const scale = (text: string) => {
    const n = scaleOf(text);
    if (n !== null) set({ statedScale: n });
  };
  return (
    <div className="mt-2 flex items-end gap-2 border-t border-line pt-2">
      <Typed
        label="or stated scale"
        value={row.statedScale === null ? "" : `1:${Number(row.statedScale.toFixed(3))}`}
        set={scale}
      />
      <select
        className="min-w-0 flex-1 rounded border border-line bg-white px-1 py-1"
        aria-label="Stated scale holds"
        value={row.statedPaper ?? ""}
        onChange={(e) => set({ statedPaper: e.target.value === "" ? null : Number(e.target.value) })}
      >
        {PAPERS.filter((p) => p.mm !== null || page?.resolution !== null).map((p) => (
          <option key={p.name} value={p.mm ?? ""}>
            {p.name}
          </option>
        ))}
      </select>
      {row.statedScale !== null && <Plain onClick={() => set({ statedScale: null })}>Remove</Plain>}
    </div>
  );
}

/** `1:50`, `50`, or imperial `1/4" = 1'-0"`; null where it says no scale. */
export function scaleOf(text: string): number | null {
  const imperial = /^\s*(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)\s*(?:"|''|in)?\s*=\s*(\d+)\s*(?:'|ft)/.exec(text);
  if (imperial) {
    const [, whole = "0", n = "1", d = "1", feet = "1"] = imperial;
    const inches = Number(whole) + Number(n) / Number(d);
    return inches > 0 ? (12 * Number(feet)) / inches : null;
  }
  const ratio = /^\s*(?:1\s*:\s*)?(\d+(?:[.,]\d+)?)\s*$/.exec(text);
  const n = ratio ? Number((ratio[1] ?? "").replace(",", ".")) : Number.NaN;
  return n > 0 ? n : null;
}
