import { useDesk } from "../../../board/desk";
import { ask, useProject } from "../../../store/project";
import { isUnderWay, workKey } from "../../../store/work";
import { plusMinus, written } from "../../../ui/measures";
import { count, sureness } from "../../../ui/numbers";
import { NextThing, Plain } from "../../../ui/parts";
import { Work } from "../../../ui/Work";
import { type ProposedWall, refuse, useFound, useLook } from "../../searches";
import { accept, useProbed } from "./proposals";

/** Walls as the ink has them: one by a click, or all that a drawing shows. */
export function InkPanel() {
  const drawing = useDesk((s) => s.drawing);
  return drawing === null ? null : <Of drawing={drawing} />;
}

function Of({ drawing }: { drawing: string }) {
  const { proposals, looked } = useFound();
  const probed = useProbed((s) => s.words);
  const work = useProject((s) => s.work.get(workKey("find-walls", drawing)));
  const fit = useProject((s) => s.rows.fit.get(drawing));
  useLook("proposals", drawing, work, fit);
  const told = proposals?.of === drawing ? proposals.told : null;
  // Where it was stopped or has failed, the way to begin again stands there.
  const isEnded = work === undefined || work.state === "done";
  const walls = [...(told?.walls ?? [])].sort((a, b) => a.confidence - b.confidence);
  const sure = walls.filter((w) => w.sure);
  const doubtful = walls.filter((w) => !w.sure);
  const columns = told?.columns.length ?? 0;
  const openings = told?.openings.filter((o) => o.sure && sure.some((w) => w.id === o.wall)).length ?? 0;
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="From the ink">
      <p className="text-quiet">Click on a drawn wall to lay a wall on it with its thickness.</p>
      {probed && (
        <p className="mt-1" role="status">
          {probed}
        </p>
      )}
      <Work kind="find-walls" about={drawing} />
      {told && !told.found && isEnded && (
        <NextThing onClick={() => void ask("find-walls", drawing)}>Find the walls of the whole drawing</NextThing>
      )}
      {told?.found && !isUnderWay(work) && (
        <>
          <p className="mt-2">
            {sure.length + columns === 0
              ? doubtful.length > 0
                ? "Nothing sure is left to accept."
                : "Nothing found is left to accept."
              : `${count(sure.length, "wall")}, ${count(openings, "opening")}${columns > 0 ? `, ${count(columns, "column")}` : ""} found. Click one, or Shift and drag an area; with Alt it refuses.`}
          </p>
          {sure.length + columns > 0 && <NextThing onClick={() => void accept(null)}>Accept all of them</NextThing>}
          <div className="mt-2 flex flex-wrap gap-1.5">
            {isEnded && <Plain onClick={() => void ask("find-walls", drawing)}>Look again</Plain>}
            {told.refused > 0 && (
              <Plain onClick={() => void refuse("proposals", drawing, [])}>{`Take back ${told.refused} refused`}</Plain>
            )}
          </div>
          {doubtful.length > 0 && (
            <>
              <h3 className="mt-3 font-semibold">{count(doubtful.length, "doubtful one")}</h3>
              <p className="text-quiet">Drawn dotted. Not accepted with the others: look at each.</p>
              <Walls walls={doubtful} drawing={drawing} looked={looked} />
            </>
          )}
          <Walls walls={sure} drawing={drawing} looked={looked} />
        </>
      )}
    </section>
  );
}

function Walls({ walls, drawing, looked }: { walls: readonly ProposedWall[]; drawing: string; looked: string | null }) {
  return (
    <ul className="mt-2">
      {walls.map((w) => (
        <li
          key={w.id}
          className={`flex items-center justify-between gap-2 border-t border-line py-1 ${looked === w.id ? "bg-sheet" : ""}`}
          onPointerEnter={() => useFound.setState({ looked: w.id })}
          onPointerLeave={() => useFound.setState({ looked: null })}
        >
          <button
            type="button"
            className="text-left whitespace-nowrap"
            onFocus={() => useFound.setState({ looked: w.id })}
            onClick={() =>
              useDesk.setState((s) => ({
                view: {
                  ...s.view,
                  x: ((w.from[0] ?? 0) + (w.to[0] ?? 0)) / 2,
                  y: ((w.from[1] ?? 0) + (w.to[1] ?? 0)) / 2,
                },
              }))
            }
          >
            {written(Math.hypot((w.to[0] ?? 0) - (w.from[0] ?? 0), (w.to[1] ?? 0) - (w.from[1] ?? 0)))}
            <span className="text-quiet"> · {sureness(w.confidence)}</span>
            <span className="block text-quiet">
              {written(w.thickness)} {plusMinus(w.plusMinusMm)} thick
            </span>
          </button>
          <span className="flex gap-1">
            <Plain onClick={() => void accept([w.id])}>Accept</Plain>
            <Plain onClick={() => void refuse("proposals", drawing, [w.id])}>Refuse</Plain>
          </span>
        </li>
      ))}
    </ul>
  );
}
