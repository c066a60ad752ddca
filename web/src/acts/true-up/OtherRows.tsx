import type { ReactNode } from "react";
import type { FitReport } from "../../api/client";
import { useProject } from "../../store/project";
import { inOrder } from "../../store/rows";
import { fine, fineInWords, written } from "../../ui/measures";
import { signed } from "../../ui/numbers";
import { Link } from "../../ui/parts";
import { removeStatement } from "../statements";
import { runsWith } from "./Statements";
import { leaveAsTaken } from "./squaring";

/** Rooms of known size, grid lines, placed points and the stated scale, each with how far it is off. */
export function OtherRows({ drawing, report }: { drawing: string; report: FitReport }) {
  const rows = useProject((s) => s.rows);
  const here = <T extends { id: string; drawing: string }>(things: Iterable<T>) =>
    inOrder(things).filter((t) => t.drawing === drawing);
  const all = here(rows.gridPick.values());
  const byInk = all.filter((l) => l.hand === "ink");
  // One act, one row.
  const lines = byInk.length > 1 ? all.filter((l) => l.hand !== "ink") : all;
  const off = (line: { id: string }) => Math.abs(report.grid.find((g) => g.id === line.id)?.residualDegrees ?? 0);
  return (
    <>
      {here(rows.rectangle.values()).map((room) => {
        const result = report.rectangles.find((r) => r.id === room.id);
        return (
          <Row
            key={room.id}
            title={`${room.width} × ${room.depth}`}
            colour={result?.suspect ? "text-rust" : "text-plum"}
            remove={() => void removeStatement("rectangle", room.id)}
          >
            {result &&
              `${room.standing} · fits ${fine(result.fittedWidthMm, 1)} × ${fine(result.fittedDepthMm, 1)}, ${Math.abs(result.offSquareDegrees).toFixed(2)}° off square`}
          </Row>
        );
      })}
      {byInk.length > 1 && (
        <Row title="Straightened by its lines" colour="text-teal" remove={() => void leaveAsTaken(drawing)}>
          lines that run alongside each other are off by {Math.max(...byInk.map(off)).toFixed(3)}° at most
        </Row>
      )}
      {lines.map((line) => {
        const title =
          line.hand === "picked"
            ? runsWith(line).replace(/^./, (c) => c.toUpperCase())
            : line.hand === "ink"
              ? "Squared by the ink"
              : "Turned by hand";
        return (
          <Row key={line.id} title={title} colour="text-teal" remove={() => void removeStatement("gridPick", line.id)}>
            off by {off(line).toFixed(3)}°
          </Row>
        );
      })}
      {here(rows.controlPoint.values()).map((point) => {
        const result = report.points.find((p) => p.id === point.id);
        return (
          <Row
            key={point.id}
            title={`Placed at ${point.text}`}
            colour={result?.suspect ? "text-rust" : "text-plum"}
            remove={() => void removeStatement("controlPoint", point.id)}
          >
            {written(point.x)}, {written(point.y)} · off by {fineInWords(result?.residualMm ?? 0, 1)}
          </Row>
        );
      })}
      {report.statedScale && (
        <Row title="Stated scale" colour={report.statedScale.suspect ? "text-rust" : "text-plum"}>
          the drawing comes out at {(100 / report.statedScale.ratio).toFixed(1)} % of it (
          {signed(100 * (1 / report.statedScale.ratio - 1))} %)
        </Row>
      )}
    </>
  );
}

function Row(props: { title: string; colour: string; children: ReactNode; remove?: () => void }) {
  return (
    <div className="flex items-center justify-between gap-2 border-b border-line px-4 py-2">
      <div className="min-w-0">
        <div className={`font-semibold ${props.colour}`}>{props.title}</div>
        <div className="text-[13px] text-quiet">{props.children}</div>
      </div>
      {props.remove && <Link onClick={props.remove}>Remove</Link>}
    </div>
  );
}
