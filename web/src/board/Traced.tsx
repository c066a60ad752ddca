import { useDesk, useDeskFields } from "../desk/desk";
import { preview } from "../desk/editing";
import { apartMm, facesOf, figureLine } from "../desk/figures";
import { grouped } from "../desk/numbers";
import { useProject } from "../store/project";
import { pointAlong, wallLine } from "../store/walls";
import { apply, type Map2, middle, type XY } from "./geometry";
import { ends, OCHRE, PLUM, RUST, Tag, TEAL } from "./marks";

/** A figure differs from what is traced when by more than this, mm. */
const SAME_MM = 0.5;

/** What is traced beside walls and rooms, and what is selected and dragged. */
export function Traced({ screen }: { screen: Map2 }) {
  return (
    <>
      <Dividers screen={screen} />
      <Figures screen={screen} />
      <Notes screen={screen} />
      <Handles screen={screen} />
      <Area screen={screen} />
    </>
  );
}

function Dividers({ screen }: { screen: Map2 }) {
  const { storey, selected } = useDeskFields("storey", "selected");
  const dividers = useProject((s) => s.rows.divider);
  return (
    <>
      {[...dividers.values()]
        .filter((d) => d.storey === storey)
        .map((d) => (
          <line
            key={d.id}
            {...ends(apply(screen, [d.x1, d.y1]), apply(screen, [d.x2, d.y2]))}
            stroke={TEAL}
            strokeWidth={selected?.id === d.id ? 4 : 1.6}
            strokeDasharray="9 4 2 4"
          />
        ))}
    </>
  );
}

/** Figures between faces: plum where they hold, ochre where something else was decided, rust where nothing was. */
function Figures({ screen }: { screen: Map2 }) {
  const { storey, selected, figureFaces, act, step } = useDeskFields(
    "storey",
    "selected",
    "figureFaces",
    "act",
    "step",
  );
  const rows = useProject((s) => s.rows);
  const show = act === "figures" || step === "prove" || selected?.type === "figure";
  const [first, second] = figureFaces;
  const drafted = first && second ? figureLine(rows, first, second) : null;
  return (
    <>
      {[...rows.figure.values()]
        .filter((f) => f.storey === storey && (show || f.decided === "open"))
        .map((f) => {
          const [a, b] = facesOf(f);
          const line = figureLine(rows, a, b);
          if (!line) return null;
          const now = apartMm(rows, a, b);
          const holds = now !== null && Math.abs(now - f.mm) < SAME_MM;
          const colour = f.decided === "open" ? RUST : holds ? PLUM : OCHRE;
          return (
            <FigureLine
              key={f.id}
              line={line}
              screen={screen}
              text={f.text}
              colour={colour}
              strong={selected?.id === f.id}
            />
          );
        })}
      {drafted && <FigureLine line={drafted} screen={screen} text="?" colour={PLUM} strong />}
      {first && !second && <FaceMark face={first} screen={screen} />}
    </>
  );
}

function FaceMark({ face, screen }: { face: { wall: string; side: string }; screen: Map2 }) {
  const line = useProject((s) => wallLine(s.rows, face.wall));
  if (!line) return null;
  const off = face.side === "centre" ? 0 : face.side === "left" ? line.wall.thickness / 2 : -line.wall.thickness / 2;
  const [ux, uy] = [(line.to[0] - line.from[0]) / line.length, (line.to[1] - line.from[1]) / line.length];
  const at = (p: XY): XY => apply(screen, [p[0] - uy * off, p[1] + ux * off]);
  return <line {...ends(at(line.from), at(line.to))} stroke={PLUM} strokeWidth={3.5} />;
}

function FigureLine(props: { line: readonly [XY, XY]; screen: Map2; text: string; colour: string; strong: boolean }) {
  const [a, b] = [apply(props.screen, props.line[0]), apply(props.screen, props.line[1])];
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]) || 1;
  const [ux, uy] = [(b[0] - a[0]) / length, (b[1] - a[1]) / length];
  return (
    <g stroke={props.colour} strokeWidth={props.strong ? 2.4 : 1.5}>
      <line {...ends(a, b)} />
      {[a, b].map((p, i) => (
        <line key={i === 0 ? "a" : "b"} x1={p[0] - uy * 8} y1={p[1] + ux * 8} x2={p[0] + uy * 8} y2={p[1] - ux * 8} />
      ))}
      <Tag at={middle(a, b)} text={props.text} colour={props.colour} />
    </g>
  );
}

function Notes({ screen }: { screen: Map2 }) {
  const { storey, selected, noteAt } = useDeskFields("storey", "selected", "noteAt");
  const notes = useProject((s) => s.rows.note);
  return (
    <>
      {[...notes.values()]
        .filter((n) => n.storey === storey)
        .map((n) => {
          const at = apply(screen, [n.x, n.y]);
          const words = n.words.length > 46 ? `${n.words.slice(0, 44)}…` : n.words;
          const colour = n.assumption ? OCHRE : "#1c2a26";
          return (
            <g key={n.id} stroke={colour}>
              {n.toX !== null && n.toY !== null && <Arrow from={at} to={apply(screen, [n.toX, n.toY])} />}
              <Tag
                at={at}
                text={n.assumption ? `assumed: ${words}` : words}
                colour={colour}
                dashed={selected?.id === n.id}
              />
            </g>
          );
        })}
      {noteAt?.to && (
        <g stroke="#1c2a26">
          <Arrow from={apply(screen, noteAt.at)} to={apply(screen, noteAt.to)} />
        </g>
      )}
    </>
  );
}

function Arrow({ from, to }: { from: XY; to: XY }) {
  const angle = Math.atan2(to[1] - from[1], to[0] - from[0]);
  const barb = (turn: number) => `${to[0] - 11 * Math.cos(angle + turn)},${to[1] - 11 * Math.sin(angle + turn)}`;
  return (
    <>
      <line {...ends(from, to)} strokeWidth={1.4} />
      <polyline points={`${barb(0.42)} ${to.join(",")} ${barb(-0.42)}`} fill="none" strokeWidth={1.4} />
    </>
  );
}

/** Ends of the selected wall and jambs of the selected opening can be taken hold of; a drag shows where it leads. */
function Handles({ screen }: { screen: Map2 }) {
  const { selected, held, act } = useDeskFields("selected", "held", "act");
  useDesk((s) => s.group);
  const rows = useProject((s) => s.rows);
  const lines = held ? preview() : [];
  const wall = selected?.type === "wall" ? wallLine(rows, selected.id) : undefined;
  const opening = selected?.type === "opening" ? rows.opening.get(selected.id) : undefined;
  const host = wallLine(rows, opening?.wall);
  const points: XY[] = wall
    ? [wall.from, wall.to]
    : opening && host
      ? [pointAlong(host, opening.offset), pointAlong(host, opening.offset + opening.width)]
      : [];
  return (
    <>
      {lines.map(([a, b]) => {
        const [p, q] = [apply(screen, a), apply(screen, b)];
        const mm = Math.hypot(b[0] - a[0], b[1] - a[1]);
        return (
          <g key={`${a.join()} ${b.join()}`}>
            <line {...ends(p, q)} stroke={TEAL} strokeWidth={2} strokeDasharray="6 3" />
            <Tag at={middle(p, q)} text={grouped(mm)} colour={TEAL} />
          </g>
        );
      })}
      {act === null &&
        !held &&
        points.map((p, i) => {
          const [x, y] = apply(screen, p);
          return <circle key={i === 0 ? "a" : "b"} cx={x} cy={y} r={5} fill="#fdfcfa" stroke={TEAL} strokeWidth={2} />;
        })}
    </>
  );
}

function Area({ screen }: { screen: Map2 }) {
  const area = useDesk((s) => s.area);
  if (!area) return null;
  const [a, b] = [apply(screen, area.from), apply(screen, area.to)];
  return (
    <rect
      x={Math.min(a[0], b[0])}
      y={Math.min(a[1], b[1])}
      width={Math.abs(a[0] - b[0])}
      height={Math.abs(a[1] - b[1])}
      fill={area.takeAway ? RUST : TEAL}
      fillOpacity={0.08}
      stroke={area.takeAway ? RUST : TEAL}
      strokeDasharray="5 3"
    />
  );
}
