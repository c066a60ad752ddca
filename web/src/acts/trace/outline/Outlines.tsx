import { useDesk } from "../../../board/desk";
import { RUST, Tag, TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { here } from "../../../store/drawn";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area } from "../../../ui/measures";
import { PlacesSeen } from "../../PlacesSeen";
import { edgesOf } from "./corners";
import { useOutline } from "./useOutline";
import { useRoof } from "./useRoof";

/** Outlines of the storey or side at hand. */
export function Outlines({ screen }: { screen: Map2 }) {
  const outlines = useProject((s) => s.rows.outline);
  return (
    <PlacesSeen
      screen={screen}
      of={(place, at) => here(outlines.values(), place).map((o) => <Traced key={o.id} outline={o} screen={at} />)}
    />
  );
}

function Traced({ outline, screen }: { outline: Thing<"outline">; screen: Map2 }) {
  const { corners, answer } = useOutline(outline);
  const selected = useDesk((s) => s.selected?.id === outline.id);
  // Floors and roofs lie over all that is drawn: they are told where they are worked on.
  const isQuiet = useDesk((s) => s.act !== "outline") && outline.kind !== "face";
  const ring = edgesOf(corners).flatMap((chain) => chain.slice(0, -1).map((p) => apply(screen, p)));
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
        fillOpacity={outline.kind === "void" ? 0 : isQuiet && !selected ? 0.015 : 0.07}
        stroke={colour}
        strokeWidth={selected ? 3.5 : isQuiet ? 1.2 : 2}
        {...(wrong ? { strokeDasharray: "4 3" } : outline.kind === "face" ? {} : { strokeDasharray: "14 4" })}
      />
      {outline.kind === "void" && <Cross ring={ring} />}
      {outline.kind === "roof" && <RoofLines outline={outline} screen={screen} />}
      {(wrong || (!selected && !isQuiet)) && ( // selected it says so in the ledger, and its handles are free
        <Tag
          at={outline.kind === "face" ? [x, y] : (ring[0] ?? [x, y])}
          text={
            wrong ? `${outline.name} crosses itself` : `${outline.name} ${answer?.areaM2 ? area(answer.areaM2) : ""}`
          }
          colour={colour}
        />
      )}
    </g>
  );
}

/** Ridges, hips and valleys as they are seen from above, and where the eaves run. */
function RoofLines({ outline, screen }: { outline: Thing<"outline">; screen: Map2 }) {
  const { roof } = useRoof(outline);
  const at = ([x = 0, y = 0]: readonly number[]) => apply(screen, [x, y]);
  return (
    <g stroke={TEAL} fill="none">
      {roof?.eaves.map((ring) => (
        <polygon key={`${ring[0]}`} points={ring.map(at).join(" ")} strokeDasharray="7 4" />
      ))}
      {roof?.lines
        .filter((l) => l.kind !== "seam")
        .map((l) => {
          const [p, q] = [at(l.from), at(l.to)];
          return (
            <line
              key={`${l.from}${l.to}`}
              x1={p[0]}
              y1={p[1]}
              x2={q[0]}
              y2={q[1]}
              strokeWidth={l.kind === "ridge" ? 2 : 1.3}
              strokeDasharray={l.kind === "valley" ? "5 3" : undefined}
            />
          );
        })}
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
