import { useDeskFields } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { JOINT, type Repeat, useRepeats } from "../../../board/patterns";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { type Finish, isUpright, type Surface, surfacesHere } from "./finishes";

/** Pieces that are smaller on the screen are not told apart: then the colour alone is laid. */
const LEAST_PX = 5;
/** How broad an upright surface is drawn along its wall, px. */
const BAND_PX = 6;

/** What has a finish on the storey at hand, as it lies in plan; upright ones along their walls. */
export function Finishes({ screen }: { screen: Map2 }) {
  const { storey, act, selected } = useDeskFields("storey", "act", "selected");
  const rows = useProject((s) => s.rows);
  const isShown = act === "finishes" || selected?.type === "surface";
  const surfaces = isShown ? surfacesHere(rows, storey).filter((s) => s.on !== "ceiling" || s.id === selected?.id) : [];
  const finishes = [...new Set(surfaces.map((s) => s.finish))].flatMap((id) => rows.finish.get(id) ?? []);
  const repeats = useRepeats(finishes);
  return (
    <>
      {surfaces.map((s) => {
        const finish = rows.finish.get(s.finish);
        return (
          finish && (
            <Laid
              key={s.id}
              surface={s}
              finish={finish}
              repeat={repeats.get(s.finish)}
              isSelected={s.id === selected?.id}
              screen={screen}
            />
          )
        );
      })}
    </>
  );
}

function Laid(props: {
  surface: Surface;
  finish: Finish;
  repeat: Repeat | undefined;
  isSelected: boolean;
  screen: Map2;
}) {
  const { surface, finish, repeat, isSelected, screen } = props;
  const { storey } = useDeskFields("storey");
  const shapes = useProject((s) => s.derived.get(storey ?? ""));
  const region = [...(shapes?.regions.values() ?? [])].find((r) => r.id === surface.room && r.id !== null);
  const at = ([x = 0, y = 0]: readonly number[]): XY => apply(screen, [x, y]);
  if (!region) {
    const faces = (shapes?.walls.get(surface.wall ?? "")?.stretches ?? []).map(
      (s) => s[surface.on === "left" ? "left" : "right"],
    );
    return (
      <>
        {faces.map((face, i) => (
          <polyline
            // biome-ignore lint/suspicious/noArrayIndexKey: stretches have no other name
            key={i}
            points={face.map(at).join(" ")}
            fill="none"
            stroke={isSelected ? TEAL : finish.colour}
            strokeWidth={BAND_PX}
          />
        ))}
      </>
    );
  }
  const path = [region.polygon, ...region.holes].map((ring) => `M${ring.map(at).join("L")}Z`).join("");
  const id = `laid-${surface.id}`;
  if (isUpright(surface)) {
    return (
      <g>
        <clipPath id={id}>
          <path d={path} clipRule="evenodd" />
        </clipPath>
        <path
          d={path}
          clipPath={`url(#${id})`}
          fill="none"
          stroke={isSelected ? TEAL : finish.colour}
          strokeWidth={2 * BAND_PX}
        />
      </g>
    );
  }
  const k = Math.hypot(screen[0], screen[3]);
  const isFine = repeat && Math.min(...repeat.size) * k >= LEAST_PX;
  const [a, b, c, d, e, f] = screen;
  return (
    <g fillOpacity={0.6}>
      {isFine && (
        <pattern
          id={id}
          patternUnits="userSpaceOnUse"
          width={repeat.size[0]}
          height={repeat.size[1]}
          patternTransform={`matrix(${a} ${d} ${b} ${e} ${c} ${f}) translate(${surface.x} ${surface.y}) rotate(${surface.degrees})`}
        >
          <rect width={repeat.size[0]} height={repeat.size[1]} fill={finish.colour} />
          <rect width={repeat.size[0]} height={repeat.size[1]} fill={JOINT.colour} fillOpacity={JOINT.alpha} />
          {repeat.pieces.map(([x1 = 0, y1 = 0, x2 = 0, y2 = 0]) => (
            <rect key={`${x1} ${y1}`} x={x1} y={y1} width={x2 - x1} height={y2 - y1} fill={finish.colour} />
          ))}
        </pattern>
      )}
      <path
        d={path}
        fillRule="evenodd"
        fill={isFine ? `url(#${id})` : finish.colour}
        stroke={isSelected ? TEAL : "none"}
        strokeWidth={2.4}
      />
    </g>
  );
}
