import type { ReactNode } from "react";
import { useDesk } from "../../board/desk";
import { PLUM, Tag } from "../../board/marks";
import { apply, type Map2 } from "../../geometry/maps";
import { distance, type XY } from "../../geometry/plane";
import { useProject } from "../../store/project";
import { inWords, said, written } from "../../ui/measures";
import { Plain } from "../../ui/parts";
import { EscapeLimits } from "./EscapeLimits";
import {
  enclosedWords,
  farWords,
  keyOf,
  leftAfter,
  passedWords,
  type Route,
  secondWords,
  stretchesOn,
  useShownWay,
  useWaysOut,
  waysOf,
} from "./waysOut";

/** From the worst place of every room of a storey, and down every stair, the way into the open air. */
export function WaysOut({ storey }: { storey: string }) {
  const ways = useWaysOut();
  const rows = useProject((s) => s.rows);
  if (ways === null) return null;
  const own = waysOf(ways.rooms, storey);
  const stairs = ways.stairs.filter((s) => s.storey === storey || s.route?.places[0]?.storey === storey);
  if (own.length === 0) return null;
  return (
    <section className="border-b border-line px-4 py-3 text-[13px]" aria-label="Ways out">
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">Ways out</span>
        <span className="text-quiet">from the worst place of each room</span>
      </div>
      {!ways.seconds && (
        <p className="text-quiet">Second ways are not looked for: it has too many exits for its size.</p>
      )}
      <EscapeLimits />
      {own.map((way) => {
        const route = way.toFinal ?? way.toExit;
        return (
          <Way key={keyOf(way)} shown={keyOf(way)} name={way.name || "Not named"} far={farWords(way)} route={route}>
            {route && (
              <p className="text-quiet">
                {sentences(passedWords(route, rows), enclosedWords(route, rows))} {secondWords(way, rows)}
              </p>
            )}
            {way.openAbove && <p className="text-quiet">Open to the storey above.</p>}
            {way.broken.map((b) => (
              <p key={b.measure} className="text-rust">
                {said(b.message)}
              </p>
            ))}
          </Way>
        );
      })}
      {stairs.map(({ stair, fireClass, route }) => (
        <Way
          key={stair}
          shown={stair}
          name={`Down the stair${fireClass === null ? "" : `, in ${rows.fireClass.get(fireClass)?.name}`}`}
          far={route ? `${inWords(route.mm)} into the open air` : "no way into the open air"}
          route={route}
        >
          {route && <Protected route={route} />}
        </Way>
      ))}
    </section>
  );
}

/** Parts of one sentence, those that say something. */
const sentences = (...parts: string[]) => `${parts.filter((p) => p !== "").join("; ")}.`;

/** Whether who comes down a stair stays enclosed until they are out. */
function Protected({ route }: { route: Route }) {
  const rows = useProject((s) => s.rows);
  const after = leftAfter(route);
  const fireClass = rows.fireClass.get(route.enclosed[0]?.fireClass ?? "")?.name;
  if (after === 0 || fireClass === undefined) return <p className="text-quiet">Nothing encloses the stair.</p>;
  return after === null ? (
    <p className="text-quiet">Enclosed by {fireClass} until the open air.</p>
  ) : (
    <p className="text-rust">
      It leaves {fireClass} after {inWords(after)}, {inWords(route.mm - after)} before the open air.
    </p>
  );
}

function Way(props: { shown: string; name: string; far: string; route: Route | null; children: ReactNode }) {
  const { shown, name, far, route, children } = props;
  const isShown = useShownWay((s) => s.key === shown);
  return (
    <div className="border-t border-line py-1.5 first-of-type:mt-1">
      <div className="flex items-start justify-between gap-2">
        <p>
          <span className="font-semibold">{name}</span> <span className={route ? "" : "text-rust"}>{far}</span>
        </p>
        {route && (
          <Plain pressed={isShown} onClick={() => useShownWay.setState({ key: isShown ? null : shown })}>
            Show the way
          </Plain>
        )}
      </div>
      {children}
    </div>
  );
}

/** The way that is shown, as far as it lies on the storey at hand: from a dot to an arrow, with its whole length. */
export function WayOnBoard({ screen }: { screen: Map2 }) {
  const storey = useDesk((s) => s.storey);
  const ways = useWaysOut();
  const { key } = useShownWay();
  const way = ways?.rooms.find((w) => keyOf(w) === key);
  const route = way?.toFinal ?? way?.toExit ?? ways?.stairs.find((s) => s.stair === key)?.route;
  if (!route) return null;
  const stretches = stretchesOn(route, storey).map((s) => s.map((p) => apply(screen, p)));
  return (
    <g stroke={PLUM} fill="none" strokeWidth={3} pointerEvents="none" data-way-out={key}>
      {stretches.map((stretch, i) => {
        const [tip, before] = [stretch.at(-1), stretch.at(-2)];
        return (
          // biome-ignore lint/suspicious/noArrayIndexKey: stretches have no other name
          <g key={i}>
            <polyline
              points={stretch.map((p) => p.join(",")).join(" ")}
              strokeDasharray="10 5"
              strokeLinejoin="round"
            />
            {tip && before && <Arrow from={before} to={tip} />}
            {i === 0 && stretch[0] && <circle cx={stretch[0][0]} cy={stretch[0][1]} r={5} fill={PLUM} />}
            {i === 0 && <Tag at={middleOf(stretch)} text={written(route.mm)} colour={PLUM} />}
          </g>
        );
      })}
    </g>
  );
}

function Arrow({ from, to }: { from: XY; to: XY }) {
  const turn = (Math.atan2(to[1] - from[1], to[0] - from[0]) * 180) / Math.PI;
  return <path d="M3 0 L-11 -6 L-11 6 Z" transform={`translate(${to}) rotate(${turn})`} fill={PLUM} stroke="none" />;
}

/** The place half way along it. */
function middleOf(line: readonly XY[]): XY {
  const whole = line.reduce((sum, p, i) => sum + distance(line[Math.max(0, i - 1)] ?? p, p), 0);
  let left = whole / 2;
  for (let i = 1; i < line.length; i++) {
    const [a, b]: readonly XY[] = [line[i - 1] ?? [0, 0], line[i] ?? [0, 0]];
    if (!a || !b) break;
    const length = distance(a, b);
    if (length >= left && length > 0)
      return [a[0] + ((b[0] - a[0]) * left) / length, a[1] + ((b[1] - a[1]) * left) / length];
    left -= length;
  }
  return line[0] ?? [0, 0];
}
