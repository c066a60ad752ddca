import { alongDoorWall } from "../desk/acts";
import { useDesk } from "../desk/desk";
import { area, grouped } from "../desk/numbers";
import { fitMap, openRooms, wallLines } from "../desk/selectors";
import { isPicking } from "../desk/snap";
import { useProject } from "../project/store";
import { Boundaries } from "./Boundaries";
import { Elevation } from "./Elevation";
import { FigureSlip } from "./FigureSlip";
import { apply, distance, type Map2, toScreen, type XY } from "./geometry";
import { ends, RUST, Tag, TEAL } from "./marks";
import { SettingOut } from "./SettingOut";
import { Sides } from "./Sides";
import { DraftedPicks, NextBest, Statements } from "./Statements";
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
        {shapes?.leaks.map((leak) => {
          const [p = [0, 0], q = [0, 0]] = leak.neck;
          const m = at([((p[0] ?? 0) + (q[0] ?? 0)) / 2, ((p[1] ?? 0) + (q[1] ?? 0)) / 2]);
          return (
            <g key={leak.room}>
              <circle cx={m[0]} cy={m[1]} r={16} fill={RUST} opacity={0.18} />
              <line {...ends(at(p), at(q))} stroke={RUST} strokeWidth={4} />
              <Tag at={[m[0], m[1] - 24]} text={`leak ${grouped(leak.gapMm)} mm`} colour={RUST} />
            </g>
          );
        })}
        <Drafted screen={screen} />
        {desk.snap && (
          <circle cx={at(desk.snap.at)[0]} cy={at(desk.snap.at)[1]} r={5} fill="none" stroke={TEAL} strokeWidth={2} />
        )}
      </svg>
      {tracing && shapes && (
        <div className="pointer-events-none absolute inset-0 overflow-hidden">
          {shapes.rooms.map((room) => {
            const [x, y] = at(room.label);
            return (
              <div
                key={`${room.id ?? ""}${room.label.join()}`}
                className="absolute -translate-x-1/2 -translate-y-1/2 rounded bg-sheet/85 px-1.5 py-0.5 text-center leading-tight whitespace-nowrap"
                style={{ left: x, top: y }}
                data-testid="room-label"
              >
                <div className={room.name ? "text-[13px] font-semibold text-teal" : "text-xs text-quiet"}>
                  {room.name ?? "not named"}
                </div>
                <div className="text-[13px]">{area(room.netAreaM2)}</div>
              </div>
            );
          })}
          {openRooms(project.rows, shapes).map((room) => {
            const [x, y] = at([room.x, room.y]);
            return (
              <div
                key={room.id}
                className="absolute -translate-x-1/2 -translate-y-1/2 rounded border border-rust bg-sheet/90 px-1.5 py-0.5 text-center text-[13px] leading-tight whitespace-nowrap text-rust"
                style={{ left: x, top: y }}
                data-testid="room-label"
              >
                <div className="font-semibold">{room.name}</div>
                does not close
              </div>
            );
          })}
        </div>
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
    return (
      <g stroke={TEAL} fill="none">
        <polyline points={points.map((p) => p.join(",")).join(" ")} strokeWidth={2} strokeDasharray="6 3" />
        {points.slice(0, -1).map((p) => (
          <circle key={p.join()} cx={p[0]} cy={p[1]} r={3.5} fill="#fdfcfa" strokeWidth={1.6} />
        ))}
      </g>
    );
  }
  if (desk.door && desk.pointer) {
    const line = wallLines(rows, desk.storey).find((l) => l.wall.id === desk.door?.wall);
    const to = alongDoorWall(desk.pointer);
    if (!line || to === null) return null;
    const length = distance(line.from, line.to);
    const point = (t: number): XY => [
      line.from[0] + ((line.to[0] - line.from[0]) * t) / length,
      line.from[1] + ((line.to[1] - line.from[1]) * t) / length,
    ];
    return (
      <line
        {...ends(at(point(desk.door.from)), at(point(to)))}
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

/** Snaps, lengths and angles in words beside the pointer. */
function PointerWords({ screen }: { screen: Map2 }) {
  const desk = useDesk();
  const relativePm = useProject((s) => {
    const fit = desk.drawing === null ? undefined : s.rows.fit.get(desk.drawing);
    return fit?.plusMinusMmPer10m ?? null;
  });
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
  if (desk.snap) lines.push(desk.snap.words);
  if (lines.length === 0) return null;
  const [x, y] = apply(screen, tip);
  return (
    <div
      className="pointer-events-none absolute rounded-md bg-ink px-2 py-1 text-[13px] leading-snug whitespace-nowrap text-white"
      style={{ left: x + 16, top: y + 16 }}
      data-testid="pointer-words"
    >
      {lines.join(" · ")}
    </div>
  );
}
