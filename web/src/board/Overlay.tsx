import { useDesk } from "../desk/desk";
import { grouped } from "../desk/numbers";
import { alongDoorWall } from "../desk/openings";
import { fitMap } from "../desk/selectors";
import { isPicking } from "../desk/snap";
import { useProject } from "../store/project";
import { arcChain, pointAlong, riseThrough, wallLine } from "../store/walls";
import { Boundaries } from "./Boundaries";
import { Clashing } from "./Clashing";
import { Elevation } from "./Elevation";
import { FigureSlip } from "./FigureSlip";
import { apply, distance, type Map2, toScreen, type XY } from "./geometry";
import { ends, TEAL } from "./marks";
import { Proposals } from "./Proposals";
import { Leaks, RoomLabels } from "./RoomLabels";
import { SettingOut } from "./SettingOut";
import { Sides } from "./Sides";
import { DraftedPicks, NextBest, Statements } from "./Statements";
import { Traced } from "./Traced";
import { TruthPlot } from "./TruthPlot";

/** What floats above the canvas: statements, what is being drawn, names, leaks, and the figure slip. */
export function Overlay() {
  const desk = useDesk();
  const project = useProject();
  const screen = toScreen(desk.view, desk.size);
  const at = (p: readonly number[]): XY => apply(screen, [p[0] ?? 0, p[1] ?? 0]);
  const shapes = desk.storey === null ? undefined : project.derived.get(desk.storey);
  const tracing = desk.step === "trace" || desk.step === "prove" || desk.step === "hand-over";
  if (desk.cutting) return null;
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        <title>Marks on the board</title>
        {desk.step === "true-up" && desk.truthPlot && <TruthPlot screen={screen} />}
        <SettingOut screen={screen} />
        <Boundaries screen={screen} />
        <Sides screen={screen} />
        {tracing && <Elevation screen={screen} />}
        {desk.step === "true-up" && <Statements screen={screen} />}
        {desk.step === "true-up" && <NextBest screen={screen} />}
        {shapes && <Leaks shapes={shapes} screen={screen} />}
        {tracing && <Traced screen={screen} />}
        <Proposals screen={screen} />
        <Clashing screen={screen} storey={desk.storey} />
        <Drafted screen={screen} />
        {desk.snap && (
          <circle cx={at(desk.snap.at)[0]} cy={at(desk.snap.at)[1]} r={5} fill="none" stroke={TEAL} strokeWidth={2} />
        )}
      </svg>
      {tracing && shapes && (
        <RoomLabels shapes={shapes} screen={screen} k={desk.view.k} size={desk.size} quiet={desk.step !== "trace"} />
      )}
      <PointerWords screen={screen} />
      <FigureSlip screen={screen} />
    </>
  );
}

function Drafted({ screen }: { screen: Map2 }) {
  const desk = useDesk();
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, desk.drawing);
  const at = (p: XY): XY => apply(screen, p);
  const tip = desk.snap?.at ?? desk.pointer;
  if (map && (desk.picks.length > 0 || isPicking(desk.act))) {
    return <DraftedPicks screen={screen} map={map} tip={tip} />;
  }
  if (desk.chain) {
    const points = [...desk.chain.points, ...(tip ? [tip] : [])].map(at);
    return <DraftedWalls points={points} marks={points.slice(0, -1)} />;
  }
  if (desk.rectangle && tip) {
    const [a, b] = [desk.rectangle, tip];
    const corners: XY[] = [a, [b[0], a[1]], b, [a[0], b[1]], a];
    return <DraftedWalls points={corners.map(at)} marks={[at(a)]} />;
  }
  if (desk.arc.length > 0 && tip) {
    const [a, b] = desk.arc;
    if (!a) return null;
    const chain = b ? arcChain(a, b, riseThrough(a, tip, b)) : [a, tip];
    return <DraftedWalls points={chain.map(at)} marks={desk.arc.map(at)} />;
  }
  if (desk.divider && tip) {
    return <line {...ends(at(desk.divider), at(tip))} stroke={TEAL} strokeWidth={1.6} strokeDasharray="9 4 2 4" />;
  }
  if (desk.door && desk.pointer) {
    const line = wallLine(rows, desk.door.wall);
    const to = alongDoorWall(desk.pointer);
    if (!line || to === null) return null;
    return (
      <line
        {...ends(at(pointAlong(line, desk.door.from)), at(pointAlong(line, to)))}
        stroke="#fdfcfa"
        strokeWidth={Math.max(6, line.wall.thickness * desk.view.k)}
        opacity={0.85}
      />
    );
  }
  if (desk.measured.length > 0) {
    const points = [...desk.measured, ...(tip ? [tip] : [])].map(at);
    return (
      <polyline
        points={points.map((p) => p.join(",")).join(" ")}
        stroke="#1c2a26"
        strokeWidth={1.6}
        strokeDasharray="1 3"
        strokeLinecap="round"
        fill="none"
      />
    );
  }
  return null;
}

function DraftedWalls({ points, marks }: { points: readonly XY[]; marks: readonly XY[] }) {
  return (
    <g stroke={TEAL} fill="none">
      <polyline points={points.map((p) => p.join(",")).join(" ")} strokeWidth={2} strokeDasharray="6 3" />
      {marks.map((p) => (
        <circle key={p.join()} cx={p[0]} cy={p[1]} r={3.5} fill="#fdfcfa" strokeWidth={1.6} />
      ))}
    </g>
  );
}

/** What is waited for after an act of a selected wall has been chosen. */
const ASKED = {
  split: "click where it is cut",
  join: "click the wall that goes straight on",
  end: "click the wall to end at",
  beside: "on this side, at the distance typed",
};

/** Snaps, lengths and angles in words beside the pointer. */
function PointerWords({ screen }: { screen: Map2 }) {
  const desk = useDesk();
  const relativePm = useProject((s) => {
    const fit = desk.drawing === null ? undefined : s.rows.fit.get(desk.drawing);
    return fit?.plusMinusMmPer10m ?? null;
  });
  const storeys = useProject((s) => s.rows.storey.size);
  const place = useProject((s) => s.rows.storey.get(desk.storey ?? "")?.name);
  if (!desk.pointer || desk.slip) return null;
  const tip = desk.snap?.at ?? desk.pointer;
  const lines: string[] = [];
  const last = desk.chain?.points.at(-1) ?? desk.measured.at(-1);
  if (last) {
    const mm = distance(last, tip);
    const total = desk.measured.reduce((sum, p, i) => sum + (i > 0 ? distance(desk.measured[i - 1] ?? p, p) : 0), mm);
    const off = relativePm === null ? "" : ` ±${grouped(Math.max(1, (relativePm * mm) / 10_000))}`;
    lines.push(`${grouped(mm)}${off} mm`);
    if (desk.measured.length > 1) lines.push(`${grouped(total)} mm in all`);
  }
  if (desk.door) {
    const to = alongDoorWall(desk.pointer);
    if (to !== null) lines.push(`${grouped(Math.abs(to - desk.door.from))} mm wide`);
  }
  if (desk.rectangle) {
    lines.push(
      `${grouped(Math.abs(tip[0] - desk.rectangle[0]))} × ${grouped(Math.abs(tip[1] - desk.rectangle[1]))} mm`,
    );
  }
  if (desk.asked) lines.push(ASKED[desk.asked.kind]);
  if (desk.noteAt) lines.push("click what it points at, or type");
  if (desk.snap) lines.push(desk.snap.words);
  // Where there are several, the one drawn on is named before the first wall of a chain.
  if (desk.act === "walls" && !last && storeys > 1) lines.push(`on ${place}`);
  if (lines.length === 0) return null;
  const [x, y] = apply(screen, tip);
  // Towards the middle of the board, so that no word is cut off at its edge.
  const { width, height } = desk.size;
  const across = x < 0.6 * width ? { left: x + 16 } : { right: width - x + 16 };
  const along = y < 0.9 * height ? { top: y + 16 } : { bottom: height - y + 16 };
  return (
    <div
      className="pointer-events-none absolute rounded-md bg-ink px-2 py-1 text-[13px] leading-snug whitespace-nowrap text-white"
      style={{ ...across, ...along }}
      data-testid="pointer-words"
    >
      {lines.join(" · ")}
    </div>
  );
}
