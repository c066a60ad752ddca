import { useState } from "react";
import type { Place } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { inOrder } from "../../../store/rows";
import { difference, fine, unitWord } from "../../../ui/measures";
import { Field, OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { SelectRow } from "../../SelectRow";
import { removeRow } from "../removing";
import { decide, spanOf, spanWords, tracedMm, useHolds } from "./figures";

const DECIDED = { open: "not decided", figure: "the figure holds", ink: "the ink holds", site: "the site size holds" };

/** Figures between faces of a storey, each with what is traced and what was decided. */
export function FigureRows({ storey }: Place) {
  const rows = useProject((s) => s.rows);
  const figures = inOrder(rows.figure.values()).filter((f) => f.storey === storey);
  return (
    <>
      {figures.map((figure) => {
        const now = tracedMm(rows, spanOf(figure));
        const off = now === null ? null : now - figure.mm;
        const quiet = off !== null && Math.abs(off) < 0.5;
        return (
          <SelectRow key={figure.id} type="figure" id={figure.id}>
            <span>
              <span className="font-semibold text-plum">{figure.text}</span>{" "}
              <span className="text-[13px] text-quiet">
                {spanWords(rows, spanOf(figure))} · {DECIDED[figure.decided]}
              </span>
            </span>
            <span className={`shrink-0 text-[13px] ${quiet ? "text-quiet" : "text-ochre"}`}>
              {off === null ? "not parallel now" : quiet ? "as traced" : `traced ${difference(off)}`}
            </span>
          </SelectRow>
        );
      })}
    </>
  );
}

/** A figure being decided: what the drawing says, what the ink says, what was measured on site, and why one of them holds. */
export function SelectedFigure({ id }: { id: string }) {
  const rows = useProject((s) => s.rows);
  const holds = useHolds((s) => s.face);
  const figure = rows.figure.get(id);
  if (!figure) return null;
  const now = tracedMm(rows, spanOf(figure));
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label={`Figure ${figure.text}`}>
      <div className="flex items-baseline justify-between text-plum">
        <span className="text-lg font-bold">{figure.text}</span>
        <span className="text-lg font-semibold">{now === null ? "" : fine(now, 1)}</span>
      </div>
      <p className="text-quiet">
        {spanWords(rows, spanOf(figure))}, as traced now{unitWord() && `,${unitWord()}`}
      </p>
      <table className="mt-2 w-full">
        <tbody>
          <Said words="figured" mm={figure.mm} against={now} />
          <Said words="by the ink" mm={figure.tracedMm} against={now} />
          <Said words="on site" mm={figure.siteMm} against={now} />
        </tbody>
      </table>
      {figure.decided === "open" && now !== null && Math.abs(now - figure.mm) >= 0.5 && (
        <p className="mt-2 text-ochre">
          Nothing has moved yet. What holds? If the figure does, {whatMoves(figure, holds)} by{" "}
          {difference(figure.mm - now)}
          {unitWord()}.
        </p>
      )}
      <div className="mt-2">
        <OneOf
          label="What holds"
          value={figure.decided}
          of={[
            ["figure", "figure"],
            ["ink", "ink"],
            ["site", "site"],
            ["open", "open"],
          ]}
          set={(decided) => void decide(id, { decided, moves: useHolds.getState().face === "a" ? "b" : "a" })}
        />
      </div>
      {figure.opening === null && <Holds />}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <Typed label="figure" value={figure.text} set={(text) => void decide(id, { text })} />
        <SiteSize figure={figure} />
      </div>
      <Reason figure={figure} />
      <div className="mt-2">
        <Plain danger onClick={() => removeRow("figure", id, `Remove figure ${figure.text}`)}>
          Remove
        </Plain>
      </div>
    </section>
  );
}

/** What a figure would change. */
function whatMoves(figure: Thing<"figure">, holds: "a" | "b"): string {
  if (figure.opening !== null) return "the opening changes, its middle staying,";
  if (figure.a === figure.b) return `the wall’s ${holds === "a" ? "end" : "beginning"} moves`;
  return `the ${holds === "a" ? "second" : "first"} wall moves, with what ends on it,`;
}

function Said({ words, mm, against }: { words: string; mm: number | null; against: number | null }) {
  const off = mm === null || against === null ? null : against - mm;
  return (
    <tr>
      <td className="py-0.5 text-quiet">{words}</td>
      <td className="text-right text-[15px]">{mm === null ? "–" : fine(mm, mm % 1 === 0 ? 0 : 1)}</td>
      <td className={`w-20 text-right ${off !== null && Math.abs(off) >= 0.5 ? "text-ochre" : "text-quiet"}`}>
        {off === null ? "" : Math.abs(off) < 0.5 ? "holds" : difference(-off)}
      </td>
    </tr>
  );
}

/** Which of the two faces stays where it is. */
export function Holds() {
  const holds = useHolds((s) => s.face);
  return (
    <div className="mt-2 flex items-center gap-2 text-[13px] text-quiet">
      stays
      <OneOf
        label="Face that stays"
        value={holds}
        of={[
          ["a", "the first"],
          ["b", "the second"],
        ]}
        set={(face) => useHolds.setState({ face })}
      />
    </div>
  );
}

function SiteSize({ figure }: { figure: Thing<"figure"> }) {
  const [text, setText] = useState(figure.siteText);
  const done = () => {
    if (text !== figure.siteText) void decide(figure.id, { siteText: text });
  };
  return (
    <Field
      label="size on site"
      value={text}
      onChange={setText}
      onBlur={done}
      onKeyDown={(e) => {
        if (e.key === "Enter") done();
      }}
    />
  );
}

function Reason({ figure }: { figure: Thing<"figure"> }) {
  const [text, setText] = useState(figure.reason);
  return (
    <div className="mt-2 flex">
      <Field
        label="why it was decided so"
        value={text}
        maxLength={400}
        onChange={setText}
        onBlur={() => {
          if (text !== figure.reason) void decide(figure.id, { reason: text });
        }}
      />
    </div>
  );
}
