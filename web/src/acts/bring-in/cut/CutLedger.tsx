import { useDrafted } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { DRAWING_KINDS, type DrawingKind, inOrder } from "../../../store/rows";
import { count } from "../../../ui/numbers";
import { Head, NextThing, Plain } from "../../../ui/parts";
import { addBox, type CutBox, dropBox, finishCut, focusBox, leaveCut, setBox } from "../cutting";

/** Names, kinds and places of the drawings that a page is being cut into. */
export function CutLedger() {
  const cutting = useDrafted("cut");
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
  const rows = useProject((s) => s.rows);
  const storeys = [...rows.storey.values()].sort((a, b) => a.elevation - b.elevation);
  const upright = box.kind === "elevation" || box.kind === "section";
  const setKind = (kind: DrawingKind) => {
    const stands = kind === "elevation" || kind === "section";
    const [side] = inOrder(rows.side.values());
    // Elevations and sections stand on a side, everything else lies on a storey.
    const place: CutBox["place"] =
      stands && (box.place === "new side" || "side" in box.place)
        ? box.place
        : stands
          ? side && !rows.storey.size
            ? { side: side.id }
            : "new side"
          : box.place !== "new side" && "storey" in box.place
            ? box.place
            : { storey: storeys[0]?.id ?? "" };
    setBox(index, { kind, place });
  };
  const value =
    box.place === "new side"
      ? "new side"
      : "storey" in box.place
        ? `storey ${box.place.storey}`
        : `side ${box.place.side}`;
  const setPlace = (chosen: string) => {
    const [type, id = ""] = chosen.split(" ");
    setBox(index, {
      place: chosen === "new side" ? "new side" : type === "storey" ? { storey: id } : { side: id },
    });
  };
  const field = "rounded border border-line bg-white px-1.5 py-1 text-[13px]";
  return (
    <fieldset className={`border-b border-line px-4 py-3 ${props.focused ? "bg-white" : ""}`} onFocus={props.onFocus}>
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
      <div className="mt-1.5 ml-8 flex gap-2">
        <select
          className={field}
          aria-label={`Kind of drawing ${index + 1}`}
          value={box.kind}
          onChange={(e) => setKind(e.target.value as DrawingKind)}
        >
          {DRAWING_KINDS.map((kind) => (
            <option key={kind}>{kind}</option>
          ))}
        </select>
        <select
          className={`min-w-0 flex-1 ${field}`}
          aria-label={`Place of drawing ${index + 1}`}
          value={value}
          onChange={(e) => setPlace(e.target.value)}
        >
          {!upright &&
            storeys.map((s) => (
              <option key={s.id} value={`storey ${s.id}`}>
                {s.name}
              </option>
            ))}
          {inOrder(rows.side.values()).map((s) => (
            <option key={s.id} value={`side ${s.id}`}>
              side {s.name}
            </option>
          ))}
          <option value="new side">a side of its own</option>
        </select>
      </div>
    </fieldset>
  );
}
