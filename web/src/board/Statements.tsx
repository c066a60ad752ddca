import { useDesk } from "../desk/desk";
import { picksWanted } from "../desk/picking";
import { fitMap, inOrder } from "../desk/selectors";
import { inkOffGrid } from "../desk/snap";
import { useProject } from "../store/project";
import type { Thing } from "../store/rows";
import { apply, type Map2, middle, type PageMap, type XY } from "./geometry";
import { ends, OCHRE, PLUM, RUST, StatedLine, Tag, TEAL } from "./marks";
import { tagsApart } from "./tags";

/** All that is stated about the drawing, on the drawing. */
export function Statements({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const selected = useDesk((s) => s.selected);
  // In the truth plot the remaining errors speak instead.
  const plain = useDesk((s) => s.truthPlot);
  const rows = useProject((s) => s.rows);
  const fits = useProject((s) => s.fits);
  const map = fitMap(rows, drawing);
  if (!map || drawing === null) return null;
  const at = (pick: string): XY | null => {
    const p = rows.pick.get(pick);
    return p ? apply(screen, apply(map, [p.x, p.y])) : null;
  };
  const report = fits.get(drawing);
  const page = rows.drawing.get(drawing)?.page;
  const own = (d: string) => d === drawing;
  const lengths = inOrder(rows.knownLength.values())
    .filter((l) => own(l.drawing) || (l.wholePage && rows.drawing.get(l.drawing)?.page === page))
    .flatMap((length) => {
      const [a, b, c] = [at(length.a), at(length.b), length.c === null ? null : at(length.c)];
      return a && b ? [{ length, a, b, c, from: c ? foot(b, a, c) : a }] : [];
    });
  const lines = inOrder(rows.gridPick.values()).filter((g) => own(g.drawing));
  const suspects = new Set(report?.lengths.filter((r) => r.suspect).map((r) => r.id));
  const told = tagsApart([
    ...lengths.map(({ length: l, from, b }) => {
      const counts = selected?.id === l.id ? 3e6 : suspects.has(l.id) ? 2e6 : l.heldOut ? 1e6 : 0;
      const weight = counts + Math.hypot(b[0] - from[0], b[1] - from[1]);
      return { id: l.id, at: besideLine(from, b), text: wordsOf(l), weight };
    }),
    ...lines.flatMap((g) => {
      const [a, b] = [at(g.a), at(g.b)];
      return a && b && g.hand === "picked"
        ? [{ id: g.id, at: besideLine(a, middle(a, b)), text: runsWith(g), weight: 0 }]
        : [];
    }),
  ]);
  return (
    <>
      {inOrder(rows.rectangle.values())
        .filter((r) => own(r.drawing))
        .map((room) => {
          const suspect = report?.rectangles.some((r) => r.id === room.id && r.suspect) ?? false;
          return <Room key={room.id} room={room} at={at} colour={suspect ? RUST : PLUM} />;
        })}
      {lengths.map(({ length, a, b, c, from }) => {
        const suspect = suspects.has(length.id);
        const colour = suspect ? RUST : length.heldOut ? OCHRE : PLUM;
        const dash = suspect ? "7 4" : length.heldOut ? "2 4" : undefined;
        return (
          <g key={length.id} opacity={selected && selected.id !== length.id ? 0.55 : 1}>
            {c && <line {...ends(a, c)} stroke={colour} strokeWidth={1.4} strokeDasharray="1 4" />}
            <StatedLine a={from} b={b} colour={colour} {...(dash ? { dash } : {})} />
            {!plain && told.has(length.id) && (
              <Tag at={besideLine(from, b)} text={wordsOf(length)} colour={colour} dashed={length.heldOut} />
            )}
          </g>
        );
      })}
      {lines.map((line) => {
        const [a, b] = [at(line.a), at(line.b)];
        // What the ink or a figure says of the turn has no place of its own.
        return a && b && line.hand === "picked" ? (
          <g key={line.id}>
            <StatedLine a={a} b={b} colour={TEAL} dash="10 3 2 3" />
            {told.has(line.id) && <Tag at={besideLine(a, middle(a, b))} text={runsWith(line)} colour={TEAL} />}
          </g>
        ) : null;
      })}
      {inOrder(rows.controlPoint.values())
        .filter((c) => own(c.drawing))
        .map((point) => {
          const p = at(point.pick);
          const colour = report?.points.some((r) => r.id === point.id && r.suspect) ? RUST : PLUM;
          return p ? (
            <g key={point.id}>
              <PlacedMark at={p} colour={colour} />
              <Tag at={[p[0] + 34, p[1] - 18]} text={point.text} colour={colour} />
            </g>
          ) : null;
        })}
    </>
  );
}

function wordsOf(length: Thing<"knownLength">): string {
  return length.heldOut ? `${length.text} ?` : length.text;
}

export function runsWith(line: Thing<"gridPick">): string {
  return line.bearing === null ? `runs with ${line.axis}` : `bears ${line.bearing}°`;
}

function PlacedMark({ at, colour }: { at: XY; colour: string }) {
  return (
    <path
      transform={`translate(${at[0]} ${at[1]})`}
      d="M-8 0H8M0-8V8M-5-5H5V5H-5Z"
      stroke={colour}
      strokeWidth={1.8}
      fill="none"
    />
  );
}

function Room({ room, at, colour }: { room: Thing<"rectangle">; at: (pick: string) => XY | null; colour: string }) {
  const corners = [room.a, room.b, room.c, room.d].map(at).filter((p) => p !== null);
  if (corners.length !== 4) return null;
  const [a = [0, 0], b = [0, 0], c = [0, 0]] = corners as XY[];
  return (
    <g>
      <polygon points={corners.map((p) => p.join(",")).join(" ")} fill="none" stroke={colour} strokeWidth={2.2} />
      <Tag at={besideLine(a, b)} text={room.width} colour={colour} />
      <Tag at={besideLine(b, c)} text={room.depth} colour={colour} />
    </g>
  );
}

/** Foot of the perpendicular from a point on a line. */
function foot(p: XY, a: XY, b: XY): XY {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const t = ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / Math.max(1e-9, dx * dx + dy * dy);
  return [a[0] + t * dx, a[1] + t * dy];
}

/** Beside the middle of a line, off its own ink. */
export function besideLine(a: XY, b: XY): XY {
  const [x, y] = middle(a, b);
  const upright = Math.abs(b[1] - a[1]) > Math.abs(b[0] - a[0]);
  return upright ? [x + 34, y] : [x, y - 17];
}

/** The best next length as a ghost band. */
export function NextBest({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const drafting = useDesk((s) => s.picks.length > 0 || s.act === "square" || s.act === "place" || s.truthPlot);
  const rows = useProject((s) => s.rows);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const map = fitMap(rows, drawing);
  const next = report?.advice.find((a) => a.from && a.to);
  if (!map || !next?.from || !next.to || report?.advice[0] !== next || drafting) return null;
  const a = apply(screen, apply(map, [next.from[0] ?? 0, next.from[1] ?? 0]));
  const b = apply(screen, apply(map, [next.to[0] ?? 0, next.to[1] ?? 0]));
  return (
    <g data-testid="next-best">
      <line {...ends(a, b)} stroke="#f2d22b" strokeWidth={14} strokeLinecap="round" opacity={0.55} />
      <line {...ends(a, b)} stroke="#6b5a00" strokeWidth={1.4} strokeDasharray="3 4" />
    </g>
  );
}

/** Picks of the statement being made, the ghost of a known size, the joints counted. */
export function DraftedPicks({ screen, map, tip }: { screen: Map2; map: PageMap; tip: XY | null }) {
  const desk = useDesk();
  const at = (p: XY): XY => apply(screen, p);
  const points = desk.picks.map((p) => at(apply(map, p.at)));
  const wanted = picksWanted();
  const colour = desk.act === "square" ? TEAL : desk.heldOut ? OCHRE : PLUM;
  const next = points.length < wanted && tip ? at(tip) : undefined;
  if (desk.act === "calibrate" && desk.calibrateBy === "room") {
    const line = [...points, ...(next ? [next] : [])];
    return (
      <g>
        {desk.ghost.mm && (
          <SizeGhost mm={desk.ghost.mm} picks={desk.picks.map((p) => p.at)} {...{ tip, map, screen }} />
        )}
        {line.length > 1 && (
          <polygon
            points={line.map((p) => p.join(",")).join(" ")}
            fill="none"
            stroke={colour}
            strokeWidth={1.6}
            strokeDasharray="3 3"
          />
        )}
        {points.map((p) => (
          <circle key={p.join()} cx={p[0]} cy={p[1]} r={4} fill="#fdfcfa" stroke={colour} strokeWidth={1.8} />
        ))}
      </g>
    );
  }
  if (desk.act === "place") {
    const [p] = points;
    return p ? <PlacedMark at={p} colour={colour} /> : null;
  }
  const [a] = points;
  const b = points[1] ?? next;
  const c = points[2] ?? (points.length === 2 ? next : undefined);
  if (!a || !b) return null;
  return (
    <g>
      <StatedLine a={a} b={b} colour={colour} />
      {wanted === 3 && c && points.length > 1 && <StatedLine a={foot(c, a, b)} b={c} colour={colour} />}
      {desk.ticks.map((t, i) => (
        <Tick key={t.join()} at={at(apply(map, t))} a={a} b={b} number={i + 1} of={desk.ticks.length} />
      ))}
    </g>
  );
}

/** A joint on the line, numbered every fifth and at the end. */
function Tick({ at, a, b, number, of }: { at: XY; a: XY; b: XY; number: number; of: number }) {
  const angle = (Math.atan2(b[1] - a[1], b[0] - a[0]) * 180) / Math.PI;
  const told = number === 1 || number === of || number % 5 === 0;
  return (
    <g transform={`translate(${at[0]} ${at[1]})`}>
      <line
        transform={`rotate(${angle})`}
        x1={0}
        x2={0}
        y1={-4}
        y2={told ? 12 : 7}
        stroke={PLUM}
        strokeWidth={told ? 1.8 : 1}
      />
      {told && (
        <text
          x={18 * Math.cos(((angle + 90) * Math.PI) / 180)}
          y={18 * Math.sin(((angle + 90) * Math.PI) / 180) + 4}
          textAnchor="middle"
          fontSize="11"
          fontWeight="600"
          fill={PLUM}
          stroke="#fdfcfa"
          strokeWidth="3"
          paintOrder="stroke"
        >
          {number}
        </text>
      )}
    </g>
  );
}

/**
 * A rectangle of typed true size laid over the picture: round the pointer, from the first corner picked, or along the side picked. It
 * lies with the drawing's own grid, which until it is squared is the grid of its ink.
 */
function SizeGhost(props: {
  mm: readonly [number, number];
  picks: readonly XY[];
  tip: XY | null;
  map: PageMap;
  screen: Map2;
}) {
  const { mm, picks, tip, map, screen } = props;
  const drawing = useDesk((s) => s.drawing);
  const off = useProject((s) => inkOffGrid(s, drawing)) ?? 0;
  const [a, b, c] = picks.map((p) => apply(map, p));
  const ring = ghostRing(mm, { a, b, beyond: c ?? tip }, (off * Math.PI) / 180);
  if (!ring) return null;
  return (
    <polygon
      data-testid="size-ghost"
      points={ring.map((p) => apply(screen, p).join(",")).join(" ")}
      fill={PLUM}
      fillOpacity={0.1}
      stroke={PLUM}
      strokeWidth={2.2}
      strokeDasharray="12 4"
    />
  );
}

/**
 * Corners of the ghost in the model.
 *
 * @param at its first corner, a point of the side that runs from it, and a point that it opens toward; with no corner yet it lies round
 *   that point
 * @param gridRad direction of the drawing's x in the model
 */
export function ghostRing(
  [w, d]: readonly [number, number],
  at: { a: XY | undefined; b: XY | undefined; beyond: XY | null },
  gridRad: number,
): XY[] | null {
  const { a, b, beyond } = at;
  const [c, s] = [Math.cos(gridRad), Math.sin(gridRad)];
  let [ux, uy] = [c, s];
  let [vx, vy] = [-s, c];
  if (!a)
    return beyond
      ? ringFrom([beyond[0] - (ux * w + vx * d) / 2, beyond[1] - (uy * w + vy * d) / 2], [ux, uy], [vx, vy], w, d)
      : null;
  if (b) {
    const span = Math.max(1e-9, Math.hypot(b[0] - a[0], b[1] - a[1]));
    [ux, uy] = [(b[0] - a[0]) / span, (b[1] - a[1]) / span];
    [vx, vy] = [-uy, ux];
  }
  const [px, py] = beyond ? [beyond[0] - a[0], beyond[1] - a[1]] : [ux + vx, uy + vy];
  if (!b && px * ux + py * uy < 0) [ux, uy] = [-ux, -uy];
  if (px * vx + py * vy < 0) [vx, vy] = [-vx, -vy];
  return ringFrom(a, [ux, uy], [vx, vy], w, d);
}

function ringFrom([x, y]: XY, [ux, uy]: XY, [vx, vy]: XY, w: number, d: number): XY[] {
  return [
    [x, y],
    [x + ux * w, y + uy * w],
    [x + ux * w + vx * d, y + uy * w + vy * d],
    [x + vx * d, y + vy * d],
  ];
}
