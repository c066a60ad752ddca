import { useState } from "react";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { count } from "../../../ui/numbers";
import { Link, Plain } from "../../../ui/parts";
import { Corrected, ReadSection, Strip } from "../../Read";
import { refuse, useFound, useToldReadings } from "../../searches";
import { sizeByFigures, takeFigure, takeScale } from "../figures";

/** Figures that were read, the longest first, with how far each is off by the fit there is. */
export function FiguresRead() {
  const drawing = useDesk((s) => s.drawing);
  return drawing === null ? null : <Of drawing={drawing} />;
}

function Of({ drawing }: { drawing: string }) {
  const told = useToldReadings(drawing);
  const looked = useFound((s) => s.looked);
  const rows = useProject((s) => s.rows);
  const guess = rows.fit.get(drawing)?.isGuess ?? true;
  const [corrected, setCorrected] = useState<Record<string, string>>({});
  const figures = [...(told?.figures ?? [])].sort((a, b) => b.mm - a.mm);
  return (
    <ReadSection
      label="Figures read"
      drawing={drawing}
      told={told}
      read="Read the drawing’s figures"
      says={figures.length > 0 ? `${count(figures.length, "figure")} read` : "no figure left to take"}
    >
      {figures.length > 1 && !guess && (
        <div className="mt-2">
          <Plain onClick={() => void sizeByFigures()}>{`Size the drawing by all ${figures.length}`}</Plain>
        </div>
      )}
      {told?.statedScale && rows.drawing.get(drawing)?.statedScale === null && (
        <p className="mt-2 text-quiet">
          It says 1:{told.statedScale} of itself.{" "}
          <Link onClick={() => void takeScale(drawing, told.statedScale)}>take it as its stated scale</Link>
        </p>
      )}
      <ul className="mt-2">
        {figures.map((f) => {
          const text = corrected[f.id] ?? f.text;
          const taken = text === f.text ? f : { ...f, typed: text };
          const off = (f.spanMm / f.mm - 1) * 100;
          return (
            <li
              key={f.id}
              className={`flex items-center gap-2 border-t border-line py-1 ${looked === f.id ? "bg-sheet" : ""}`}
              onPointerEnter={() => useFound.setState({ looked: f.id })}
              onPointerLeave={() => useFound.setState({ looked: null })}
            >
              <Strip box={f.box} upright={f.along === "y"} words={f.text} />
              <span className="min-w-0 flex-1">
                <Corrected
                  label={`Figure, read ${f.text}`}
                  text={text}
                  set={(now) => setCorrected((all) => ({ ...all, [f.id]: now }))}
                />
                {f.isBar && <span className="block px-1 text-quiet">scale bar</span>}
                {!guess && text === f.text && (
                  <span className={`block px-1 ${Math.abs(off) > 2 ? "text-rust" : "text-quiet"}`}>
                    {Math.abs(off) < 0.05 ? "" : off > 0 ? "+" : "−"}
                    {Math.abs(off).toFixed(1)} %
                  </span>
                )}
              </span>
              <span className="flex flex-col gap-0.5">
                <Link onClick={() => void takeFigure(taken, false)}>known</Link>
                <Link onClick={() => void takeFigure(taken, true)}>check</Link>
                <Link onClick={() => void refuse("readings", drawing, [f.id])}>refuse</Link>
              </span>
            </li>
          );
        })}
      </ul>
    </ReadSection>
  );
}
