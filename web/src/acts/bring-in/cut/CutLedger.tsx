import { useDrafted } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { count } from "../../../ui/numbers";
import { Head, NextThing, Plain } from "../../../ui/parts";
import { Work } from "../../../ui/Work";
import { addBox, type CutBox, dropBox, finishCut, focusBox, leaveCut, nameByTitles, setBox, titled } from "../cutting";
import { PlaceFields } from "../PlaceFields";

/** Names, kinds and places of the drawings that a page is being cut into. */
export function CutLedger() {
  const cutting = useDrafted("cut");
  const rows = useProject((s) => s.rows);
  const pages = useProject((s) => s.pages);
  if (!cutting) return null;
  const n = cutting.boxes.length;
  return (
    <>
      <Head
        title={count(n, "drawing")}
        next={
          <NextThing onClick={() => void finishCut()}>
            {n === 1 ? "Crop to this box" : `Cut into ${count(n, "drawing")}`}
          </NextThing>
        }
      >
        Drag the edges, or move a grip with the arrow keys. What is trued stays trued.
      </Head>
      <div className="min-h-0 flex-1 overflow-y-auto">
        <div className="px-4 text-[13px]">
          <Work kind="find-way-up" about={cutting.page} />
        </div>
        {titled({ rows, pages }, cutting).some((said) => said.name !== undefined) && (
          <div className="border-b border-line px-4 py-2">
            <Plain onClick={nameByTitles}>Name and place them by their titles</Plain>
          </div>
        )}
        {cutting.boxes.map((box, i) => (
          <BoxRow
            key={box.drawing ?? `new ${i}`}
            box={box}
            index={i}
            focused={i === cutting.focused}
            canGo={n > 1}
            onFocus={() => focusBox(i)}
          />
        ))}
      </div>
      <footer className="flex gap-2 border-t border-line px-4 py-3">
        <Plain onClick={addBox}>Another box</Plain>
        <Plain onClick={leaveCut}>Leave as it was</Plain>
      </footer>
    </>
  );
}

function BoxRow(props: { box: CutBox; index: number; focused: boolean; canGo: boolean; onFocus: () => void }) {
  const { box, index } = props;
  const field = "rounded border border-line bg-white px-1.5 py-1 text-[13px]";
  return (
    <fieldset
      className={`min-w-0 border-b border-line px-4 py-3 ${props.focused ? "bg-white" : ""}`}
      onFocus={props.onFocus}
    >
      <legend className="sr-only">Drawing {index + 1}</legend>
      <div className="flex items-center gap-2">
        <span className="flex size-6 shrink-0 items-center justify-center rounded-full border border-teal font-semibold text-teal">
          {index + 1}
        </span>
        <input
          className={`min-w-0 flex-1 font-semibold ${field}`}
          aria-label={`Name of drawing ${index + 1}`}
          value={box.name}
          maxLength={120}
          onChange={(e) => setBox(index, { name: e.target.value })}
        />
        {props.canGo && (
          <Plain danger onClick={() => dropBox(index)}>
            Drop
          </Plain>
        )}
      </div>
      <div className="mt-1.5 ml-8">
        <PlaceFields
          kind={box.kind}
          place={box.place}
          name={box.name}
          of={`of drawing ${index + 1}`}
          set={(kind, place) => setBox(index, { kind, place })}
        />
      </div>
    </fieldset>
  );
}
