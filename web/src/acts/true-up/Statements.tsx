import { useDesk } from "../../board/desk";
import { ends, OCHRE, PLUM, RUST, StatedLine, Tag, TEAL } from "../../board/marks";
import { tagsApart } from "../../board/tags";
import { apply, type Map2 } from "../../geometry/maps";
import { middle, type XY } from "../../geometry/plane";
import { fitMap } from "../../store/drawings";
import { useProject } from "../../store/project";
import type { Thing } from "../../store/rows";
import { inOrder } from "../../store/rows";
import { bearing } from "../../ui/measures";
import { foot } from "./picked";
import { useTruthPlot } from "./plot";

/** All that is stated about the drawing, on the drawing. */
export function Statements({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const selected = useDesk((s) => s.selected);
  // In the truth plot the remaining errors speak instead.
  const plain = useTruthPlot((s) => s.shown);
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
  return line.bearing === null ? `runs with ${line.axis}` : `bears ${bearing(line.bearing)}`;
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

/** Beside the middle of a line, off its own ink. */
export function besideLine(a: XY, b: XY): XY {
  const [x, y] = middle(a, b);
  const upright = Math.abs(b[1] - a[1]) > Math.abs(b[0] - a[0]);
  return upright ? [x + 34, y] : [x, y - 17];
}

/** The best next length, by its two ends. */
export function NextBest({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const drafting = useDesk((s) => s.draft !== null || s.act === "square" || s.act === "place");
  const plotted = useTruthPlot((s) => s.shown);
  const rows = useProject((s) => s.rows);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const map = fitMap(rows, drawing);
  const next = report?.advice.find((a) => a.from && a.to);
  if (!map || !next?.from || !next.to || report?.advice[0] !== next || drafting || plotted) return null;
  const a = apply(screen, apply(map, [next.from[0] ?? 0, next.from[1] ?? 0]));
  const b = apply(screen, apply(map, [next.to[0] ?? 0, next.to[1] ?? 0]));
  return (
    <g data-testid="next-best" stroke="#6b5a00">
      {/* Its ends are told, and its way only hinted at: what is written along it stays legible. */}
      <line {...ends(a, b)} strokeWidth={1.4} strokeDasharray="3 5" />
      {[a, b].map((p, i) => (
        <circle
          key={i === 0 ? "a" : "b"}
          cx={p[0]}
          cy={p[1]}
          r={9}
          fill="#f2d22b"
          fillOpacity={0.6}
          strokeWidth={1.4}
        />
      ))}
    </g>
  );
}
