import { useMemo } from "react";
import type { Operation } from "../../api/client";
import { newId } from "../../api/ids";
import { useDesk } from "../../board/desk";
import { lookAt } from "../../board/views";
import { apply, type Map2 } from "../../geometry/maps";
import { ask, change, useProject } from "../../store/project";
import { isUnderWay, workKey } from "../../store/work";
import { inWords, plusMinus, written } from "../../ui/measures";
import { count, sureness } from "../../ui/numbers";
import { Link, Plain } from "../../ui/parts";
import { Work } from "../../ui/Work";
import { refuse, type ShownOpening, useFound, useLook } from "../searches";

const PENCIL = "#4b5560";

/** Openings that the picture of a side shows are traced: each becomes an outline of its own, with its ±. */
export function tracing(side: string, drawing: string, openings: readonly ShownOpening[], there: number): Operation[] {
  return openings.flatMap((o, i): Operation[] => {
    const outline = newId();
    const ring = [
      [o.leftMm, o.sillMm],
      [o.rightMm, o.sillMm],
      [o.rightMm, o.headMm],
      [o.leftMm, o.headMm],
    ] as const;
    const name = `Opening ${there + i + 1}`;
    return [
      {
        do: "add",
        type: "outline",
        id: outline,
        values: { side, storey: null, kind: "face", name, thickness: null, top: null, plusMinusMm: o.plusMinusMm },
      },
      ...ring.map(
        ([x, y], order): Operation => ({
          do: "add",
          type: "outlineCorner",
          id: newId(),
          values: { outline, drawing, order, x, y },
        }),
      ),
    ];
  });
}

/** What the picture of a side shows of openings, as far as none is traced there: found by one click, traced by another. */
export function FacadeOpenings({ side, drawing }: { side: string; drawing: string }) {
  const facade = useFound((s) => s.facade);
  const looked = useFound((s) => s.looked);
  const work = useProject((s) => s.work.get(workKey("find-openings", drawing)));
  const fit = useProject((s) => s.rows.fit.get(drawing));
  const outlines = useProject((s) => s.rows.outline);
  // What is traced, and where the drawing lies, say which of it is new.
  const shown = useMemo(() => ({ fit, outlines }), [fit, outlines]);
  useLook("facade", drawing, work, shown);
  const told = facade?.of === drawing ? facade.told : null;
  const openings = [...(told?.openings ?? [])].sort((a, b) => a.leftMm - b.leftMm);
  const sure = openings.filter((o) => o.sure);
  const there = [...outlines.values()].filter((o) => o.side === side).length;
  const trace = (wanted: readonly ShownOpening[]) =>
    void change(wanted.length === 1 ? "Trace an opening" : "Trace openings", tracing(side, drawing, wanted, there));
  const isIdle = work === undefined || work.state === "done";
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Openings in the picture">
      <Work kind="find-openings" about={drawing} />
      {told && isIdle && (
        <div className="flex flex-wrap items-center gap-2">
          <Plain onClick={() => void ask("find-openings", drawing)}>
            {told.found ? "Look again" : "Find the openings in the picture"}
          </Plain>
          {sure.length > 1 && <Plain onClick={() => trace(sure)}>{`Trace all ${sure.length} that are sure`}</Plain>}
          {told.found && openings.length === 0 && <span className="text-quiet">Nothing found is left to trace.</span>}
          {told.refused > 0 && (
            <Link onClick={() => void refuse("facade", drawing, [])}>take back {told.refused} refused</Link>
          )}
        </div>
      )}
      {told?.found && !isUnderWay(work) && openings.length > 0 && (
        <>
          <p className="mt-2 text-quiet">
            {count(sure.length, "opening")} found
            {openings.length > sure.length ? `, ${openings.length - sure.length} more in doubt` : ""}.
          </p>
          <ul className="mt-1">
            {openings.map((o) => (
              <li
                key={o.id}
                className={`flex items-center justify-between gap-2 border-t border-line py-1 ${looked === o.id ? "bg-sheet" : ""}`}
                onPointerEnter={() => useFound.setState({ looked: o.id })}
                onPointerLeave={() => useFound.setState({ looked: null })}
              >
                <button
                  type="button"
                  className="text-left"
                  onFocus={() => useFound.setState({ looked: o.id })}
                  onClick={() => lookAt([(o.leftMm + o.rightMm) / 2, (o.sillMm + o.headMm) / 2])}
                >
                  {written(o.rightMm - o.leftMm)} × {inWords(o.headMm - o.sillMm)}
                  <span className="block text-quiet">
                    edges {plusMinus(o.plusMinusMm)} · {sureness(o.confidence)}
                  </span>
                </button>
                <span className="flex gap-1">
                  <Plain onClick={() => trace([o])}>Trace</Plain>
                  <Plain onClick={() => void refuse("facade", drawing, [o.id])}>Refuse</Plain>
                </span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}

/** The same on the board, in pencil until they are traced. */
export function FacadeMarks({ screen }: { screen: Map2 }) {
  const drawing = useDesk((s) => s.drawing);
  const { facade, looked } = useFound();
  if (!facade || facade.of !== drawing) return null;
  return (
    <g fill="none" stroke={PENCIL} pointerEvents="none" data-facade={facade.told.openings.length}>
      {facade.told.openings.map((o) => {
        const [x1, y1] = apply(screen, [o.leftMm, o.headMm]);
        const [x2, y2] = apply(screen, [o.rightMm, o.sillMm]);
        const isLooked = looked === o.id;
        return (
          <rect
            key={o.id}
            x={x1}
            y={y1}
            width={x2 - x1}
            height={y2 - y1}
            strokeWidth={isLooked ? 2.6 : 1.6}
            strokeDasharray={o.sure ? "9 3" : "2 4"}
            fill={isLooked ? "rgba(75, 85, 96, 0.28)" : o.sure ? "rgba(75, 85, 96, 0.12)" : "none"}
          />
        );
      })}
    </g>
  );
}
