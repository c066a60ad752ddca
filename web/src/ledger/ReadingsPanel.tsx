import { affineAt, scaleOf } from "../board/geometry";
import {
  listRooms,
  nameRooms,
  type Readings,
  refuse,
  roomsToName,
  sizeByFigures,
  takeFigure,
  takeScale,
  titled,
  useInk,
} from "../desk/ink";
import { grouped } from "../desk/numbers";
import { fitMap } from "../desk/selectors";
import { Work } from "../jobs/Work";
import { Magnified } from "../lens/Lens";
import { count } from "../steps/status";
import { ask, useProject } from "../store/project";
import { workKey } from "../store/work";
import { Link, Plain } from "./parts";

const STRIP = { width: 132, height: 30 };

/** What is written on the drawing, each with its picture for a glance; nothing is taken until it is said. */
export function ReadingsPanel({
  drawing,
  told,
  of,
}: {
  drawing: string;
  told: Readings | null;
  of: "figures" | "rooms";
}) {
  const looked = useInk((s) => s.looked);
  const rows = useProject((s) => s.rows);
  useProject((s) => s.derived);
  const work = useProject((s) => s.work.get(workKey("read-figures", drawing)));
  const map = fitMap(rows, drawing);
  const guess = rows.fit.get(drawing)?.isGuess ?? true;
  const rooms = told ? roomsToName(told.rooms) : [];
  const listed = told?.rooms.filter((r) => r.areaM2 !== null) ?? [];
  const figures = [...(told?.figures ?? [])].sort((a, b) => b.mm - a.mm);
  const strip = (box: readonly number[], upright: boolean, words: string) => {
    const [l = 0, t = 0, r = 0, b = 0] = box;
    const [wide, high] = upright ? [b - t, r - l] : [r - l, b - t];
    const turn = map && upright ? -Math.PI / 2 : 0;
    return (
      <span className="block overflow-hidden rounded border border-line" role="img" aria-label={`as drawn: ${words}`}>
        {map && scaleOf(affineAt(map, [l, t])) > 0 && (
          <Magnified
            at={[(l + r) / 2, (t + b) / 2]}
            {...STRIP}
            colour="rgba(0,0,0,0)"
            magnification={Math.min(
              6,
              (0.72 * STRIP.height) / Math.max(8, high),
              (0.92 * STRIP.width) / Math.max(8, wide),
            )}
            turn={turn}
            mark="tick"
          />
        )}
      </span>
    );
  };
  return (
    <section
      className="border-b border-line bg-white px-4 py-3 text-[13px]"
      aria-label={of === "figures" ? "Figures read" : "Names read"}
    >
      <Work kind="read-figures" about={drawing} />
      {work?.state !== "working" && (
        <div className="flex flex-wrap items-center gap-2">
          {/* What would be read some time can be had at once. */}
          {(work === undefined || work.state === "done" || work.state === "waiting") && (
            <Plain onClick={() => void ask("read-figures", drawing)}>
              {told?.found
                ? "Read again"
                : of === "figures"
                  ? "Read the drawing’s figures"
                  : "Read the drawing’s names"}
            </Plain>
          )}
          {told?.found && (
            <span className="text-quiet">
              {of === "figures"
                ? figures.length > 0
                  ? `${count(figures.length, "figure")} read`
                  : "no figure left to take"
                : `${count(rooms.length, "name")} to take`}
            </span>
          )}
          {told && told.refused > 0 && (
            <Link onClick={() => void refuse("readings", drawing, [])}>take back {told.refused} refused</Link>
          )}
        </div>
      )}
      {told?.found && of === "figures" && figures.length > 1 && !guess && (
        <div className="mt-2">
          <Plain onClick={() => void sizeByFigures()}>{`Size the drawing by all ${figures.length}`}</Plain>
        </div>
      )}
      {told?.statedScale && of === "figures" && rows.drawing.get(drawing)?.statedScale === null && (
        <p className="mt-2 text-quiet">
          It says 1:{told.statedScale} of itself.{" "}
          <Link onClick={() => void takeScale(drawing, told.statedScale)}>take it as its stated scale</Link>
        </p>
      )}
      {told?.found && of === "rooms" && (
        <div className="mt-2 flex flex-wrap gap-1.5">
          {rooms.length > 1 && <Plain onClick={() => void nameRooms(rooms)}>Take all names</Plain>}
          {listed.length > 0 && (
            <Plain
              onClick={() => void listRooms(listed)}
            >{`List ${count(listed.length, "area")} in the rooms table`}</Plain>
          )}
        </div>
      )}
      <ul className="mt-2">
        {told?.found &&
          of === "figures" &&
          figures.map((f) => {
            const off = (f.spanMm / f.mm - 1) * 100;
            return (
              <li
                key={f.id}
                className={`flex items-center gap-2 border-t border-line py-1 ${looked === f.id ? "bg-sheet" : ""}`}
                onPointerEnter={() => useInk.setState({ looked: f.id })}
                onPointerLeave={() => useInk.setState({ looked: null })}
              >
                {strip(f.box, f.along === "y", f.text)}
                <span className="min-w-0 flex-1">
                  <span className="block font-semibold">{f.text}</span>
                  {f.isBar && <span className="block text-quiet">scale bar</span>}
                  {!guess && (
                    <span className={`block ${Math.abs(off) > 2 ? "text-rust" : "text-quiet"}`}>
                      {Math.abs(off) < 0.05 ? "" : off > 0 ? "+" : "−"}
                      {Math.abs(off).toFixed(1)} %
                    </span>
                  )}
                </span>
                <span className="flex flex-col gap-0.5">
                  <Link onClick={() => void takeFigure(f, false)}>known</Link>
                  <Link onClick={() => void takeFigure(f, true)}>check</Link>
                  <Link onClick={() => void refuse("readings", drawing, [f.id])}>refuse</Link>
                </span>
              </li>
            );
          })}
        {told?.found &&
          of === "rooms" &&
          rooms.map((r) => (
            <li key={r.id} className="flex items-center gap-2 border-t border-line py-1">
              {strip(r.box, false, r.name)}
              <span className="min-w-0 flex-1 font-semibold">
                {titled(r.name)}
                {r.areaM2 !== null && (
                  <span className="block font-normal text-quiet">{grouped(r.areaM2, 1)} m² as written</span>
                )}
              </span>
              <span className="flex flex-col gap-0.5">
                <Link onClick={() => void nameRooms([r])}>take</Link>
                <Link onClick={() => void refuse("readings", drawing, [r.id])}>refuse</Link>
              </span>
            </li>
          ))}
      </ul>
    </section>
  );
}
