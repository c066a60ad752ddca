import type { Account } from "../../api/client";
import { useDesk, useDeskFields } from "../../board/desk";
import { chooseDrawing, choosePlace } from "../../board/place";
import { showTraced, showWholePage } from "../../board/views";
import { drawingsOn } from "../../store/drawings";
import { redo, undo, useProject, useProjectFields } from "../../store/project";
import { inOrder } from "../../store/rows";
import { storeysInOrder } from "../../store/storeys";
import { SHOWN_IN, showAllIn } from "../../store/units";
import { AccountMenu } from "../account/AccountMenu";
import { Others } from "./Others";
import { ProjectPanel } from "./ProjectPanel";
import { SharePanel } from "./SharePanel";
import { StoreysPanel } from "./StoreysPanel";

export function TopBar({ account, onSignedOut }: { account: Account; onSignedOut: () => void }) {
  const { rows, revision, steps, waiting, preparing, held } = useProjectFields(
    "rows",
    "revision",
    "steps",
    "waiting",
    "preparing",
    "held",
  );
  const { storey, side, drawing } = useDeskFields("storey", "side", "drawing");
  const [project] = rows.project.values();
  const storeys = storeysInOrder();
  const drawings = drawingsOn(rows, { storey, side });
  const sides = inOrder(rows.side.values());
  return (
    <header className="flex h-[46px] shrink-0 items-center gap-3 border-b border-line px-4 whitespace-nowrap max-[1120px]:gap-2">
      <a href="#/" className="max-w-56 truncate max-[1120px]:max-w-40 text-[16px] font-bold" title="All projects">
        {project?.name}
      </a>
      <ProjectPanel />
      <fieldset className="flex min-w-0 overflow-hidden rounded-lg border border-line bg-white" aria-label="Storeys">
        {storeys.map((s) => (
          <PlaceButton
            key={s.id}
            name={s.name}
            here={s.id === storey}
            go={() => choosePlace({ storey: s.id, side: null })}
          />
        ))}
      </fieldset>
      <StoreysPanel />
      {sides.length > FEW && (
        <select
          aria-label="Sides"
          className={`rounded-lg border border-line px-2 py-1 ${side === null ? "bg-white" : "bg-ink font-semibold text-white"}`}
          value={side ?? ""}
          onChange={(e) => choosePlace({ storey: null, side: e.target.value })}
        >
          {side === null && <option value="">Sides</option>}
          {sides.map((s) => (
            <option key={s.id} value={s.id}>
              {s.name}
            </option>
          ))}
        </select>
      )}
      {sides.length > 0 && sides.length <= FEW && (
        <fieldset className="flex min-w-0 overflow-hidden rounded-lg border border-line bg-white" aria-label="Sides">
          {sides.map((s) => (
            <PlaceButton
              key={s.id}
              name={s.name}
              here={s.id === side}
              go={() => choosePlace({ storey: null, side: s.id })}
            />
          ))}
        </fieldset>
      )}
      {drawings.length > 0 && (
        <label className="flex min-w-0 items-center gap-1.5 text-quiet">
          <span className="max-[1360px]:sr-only">working on</span>
          <select
            className="max-w-44 min-w-0 truncate bg-transparent text-ink underline"
            value={drawing ?? ""}
            onChange={(e) => {
              chooseDrawing(e.target.value);
              ((rows.fit.get(e.target.value)?.isGuess ?? true) ? showWholePage : showTraced)();
            }}
          >
            {drawings.map((d) => (
              <option key={d.id} value={d.id}>
                {d.name}
              </option>
            ))}
          </select>
        </label>
      )}
      <span className="flex-1" />
      <Others account={account.id} />
      <span className="text-quiet whitespace-nowrap" data-testid="saved" aria-live="polite">
        {waiting + preparing > 0 ? (held && waiting > 0 ? `${waiting} kept here` : "saving") : "saved"}
        {waiting + preparing === 0 && <span className="max-[1400px]:hidden"> · rev {revision}</span>}
      </span>
      <UnitChoice />
      <SharePanel />
      <StepButton words="Undo" title={steps.undo?.title ?? null} act={undo} />
      <StepButton words="Redo" title={steps.redo?.title ?? null} act={redo} />
      <button
        type="button"
        className="rounded border border-line bg-white px-2 py-0.5"
        onClick={() => useDesk.setState({ keysShown: true })}
      >
        <span className="max-[1120px]:sr-only">Keys </span>
        <kbd>?</kbd>
      </button>
      <AccountMenu account={account} onSignedOut={onSignedOut} />
    </header>
  );
}

/** So many sides have room beside the storeys. */
const FEW = 3;

/** In what all sizes are shown: can be changed at any time, and everything follows. */
function UnitChoice() {
  const [project] = useProject((s) => s.rows.project).values();
  const reads = useProject((s) => s.role === "read");
  if (!project) return null;
  return (
    <label className="flex items-center gap-1.5 text-quiet">
      <span className="max-[1360px]:sr-only">sizes in</span>
      <select
        className="field-sizing-content max-w-28 bg-transparent text-ink underline"
        disabled={reads}
        value={project.shows}
        onChange={(e) => void showAllIn(project.id, e.target.value as typeof project.shows)}
      >
        {SHOWN_IN.map(([unit, words]) => (
          <option key={unit} value={unit}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

function PlaceButton({ name, here, go }: { name: string; here: boolean; go: () => void }) {
  return (
    <button
      type="button"
      aria-pressed={here}
      title={name}
      className={`max-w-32 min-w-12 truncate px-3 py-1.5 max-[1120px]:px-2 ${here ? "bg-ink font-semibold text-white" : ""}`}
      onClick={go}
    >
      {name}
    </button>
  );
}

function StepButton(props: { words: string; title: string | null; act: () => Promise<unknown> }) {
  return (
    <button
      type="button"
      className="rounded border border-line bg-white px-2 py-0.5 disabled:border-transparent disabled:bg-transparent disabled:text-quiet"
      disabled={props.title === null}
      title={props.title === null ? undefined : `${props.words}: ${props.title}`}
      onClick={() => void props.act()}
    >
      {props.words}
    </button>
  );
}
