import { useEffect, useRef, useState } from "react";
import type { FitReport, Schemas } from "../../api/client";
import { useDesk, useDrafted } from "../../board/desk";
import { levelling, Magnified } from "../../board/Lens";
import { fitMap } from "../../store/drawings";
import { attempt, useProject } from "../../store/project";
import type { Thing } from "../../store/rows";
import { difference, fine, overSpan, plusMinus, unitWord, written } from "../../ui/measures";
import { Link } from "../../ui/parts";
import { picksOf, removal, removeStatement, sendStatement } from "../statements";
import { audit } from "./audit";

const PLUM = "#6d2a63";
const OCHRE = "#855400";
const RUST = "#9c3414";
/** ms that the pointer rests on a row before it is asked what would hold without it */
const REST = 350;

export function LengthRow({ length, report }: { length: Thing<"knownLength">; report: FitReport }) {
  const isSite = useProject((s) => s.rows.drawing.get(length.drawing)?.kind === "site");
  const result = report.lengths.find((r) => r.id === length.id);
  const blamed = report.blamed?.id === length.id ? report.blamed : null;
  const [colour, ink] = result?.suspect
    ? (["text-rust", RUST] as const)
    : length.heldOut
      ? (["text-ochre", OCHRE] as const)
      : (["text-plum", PLUM] as const);
  const { without, rest, leave } = useWithout(length.id, report);
  const audited = useDrafted("audit")?.length === length.id;
  return (
    <fieldset
      className="min-w-0 border-b border-line px-4 py-2.5"
      aria-label={`Known length ${length.text}`}
      data-testid="known-length"
      onPointerEnter={() => {
        useDesk.setState({ selected: { type: "knownLength", id: length.id } });
        rest();
      }}
      onPointerLeave={() => {
        useDesk.setState({ selected: null });
        leave();
      }}
      onFocus={rest}
      onBlur={leave}
    >
      <div className={`flex items-baseline justify-between ${colour}`}>
        <span className="text-xl leading-6 font-bold">
          {length.text} {length.heldOut && <span className="text-[13px]">held out</span>}
        </span>
        <span className="text-base font-semibold">{result ? difference(result.residualMm) : "…"}</span>
      </div>
      <div className="flex justify-between gap-2 text-[13px] text-quiet">
        <span className="truncate">{whatItIs(length, isSite)}</span>
        <span className="whitespace-nowrap">
          {result ? `${length.heldOut ? "reads" : "fits"} ${fine(result.fittedMm, 1)}` : ""}
        </span>
      </div>
      {blamed && (
        <p className="text-[13px] text-rust">
          The rest would agree with {written(blamed.readsMm)} {plusMinus(blamed.plusMinusMm)}.
        </p>
      )}
      <Strip length={length} colour={ink} audited={audited} />
      <div className="mt-1 flex items-center justify-between gap-2">
        {result && <ResidualBar result={result} colour={ink} />}
        <span className="flex gap-2">
          <Link
            onClick={() =>
              void sendStatement(length.heldOut ? "Use a check length" : "Hold a length out", [
                { do: "set", type: "knownLength", id: length.id, values: { heldOut: !length.heldOut } },
              ])
            }
          >
            {length.heldOut ? "Use in the fit" : "Only check it"}
          </Link>
          <Link onClick={() => void removeStatement("knownLength", length.id)}>Remove</Link>
        </span>
      </div>
      {without && <p className="text-[13px] text-quiet">{without}</p>}
    </fieldset>
  );
}

function whatItIs(length: Thing<"knownLength">, isSite: boolean): string {
  const along = {
    straight: "",
    x: " · left to right only",
    y: " · up and down only",
    across: " · square across",
  }[length.along];
  const picked = length.picked !== length.ends ? ` · picked on ${length.picked}s, wall ${written(length.wall)}` : "";
  // Neither a scale bar nor a count runs between faces, and nothing does on a site.
  const isBetween = !isSite && length.standing !== "scale bar" && length.standing !== "module";
  const ends = isBetween ? ` · ${length.ends}s` : "";
  const standing = length.standing === "module" ? "counted" : length.standing;
  return `${standing}${ends}${along}${isBetween ? picked : ""}${length.wholePage ? " · whole page" : ""}`;
}

/** What would hold without a length, asked when the pointer or the focus rests on it. */
function useWithout(id: string, report: FitReport) {
  const [found, setFound] = useState<{ report: FitReport; words: string } | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const rest = () => {
    clearTimeout(timer.current);
    if (found?.report === report) return;
    timer.current = setTimeout(() => {
      attempt(removal("knownLength", id, picksOf("knownLength", id))).then(
        (tried) => {
          const [fit] = tried?.fits ?? [];
          if (!fit) return;
          const pm = fit.plusMinusMmPer10m;
          const scale = 100 * (fit.mmPerPixel / report.mmPerPixel - 1);
          const words =
            pm === null
              ? "Without it nothing would say the size."
              : `Without it ${plusMinus(pm)} over ${overSpan()}, and all would be ${scale >= 0 ? "+" : "−"}${Math.abs(scale).toFixed(3)} %.`;
          setFound({ report, words });
        },
        () => {},
      );
    }, REST);
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  return {
    without: found?.report === report ? found.words : null,
    rest,
    leave: () => {
      clearTimeout(timer.current);
      setFound(null);
    },
  };
}

/** The length in miniature, straightened, its middle left out; a click opens it in the broken-line lens. */
function Strip({ length, colour, audited }: { length: Thing<"knownLength">; colour: string; audited: boolean }) {
  const drawing = useDesk((s) => s.drawing);
  const rows = useProject((s) => s.rows);
  const map = fitMap(rows, drawing);
  const [a, b] = [rows.pick.get(length.a), rows.pick.get(length.b)];
  if (!map || !a || !b) return null;
  const turn = levelling(map, [a.x, a.y], [b.x, b.y]);
  return (
    <button
      type="button"
      className={`mt-1 flex w-full overflow-hidden rounded border bg-board ${audited ? "border-ink" : "border-line"}`}
      aria-label={`Look at the ends of ${length.text} again`}
      aria-pressed={audited}
      onClick={() => audit(length.id)}
    >
      <MiniEnd at={a} {...{ turn, colour }} />
      <svg width="10" height="24" viewBox="0 0 10 24" className="shrink-0 bg-sheet" aria-hidden="true">
        <title>break line</title>
        <path d="M5 0V9L2 11L8 13L5 15V24" fill="none" stroke="#49534e" />
      </svg>
      <MiniEnd at={b} {...{ turn, colour }} />
    </button>
  );
}

function MiniEnd({ at, turn, colour }: { at: { x: number; y: number }; turn: number; colour: string }) {
  const [x, y] = [at.x, at.y];
  // One array for as long as the pick stays: the canvas is painted anew only when something changes.
  const place = useRef<readonly [number, number]>([x, y]);
  if (place.current[0] !== x || place.current[1] !== y) place.current = [x, y];
  return (
    <span className="min-w-0 flex-1 overflow-hidden">
      <Magnified
        at={place.current}
        width={150}
        height={24}
        colour={colour}
        magnification={1.6}
        turn={turn}
        mark="tick"
      />
    </span>
  );
}

/** The residual in units of its own ±: ticks stand at ±, the bar breaks beyond four. */
function ResidualBar({ result, colour }: { result: Schemas["LengthResult"]; colour: string }) {
  const ratio = result.plusMinusMm > 0 ? result.residualMm / result.plusMinusMm : 0;
  const unit = 18;
  const reach = Math.max(-4, Math.min(4, ratio)) * unit;
  return (
    <svg
      width="160"
      height="14"
      viewBox="-80 0 160 14"
      role="img"
      aria-label={`${difference(result.residualMm)}${unitWord()} where ${plusMinus(result.plusMinusMm)} is expected`}
    >
      <line x1={0} x2={0} y1={1} y2={13} stroke="#5a645f" />
      {[-unit, unit].map((x) => (
        <line key={x} x1={x} x2={x} y1={2} y2={12} stroke="#a49c88" />
      ))}
      <rect x={Math.min(0, reach)} y={4} width={Math.max(1, Math.abs(reach))} height={6} fill={colour} />
      {Math.abs(ratio) > 4 && <path d={`M${reach - 5} 2l4 10m3 -10l4 10`} stroke="#faf8f3" strokeWidth="2" />}
    </svg>
  );
}
