import { alongDoorWall, gridTurn } from "../desk/acts";
import { useDesk } from "../desk/desk";
import { area, grouped } from "../desk/numbers";
import { fitMap, inOrder, openRooms, wallLines } from "../desk/selectors";
import { useProject } from "../project/store";
import { FigureSlip } from "./FigureSlip";
import { apply, distance, type Map2, middle, toScreen, type XY } from "./geometry";

const PLUM = "#6d2a63";
const OCHRE = "#855400";
const RUST = "#9c3414";
const TEAL = "#0f4f4b";

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

function ends(a: XY, b: XY) {
  return { x1: a[0], y1: a[1], x2: b[0], y2: b[1] };
}

function Tag({ at, text, colour, dashed = false }: { at: XY; text: string; colour: string; dashed?: boolean }) {
  const width = text.length * 7.4 + 16;
  return (
    <g transform={`translate(${at[0]} ${at[1]})`}>
      <rect
        x={-width / 2}
        y={-11}
        width={width}
        height={22}
        rx={4}
        fill="#faf8f3"
        stroke={colour}
        strokeWidth={1.4}
        {...(dashed ? { strokeDasharray: "3 2" } : {})}
      />
      <text textAnchor="middle" dy="4.5" fontSize="13" fontWeight="600" fill={colour}>
        {text}
      </text>
    </g>
  );
}

/** A stated line: end marks are short bars across it with a ring at the very pick. */
function StatedLine({ a, b, colour, dash }: { a: XY; b: XY; colour: string; dash?: string }) {
  const angle = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
  return (
    <g stroke={colour} fill="none">
      <line {...ends(a, b)} strokeWidth={2.2} {...(dash ? { strokeDasharray: dash } : {})} />
      {[a, b].map((p) => (
        <g key={p.join()} transform={`translate(${p[0]} ${p[1]}) rotate(${angle})`}>
          <line x1={0} x2={0} y1={-9} y2={-4} strokeWidth={2} />
          <line x1={0} x2={0} y1={4} y2={9} strokeWidth={2} />
          <circle r={3.5} strokeWidth={1.6} fill="#fdfcfa" />
        </g>
      ))}
    </g>
  );
}

function Statements({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const selected = useDesk((s) => s.selected);
  const rows = useProject((s) => s.rows);
  const fits = useProject((s) => s.fits);
  const map = fitMap(rows, drawing);
  if (!map || drawing === null) return null;
  const at = (pick: string): XY | null => {
    const p = rows.pick.get(pick);
    return p ? apply(screen, apply(map, [p.x, p.y])) : null;
  };
  const report = fits.get(drawing);
  return (
    <>
      {inOrder(rows.knownLength.values())
        .filter((l) => l.drawing === drawing)
        .map((length) => {
          const [a, b] = [at(length.a), at(length.b)];
          if (!a || !b) return null;
          const suspect = report?.lengths.find((r) => r.id === length.id)?.suspect ?? false;
          const colour = suspect ? RUST : length.heldOut ? OCHRE : PLUM;
          const dash = suspect ? "7 4" : length.heldOut ? "2 4" : undefined;
          return (
            <g key={length.id} opacity={selected && selected.id !== length.id ? 0.55 : 1}>
              <StatedLine a={a} b={b} colour={colour} {...(dash ? { dash } : {})} />
              <Tag
                at={besideLine(a, b)}
                text={length.heldOut ? `${length.text} ?` : length.text}
                colour={colour}
                dashed={length.heldOut}
              />
            </g>
          );
        })}
      {inOrder(rows.gridPick.values())
        .filter((g) => g.drawing === drawing)
        .map((line) => {
          const [a, b] = [at(line.a), at(line.b)];
          return a && b ? (
            <g key={line.id}>
              <StatedLine a={a} b={b} colour={TEAL} dash="10 3 2 3" />
              <Tag at={besideLine(a, middle(a, b))} text={`runs with ${line.axis}`} colour={TEAL} />
            </g>
          ) : null;
        })}
    </>
  );
}

/** Beside the middle of a line, off its own ink. */
function besideLine(a: XY, b: XY): XY {
  const [x, y] = middle(a, b);
  const upright = Math.abs(b[1] - a[1]) > Math.abs(b[0] - a[0]);
  return upright ? [x + 34, y] : [x, y - 17];
}

/** The best next length as a ghost band. */
function NextBest({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const drafting = useDesk((s) => s.ends.length > 0);
  const rows = useProject((s) => s.rows);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const map = fitMap(rows, drawing);
  const [next] = report?.advice ?? [];
  if (!map || !next?.from || !next.to || !next.code.startsWith("next-length") || drafting) return null;
  const a = apply(screen, apply(map, [next.from[0] ?? 0, next.from[1] ?? 0]));
  const b = apply(screen, apply(map, [next.to[0] ?? 0, next.to[1] ?? 0]));
  return (
    <g>
      <line {...ends(a, b)} stroke="#f2d22b" strokeWidth={14} strokeLinecap="round" opacity={0.55} />
      <line {...ends(a, b)} stroke="#6b5a00" strokeWidth={1.4} strokeDasharray="3 4" />
    </g>
  );
}

function Drafted({ screen }: { screen: Map2 }) {
  const desk = useDesk();
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, desk.drawing);
  const at = (p: XY): XY => apply(screen, p);
  const tip = desk.snap?.at ?? desk.pointer;
  if (desk.ends.length > 0 && map) {
    const points = desk.ends.map((p) => at(apply(map, p)));
    const [a] = points;
    const b = points[1] ?? (tip ? at(tip) : undefined);
    const colour = desk.act === "square" ? TEAL : desk.heldOut ? OCHRE : PLUM;
    return a && b ? <StatedLine a={a} b={b} colour={colour} /> : null;
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
  if (desk.ends.length === 2 && desk.act === "square") {
    const turn = gridTurn();
    if (turn) lines.push(`turns ${Math.abs(turn.degrees).toFixed(2)}° ${turn.degrees >= 0 ? "left" : "right"}`);
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
