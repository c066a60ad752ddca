import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../api/client";
import { useDesk, useDeskFields } from "../desk/desk";
import { area, grouped, plusMinus } from "../desk/numbers";
import { inOrder } from "../desk/selectors";
import { inProject, useProject } from "../store/project";
import type { Thing } from "../store/rows";
import { apply, type Map2, type XY } from "./geometry";
import { RUST, Tag, TEAL } from "./marks";

/** Level marks of the drawing at hand, and the outlines of the side or storey. */
export function Elevation({ screen }: { screen: Map2 }) {
  const side = useDesk((s) => s.side);
  return (
    <g>
      {side !== null && <Levels screen={screen} part="lines" />}
      <Outlines screen={screen} />
      {side !== null && <Levels screen={screen} part="words" />}
      <Drafted screen={screen} />
    </g>
  );
}

export function cornersOf(corners: Iterable<Thing<"outlineCorner">>, outline: string): Thing<"outlineCorner">[] {
  return inOrder(corners)
    .filter((c) => c.outline === outline)
    .sort((a, b) => a.order - b.order);
}

/** What an outline encloses, asked anew when one of its rows has changed. */
export function useOutline(outline: Thing<"outline">) {
  const all = useProject((s) => s.rows.outlineCorner);
  const corners = cornersOf(all.values(), outline.id);
  const { data } = useQuery({
    queryKey: ["outline", outline.id, ...corners.map((c) => `${c.id}${c.revision}`)],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/outlines/{id}", { params: { path: inProject(outline.id) } })),
    placeholderData: (old) => old,
  });
  return { corners, answer: data };
}

function Outlines({ screen }: { screen: Map2 }) {
  const { side, storey } = useDeskFields("side", "storey");
  const outlines = useProject((s) => s.rows.outline);
  return (
    <>
      {[...outlines.values()]
        .filter((o) => (side === null ? o.storey === storey : o.side === side))
        .map((o) => (
          <Traced key={o.id} outline={o} screen={screen} />
        ))}
    </>
  );
}

function Traced({ outline, screen }: { outline: Thing<"outline">; screen: Map2 }) {
  const { corners, answer } = useOutline(outline);
  const ring = corners.map((c) => apply(screen, [c.x, c.y]));
  const wrong = answer !== undefined && answer.refusal !== null;
  const colour = wrong ? RUST : TEAL;
  const [x, y] = [
    ring.reduce((sum, p) => sum + p[0], 0) / Math.max(1, ring.length),
    ring.reduce((sum, p) => sum + p[1], 0) / Math.max(1, ring.length),
  ];
  return (
    <g>
      <polygon
        points={ring.map((p) => p.join(",")).join(" ")}
        fill={colour}
        fillOpacity={outline.kind === "void" ? 0 : 0.07}
        stroke={colour}
        strokeWidth={2}
        {...(wrong ? { strokeDasharray: "4 3" } : outline.kind === "face" ? {} : { strokeDasharray: "14 4" })}
      />
      {outline.kind === "void" && <Cross ring={ring} />}
      <Tag
        at={outline.kind === "face" ? [x, y] : (ring[0] ?? [x, y])}
        text={wrong ? `${outline.name} crosses itself` : `${outline.name} ${answer?.areaM2 ? area(answer.areaM2) : ""}`}
        colour={colour}
      />
    </g>
  );
}

/** Nothing is there: corners joined across. */
function Cross({ ring }: { ring: readonly XY[] }) {
  const half = Math.floor(ring.length / 2);
  return (
    <g stroke={TEAL} strokeWidth={1}>
      {ring.slice(0, half).map((p, i) => {
        const q = ring[i + half] ?? p;
        return <line key={p.join()} x1={p[0]} y1={p[1]} x2={q[0]} y2={q[1]} />;
      })}
    </g>
  );
}

/** Heights: a line across the drawing, and at the right its name, height and ±, the stated one heavier. */
function Levels({ screen, part }: { screen: Map2; part: "lines" | "words" }) {
  const drawing = useDesk((s) => s.drawing);
  const size = useDesk((s) => s.size);
  const marks = useProject((s) => s.rows.levelMark);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const picks = useProject((s) => s.rows.pick);
  return (
    <g>
      {report?.levels.map((level) => {
        const mark = marks.get(level.id);
        const pick = mark && picks.get(mark.pick);
        if (!mark || !pick) return null;
        const y = apply(screen, [0, level.heightMm])[1];
        const right = size.width - 16;
        const words = `${mark.name} ${height(level.heightMm)}${level.statedMm !== null ? "" : level.plusMinusMm === null ? " by guess" : ` ${plusMinus(level.plusMinusMm)}`}`;
        const width = words.length * 7.2 + 22;
        return (
          <g key={level.id}>
            {part === "lines" ? (
              <line x1={12} x2={right - width} y1={y} y2={y} stroke={TEAL} strokeWidth={1.4} strokeDasharray="24 5" />
            ) : (
              <>
                <path
                  d={`M${right - width} ${y - 10}H${right}V${y + 10}H${right - width}L${right - width - 9} ${y}Z`}
                  fill="#faf8f3"
                  stroke={TEAL}
                  strokeWidth={level.statedMm !== null ? 2.4 : 1.4}
                />
                <text x={right - width + 10} y={y + 4.5} fontSize="13" fontWeight="600" fill={TEAL}>
                  {words}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
}

/** mm with its sign, ±0 at zero. */
export function height(mm: number): string {
  return Math.abs(mm) < 0.5 ? "±0" : `${mm < 0 ? "−" : "+"}${grouped(Math.abs(mm))}`;
}

function Drafted({ screen }: { screen: Map2 }) {
  const ring = useDesk((s) => s.ring);
  const tip = useDesk((s) => s.snap?.at ?? s.pointer);
  if (ring.length === 0) return null;
  const points: XY[] = [...ring, ...(tip ? [tip] : [])].map((p) => apply(screen, p));
  return (
    <g stroke={TEAL} fill="none">
      <polyline points={points.map((p) => p.join(",")).join(" ")} strokeWidth={2} strokeDasharray="6 3" />
      {points.slice(0, ring.length).map((p) => (
        <circle key={p.join()} cx={p[0]} cy={p[1]} r={3.5} fill="#fdfcfa" strokeWidth={1.6} />
      ))}
    </g>
  );
}
