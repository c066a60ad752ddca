import { useQuery } from "@tanstack/react-query";
import { api, settled } from "../../api/client";
import { useDesk } from "../../board/desk";
import { OCHRE, PLUM, RUST } from "../../board/marks";
import { contours } from "../../geometry/contours";
import { apply, type Map2 } from "../../geometry/maps";
import type { XY } from "../../geometry/plane";
import { fitMap } from "../../store/drawings";
import { inProject, useProject } from "../../store/project";
import { inOrder } from "../../store/rows";
import { difference, plusMinus, unitWord } from "../../ui/measures";
import { besideLine } from "./Statements";

/** Screen pixels that the largest remaining error is drawn as. */
const LARGEST = 46;

/** Remaining errors, exaggerated, at the ends of what was stated; ± over the page as lines of equal value. */
export function TruthPlot({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const rows = useProject((s) => s.rows);
  const report = useProject((s) => (drawing === null ? undefined : s.fits.get(drawing)));
  const revision = drawing === null ? 0 : (rows.fit.get(drawing)?.revision ?? 0);
  const { data } = useQuery({
    queryKey: ["spread", drawing, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/drawings/{id}/spread", { params: { path: inProject(drawing ?? "") } })),
    enabled: drawing !== null,
  });
  const map = fitMap(rows, drawing);
  const page = drawing === null ? undefined : rows.page.get(rows.drawing.get(drawing)?.page ?? "");
  if (!map || !report || !page || drawing === null) return null;
  const at = (x: number, y: number): XY => apply(screen, apply(map, [x, y]));
  const levels = data ? contours(data.plusMinusMm, data.columns, data.rows, levelsFor(data.plusMinusMm)) : [];
  const largest = Math.max(0.001, ...report.lengths.map((r) => Math.abs(r.residualMm)));
  return (
    <g data-testid="truth-plot">
      {levels.map(({ value, lines }) => (
        <g key={value} stroke="#49534e" fill="none" strokeWidth={1.3} strokeDasharray="1 4" strokeLinecap="round">
          {lines.map(([p, q]) => {
            const [x1, y1] = onPage(p, page, data?.columns ?? 1, data?.rows ?? 1, at);
            const [x2, y2] = onPage(q, page, data?.columns ?? 1, data?.rows ?? 1, at);
            return <line key={`${p.join()} ${q.join()}`} {...{ x1, y1, x2, y2 }} />;
          })}
          {labelled(lines).map((p) => {
            const [x, y] = onPage(p, page, data?.columns ?? 1, data?.rows ?? 1, at);
            return (
              <text
                key={p.join()}
                {...{ x, y }}
                textAnchor="middle"
                fontSize="12"
                fontWeight="600"
                fill="#1c2a26"
                stroke="#fdfcfa"
                strokeWidth="4"
                strokeDasharray="none"
                paintOrder="stroke"
              >
                {plusMinus(value)} mm
              </text>
            );
          })}
        </g>
      ))}
      {inOrder(rows.knownLength.values()).map((length) => {
        const result = report.lengths.find((r) => r.id === length.id);
        const [a, b] = [rows.pick.get(length.a), rows.pick.get(length.b)];
        if (!result || !a || !b) return null;
        const [p, q] = [at(a.x, a.y), at(b.x, b.y)];
        const span = Math.max(1, Math.hypot(q[0] - p[0], q[1] - p[1]));
        const [ux, uy] = [(q[0] - p[0]) / span, (q[1] - p[1]) / span];
        const off = (LARGEST * result.residualMm) / largest / 2;
        const colour = result.suspect ? RUST : length.heldOut ? OCHRE : PLUM;
        // What is read too long reaches too far out at both ends; where it ought to end lies inside.
        return (
          <g key={length.id} stroke={colour} fill={colour}>
            <Arrow from={p} to={[p[0] - ux * off, p[1] - uy * off]} />
            <Arrow from={q} to={[q[0] + ux * off, q[1] + uy * off]} />
            <text
              x={besideLine(p, q)[0]}
              y={besideLine(p, q)[1] + 4}
              textAnchor="middle"
              fontSize="12"
              stroke="#fdfcfa"
              strokeWidth="4"
              paintOrder="stroke"
            >
              {difference(result.residualMm)}
              {unitWord()}
            </text>
          </g>
        );
      })}
    </g>
  );
}

function Arrow({ from, to }: { from: XY; to: XY }) {
  const angle = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
  const length = Math.hypot(to[0] - from[0], to[1] - from[1]);
  if (length < 1.5) return <circle cx={from[0]} cy={from[1]} r={3} />;
  return (
    <g transform={`translate(${from[0]} ${from[1]}) rotate(${angle})`}>
      <line x1={0} x2={length} y1={0} y2={0} strokeWidth={3.4} />
      <path d={`M${length + 5} 0L${length - 4} -5.5V5.5Z`} stroke="none" />
    </g>
  );
}

function onPage(
  [i, j]: XY,
  page: { width: number; height: number },
  columns: number,
  rows: number,
  at: (x: number, y: number) => XY,
): XY {
  return at((page.width * i) / (columns - 1), (page.height * j) / (rows - 1));
}

/** One place on each line of equal value for its figure. */
function labelled(lines: readonly (readonly [XY, XY])[]): XY[] {
  const top = lines.reduce<XY | null>((best, [p]) => (best === null || p[1] < best[1] ? p : best), null);
  return top ? [top] : [];
}

/** Four to six round values between the least and the greatest. */
function levelsFor(values: readonly number[]): number[] {
  const [least, greatest] = [Math.min(...values), Math.max(...values)];
  const raw = (greatest - least) / 5;
  if (!(raw > 0)) return [];
  const ten = 10 ** Math.floor(Math.log10(raw));
  const step = [1, 2, 5, 10].map((f) => f * ten).find((s) => s >= raw) ?? 10 * ten;
  const levels: number[] = [];
  for (let v = Math.ceil(least / step) * step; v <= greatest; v += step) if (v > 0) levels.push(v);
  return levels;
}
