import { useDeskFields } from "../../../board/desk";
import { ends, OCHRE, PLUM, RUST, Tag } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { middle, type XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { figureLine, spanOf, tracedMm } from "./figures";

/** A figure differs from what is traced when by more than this, mm. */
const SAME_MM = 0.5;

/** Figures: plum where they hold, ochre where something else was decided, rust where nothing was. */
export function Figures({ screen }: { screen: Map2 }) {
  const { storey, selected, act, step } = useDeskFields("storey", "selected", "act", "step");
  const rows = useProject((s) => s.rows);
  const show = act === "figures" || step === "prove" || selected?.type === "figure";
  return (
    <>
      {[...rows.figure.values()]
        .filter((f) => f.storey === storey && (show || f.decided === "open"))
        .map((f) => {
          const span = spanOf(f);
          const line = figureLine(rows, span);
          if (!line) return null;
          const now = tracedMm(rows, span);
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
    </>
  );
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
