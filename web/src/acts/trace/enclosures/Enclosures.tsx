import { useDesk } from "../../../board/desk";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { type Enclosed, type FireClass, type Hatch, useEnclosed } from "../../enclosed";

/** Directions of the lines of each hatch, degrees from level, and from line to line, px. */
const HATCHES: Record<Hatch, { turns: readonly number[]; apart: number }> = {
  rising: { turns: [-45], apart: 9 },
  falling: { turns: [45], apart: 9 },
  crossed: { turns: [45, -45], apart: 13 },
  upright: { turns: [90], apart: 9 },
  level: { turns: [0], apart: 9 },
  squared: { turns: [0, 90], apart: 13 },
  dense: { turns: [-45], apart: 4.5 },
  wide: { turns: [45], apart: 20 },
};
/** A class is told well clear of the name of its room. */
const ABOVE_PX = 42;

/** The lines of a hatch, to be named as the fill of anything. */
export function HatchPattern({ id, hatch, colour }: { id: string; hatch: Hatch; colour: string }) {
  const { turns, apart } = HATCHES[hatch];
  const [turn = 0] = turns;
  return (
    <pattern id={id} patternUnits="userSpaceOnUse" width={apart} height={apart} patternTransform={`rotate(${turn})`}>
      <path
        d={`M0 ${apart / 2}H${apart}${turns.length > 1 ? `M${apart / 2} 0V${apart}` : ""}`}
        stroke={colour}
        strokeWidth={1.1}
      />
    </pattern>
  );
}

/** A class as it looks in the key. */
export function HatchSwatch({ fireClass, wide = false }: { fireClass: FireClass; wide?: boolean }) {
  const id = `key-${fireClass.id}`;
  const width = wide ? 40 : 22;
  return (
    <svg width={width} height="15" className="inline-block shrink-0 align-[-3px]" aria-hidden="true">
      <HatchPattern id={id} hatch={fireClass.hatch} colour={fireClass.colour} />
      <rect x="1" y="1" width={width - 2} height="13" fill={fireClass.colour} fillOpacity="0.14" />
      <rect
        x="1"
        y="1"
        width={width - 2}
        height="13"
        fill={`url(#${id})`}
        stroke={fireClass.colour}
        strokeWidth="1.6"
      />
    </svg>
  );
}

/** What is enclosed on the storey at hand. */
function useHere() {
  const storey = useDesk((s) => s.storey);
  const rows = useProject((s) => s.rows);
  const { areas } = useEnclosed();
  return areas.flatMap((area) => {
    const row = rows.enclosure.get(area.enclosure);
    const fireClass = rows.fireClass.get(row?.fireClass ?? "");
    return row && fireClass && row.storey === storey ? [{ area, fireClass }] : [];
  });
}

/** Each class by its colour and its hatch. */
export function Enclosures({ screen }: { screen: Map2 }) {
  const selected = useDesk((s) => s.selected);
  return (
    <g pointerEvents="none">
      {useHere().map(({ area, fireClass }) => (
        <OneEnclosed
          key={area.enclosure}
          area={area}
          fireClass={fireClass}
          isSelected={selected?.id === area.enclosure}
          screen={screen}
        />
      ))}
    </g>
  );
}

/** Each class by its name, over stairs and furniture. */
export function EnclosureNames({ screen }: { screen: Map2 }) {
  return (
    <div className="pointer-events-none absolute inset-0 overflow-hidden">
      {useHere().map(({ area, fireClass }) => {
        const [x, y] = apply(screen, [area.at?.[0] ?? 0, area.at?.[1] ?? 0]);
        return (
          area.at && (
            <span
              key={area.enclosure}
              className="absolute -translate-x-1/2 -translate-y-1/2 rounded border-2 bg-sheet px-1.5 text-[13px] font-semibold"
              style={{ left: x, top: y - ABOVE_PX, borderColor: fireClass.colour }}
            >
              {fireClass.name}
            </span>
          )
        );
      })}
    </div>
  );
}

function OneEnclosed(props: {
  area: Enclosed["areas"][number];
  fireClass: FireClass;
  isSelected: boolean;
  screen: Map2;
}) {
  const { area, fireClass, isSelected, screen } = props;
  const at = ([x = 0, y = 0]: readonly number[]): XY => apply(screen, [x, y]);
  const rings = area.shapes.flatMap(({ outer, holes }) => [outer, ...holes]);
  const path = rings.map((ring) => `M${ring.map(at).join("L")}Z`).join("");
  const id = `enclosed-${area.enclosure}`;
  return (
    <g data-enclosure={fireClass.name}>
      <HatchPattern id={id} hatch={fireClass.hatch} colour={fireClass.colour} />
      <path d={path} fillRule="evenodd" fill={fireClass.colour} fillOpacity={0.1} />
      <path
        d={path}
        fillRule="evenodd"
        fill={`url(#${id})`}
        stroke={fireClass.colour}
        strokeWidth={isSelected ? 4 : 2}
        strokeLinejoin="round"
      />
    </g>
  );
}
