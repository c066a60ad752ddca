import { useState } from "react";
import { useDesk } from "../../../board/desk";
import { lookAt } from "../../../board/views";
import { ask, useProject } from "../../../store/project";
import { pointAlong, wallLine } from "../../../store/walls";
import { isUnderWay, workKey } from "../../../store/work";
import { plusMinus, written } from "../../../ui/measures";
import { count, sureness } from "../../../ui/numbers";
import { NextThing, Plain } from "../../../ui/parts";
import { Work } from "../../../ui/Work";
import { type Proposals, type ProposedWall, refuse, useFound, useLook } from "../../searches";
import { ALL, acceptable, type Choice as ChoiceOf, chosen, foundWords, thicknessesOf, wantedWords } from "./choosing";
import { accept, proposedCourse, useProbed } from "./proposals";

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
  const [choice, setChoice] = useState(ALL);
  const walls = [...(told?.walls ?? [])].sort((a, b) => a.confidence - b.confidence);
  const sure = walls.filter((w) => w.sure);
  const doubtful = walls.filter((w) => !w.sure);
  const inTraced = told?.inTraced ?? [];
  const wanted = told ? chosen(told, choice) : null;
  const some = wanted ? acceptable(wanted) : 0;
  const all = told ? acceptable(chosen(told, ALL)) : 0;
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
      {told?.found && wanted && !isUnderWay(work) && (
        <>
          <p className="mt-2">
            {all === 0
              ? doubtful.length > 0
                ? "Nothing sure is left to accept."
                : "Nothing found is left to accept."
              : `${foundWords(told)} found. Click one, or Shift and drag an area; with Alt it refuses.`}
          </p>
          {all > 0 && <Choice told={told} choice={choice} set={setChoice} />}
          {some > 0 && (
            <NextThing onClick={() => void accept(wanted)}>
              {some === all ? "Accept all of them" : `Accept these: ${wantedWords(wanted)}`}
            </NextThing>
          )}
          <div className="mt-2 flex flex-wrap gap-1.5">
            {isEnded && <Plain onClick={() => void ask("find-walls", drawing)}>Look again</Plain>}
            {told.refused > 0 && (
              <Plain onClick={() => void refuse("proposals", drawing, [])}>{`Take back ${told.refused} refused`}</Plain>
            )}
          </div>
          {inTraced.length > 0 && (
            <>
              <h3 className="mt-3 font-semibold">{`${count(inTraced.length, "opening")} in traced walls`}</h3>
              <ul className="mt-1">
                {inTraced.map((o) => (
                  <InTraced key={o.id} opening={o} drawing={drawing} isLooked={looked === o.id} />
                ))}
              </ul>
            </>
          )}
          {doubtful.length > 0 && (
            <>
              <h3 className="mt-3 font-semibold">{count(doubtful.length, "doubtful one")}</h3>
              <p className="text-quiet">Drawn dotted. Not accepted with the others: look at each.</p>
              <Walls walls={doubtful} drawing={drawing} looked={looked} />
            </>
          )}
          <Walls walls={sure.filter((w) => wanted.walls.includes(w.id))} drawing={drawing} looked={looked} />
        </>
      )}
    </section>
  );
}

/** Which of those found are meant: by kind, by how thick they are, by how sure. */
function Choice(props: { told: Proposals; choice: ChoiceOf; set: (choice: ChoiceOf) => void }) {
  const { told, choice, set } = props;
  const thicknesses = thicknessesOf(told.walls.filter((w) => w.sure));
  const openings = told.openings.some((o) => o.sure) || told.inTraced.length > 0;
  const toggled = (at: number) =>
    choice.without.includes(at) ? choice.without.filter((t) => t !== at) : [...choice.without, at];
  return (
    <fieldset className="mt-2 flex flex-wrap items-center gap-1.5" aria-label="Which of them">
      {thicknesses.length > 1 &&
        thicknesses.map(({ mm, walls }) => (
          <Plain
            key={mm}
            pressed={!choice.without.includes(mm)}
            onClick={() => set({ ...choice, without: toggled(mm) })}
          >{`${written(mm)} thick · ${walls.length}`}</Plain>
        ))}
      {openings && (
        <Plain pressed={choice.openings} onClick={() => set({ ...choice, openings: !choice.openings })}>
          openings
        </Plain>
      )}
      {told.columns.length > 0 && (
        <Plain pressed={choice.columns} onClick={() => set({ ...choice, columns: !choice.columns })}>
          columns
        </Plain>
      )}
      <select
        className="rounded border border-line bg-white px-1.5 py-0.5"
        aria-label="How sure"
        value={choice.least}
        onChange={(e) => set({ ...choice, least: Number(e.target.value) })}
      >
        <option value={0}>all that are sure</option>
        {[0.95, 0.98].map((least) => (
          <option key={least} value={least}>
            {`${sureness(least)} or surer`}
          </option>
        ))}
      </select>
    </fieldset>
  );
}

function InTraced(props: { opening: Proposals["inTraced"][number]; drawing: string; isLooked: boolean }) {
  const { opening, drawing, isLooked } = props;
  const look = () => useFound.setState({ looked: opening.id });
  return (
    <li
      className={`flex items-center justify-between gap-2 border-t border-line py-1 ${isLooked ? "bg-sheet" : ""}`}
      onPointerEnter={look}
      onPointerLeave={() => useFound.setState({ looked: null })}
    >
      <button
        type="button"
        className="text-left whitespace-nowrap"
        onFocus={look}
        onClick={() => {
          const line = wallLine(useProject.getState().rows, opening.wall);
          if (line) lookAt(pointAlong(line, opening.offset + opening.width / 2));
        }}
      >
        {opening.kind} {written(opening.width)}
        <span className="text-quiet"> · {sureness(opening.confidence)}</span>
      </button>
      <span className="flex gap-1">
        <Plain onClick={() => void accept({ walls: [], inTraced: [opening.id] })}>Accept</Plain>
        <Plain onClick={() => void refuse("proposals", drawing, [opening.id])}>Refuse</Plain>
      </span>
    </li>
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
            onClick={() => lookAt(pointAlong(proposedCourse(w), proposedCourse(w).length / 2))}
          >
            {written(proposedCourse(w).length)}
            <span className="text-quiet"> · {sureness(w.confidence)}</span>
            <span className="block text-quiet">
              {written(w.thickness)} {plusMinus(w.plusMinusMm)} thick
            </span>
          </button>
          <span className="flex gap-1">
            <Plain onClick={() => void accept({ walls: [w.id] })}>Accept</Plain>
            <Plain onClick={() => void refuse("proposals", drawing, [w.id])}>Refuse</Plain>
          </span>
        </li>
      ))}
    </ul>
  );
}
