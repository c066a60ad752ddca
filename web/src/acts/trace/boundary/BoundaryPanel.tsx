import { useEffect, useState } from "react";
import { clearDraft, useDesk, useDrafted } from "../../../board/desk";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area, fineInWords, onSite, said } from "../../../ui/measures";
import { grouped } from "../../../ui/numbers";
import { Field, Link, OneOf, Plain } from "../../../ui/parts";
import { Typed } from "../../../ui/Typed";
import { Elsewhere } from "../Elsewhere";
import { type BoundaryAnswer, boundariesOf, legsOf, useBoundary, useClearances } from "./boundary";
import { LegFields } from "./LegFields";
import { addLeg, close, legWords, NO_LEG, setLeg, useBoundaryAtHand } from "./legs";
import { MapPoints } from "./MapPoints";

/** The legs of a site's boundary as they are written, how it closes, and how near the building comes to each. */
export function BoundaryPanel() {
  const storey = useDesk((s) => s.storey);
  const boundaries = boundariesOf(useProject((s) => s.rows.boundary).values(), storey);
  const { boundary: chosen, another } = useBoundaryAtHand();
  const boundary = another ? undefined : (boundaries.find((b) => b.id === chosen) ?? boundaries[0]);
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Boundary">
      {boundaries.length > 1 && (
        <div className="mb-2">
          <OneOf
            label="Which boundary"
            value={boundary?.id ?? ""}
            of={boundaries.map((b) => [b.id, b.name] as const)}
            set={(id) => useBoundaryAtHand.setState({ boundary: id, another: false, leg: null })}
          />
        </div>
      )}
      {boundary ? (
        <Legs key={boundary.id} boundary={boundary} />
      ) : (
        <p>Click where the boundary begins: a corner of the site.</p>
      )}
    </section>
  );
}

/** A leg that was clicked on the board: its boundary, with the leg open. */
export function SelectedLeg({ id }: { id: string }) {
  const boundary = useProject((s) => s.rows.leg.get(id)?.boundary);
  const clicked = useDesk((s) => s.selected); // anew with each click, on the same leg too
  useEffect(() => {
    if (boundary && clicked) useBoundaryAtHand.setState({ boundary, another: false, leg: clicked.id });
    return () => useBoundaryAtHand.setState({ leg: null });
  }, [boundary, clicked]);
  // With the act at hand the panel stands there already.
  const isAtHand = useDesk((s) => s.act === "boundary");
  return isAtHand ? null : <BoundaryPanel />;
}

function Legs({ boundary }: { boundary: Thing<"boundary"> }) {
  const legs = useProject((s) => s.rows.leg);
  const answer = useBoundary(boundary);
  const clearances = useClearances(boundary);
  const own = legsOf(legs.values(), boundary.id);
  // Worse than 1 : 1000 is no measurement: common practice, no source.
  const isBad = (answer?.closed?.precision ?? 1000) < 1000;
  // As long as one of the usual legs is open, more are to come.
  const isUnderWay = (answer?.closing?.mm ?? 0) > lengthOf(answer?.path ?? []) / own.length / 3;
  const [next, setNext] = useState(NO_LEG);
  const ink = useDrafted("bearing");
  // A boundary that has just begun waits for its first bearing, one that was read off the ink for its length.
  const clicks = useBoundaryAtHand((s) => s.clicks);
  const waitsFor = ink ? "length" : own.length === 0 || clicks > 0 ? "bearing" : undefined;
  useEffect(() => {
    if (ink) setNext((leg) => ({ ...leg, bearing: ink.bearing }));
  }, [ink]);
  const add = async () => {
    // The hand goes on to the next leg at once; what is refused comes back, unless it has.
    const leg = next;
    setNext(NO_LEG);
    clearDraft();
    const refused = await addLeg(boundary.id, leg);
    if (refused) setNext((now) => (now.bearing === "" && now.length === "" ? leg : now));
    return refused?.message ?? null;
  };
  return (
    <>
      {answer?.closed ? (
        <p>
          <span className={isBad ? "text-rust" : ""}>
            {!answer.closed.tested ? (
              `Closed by its computed leg, ${onSite(answer.closed.lengthMm)} in all: nothing tests it`
            ) : answer.closed.precision === null ? (
              `Closes exactly in ${onSite(answer.closed.lengthMm)}`
            ) : (
              <>
                Closes {isBad && "only "}within <b>{fineInWords(answer.closed.misclosureMm, 1)}</b> in{" "}
                {onSite(answer.closed.lengthMm)},{" "}
                <span className="whitespace-nowrap">1 : {grouped(answer.closed.precision)}</span>
              </>
            )}
            .
          </span>{" "}
          It encloses <b>{area(answer.closed.areaM2)}</b>.
        </p>
      ) : (
        <p className={own.length > 2 && !isUnderWay ? "text-rust" : "text-quiet"}>
          {own.length > 2 && !isUnderWay
            ? answer?.refusal && said(answer.refusal)
            : answer?.closing && own.length > 2
              ? `Still open by ${onSite(answer.closing.mm)}.`
              : "Type each leg as it is written, in order round the site."}
        </p>
      )}
      {answer && answer.mistyped.length > 0 && (
        <p>
          It would close if{" "}
          {answer.mistyped
            .map(({ leg, mm, bearing }) =>
              mm === null ? `leg ${leg + 1} bore ${bearing}` : `leg ${leg + 1} were ${onSite(mm)} long`,
            )
            .join(", or if ")}
          .{" "}
          <Link onClick={() => useBoundaryAtHand.setState({ leg: own[answer.mistyped[0]?.leg ?? 0]?.id ?? null })}>
            Look at it
          </Link>
        </p>
      )}
      {clearances.length > 0 && <p className="mt-2 text-right text-quiet">clear of the building by</p>}
      <ol className={clearances.length > 0 ? "" : "mt-2"} aria-label="Legs">
        {own.map((leg, i) => (
          <Leg key={leg.id} leg={leg} number={i + 1} clear={clearances[i]?.mm} />
        ))}
      </ol>
      <LegFields leg={next} set={setNext} send={add} words="Add" goesOn waitsFor={waitsFor} clicks={clicks} />
      {ink && next.bearing === ink.bearing && (
        <p className="mt-1 text-quiet">
          Read off the ink, ±{Math.max(0.01, ink.plusMinusDegrees).toFixed(2)}°: type the length that is written along
          it.
        </p>
      )}
      {answer && next.bearing === "" && next.length === "" && (
        <Closing answer={answer} boundary={boundary} legs={own} />
      )}
      {!ink && own.length < 3 && (
        <p className="mt-1 text-quiet">No bearing written? Click along the leg: its direction is taken from the ink.</p>
      )}
      <div className="mt-2 grid grid-cols-2 gap-2">
        <Typed
          label="name"
          value={boundary.name}
          set={(name) =>
            void change("Name a boundary", [{ do: "set", type: "boundary", id: boundary.id, values: { name } }])
          }
        />
        <UpIs key={boundary.up} boundary={boundary} />
      </div>
      <MapPoints boundary={boundary} corners={(answer?.closed?.corners ?? answer?.path ?? []).length} />
      <Elsewhere things={[{ type: "boundary", id: boundary.id }]} />
      <div className="mt-2 flex gap-1.5">
        <Plain onClick={() => useBoundaryAtHand.setState({ another: true, leg: null })}>Another boundary</Plain>
        <Plain
          danger
          onClick={() => void change("Remove a boundary", [{ do: "remove", type: "boundary", id: boundary.id }])}
        >
          Remove the boundary
        </Plain>
      </div>
    </>
  );
}

/** Computed legs that miss by more than this are computed anew, mm. */
const STALE_MM = 5;

/** The leg that would close what was measured, to be taken where nothing is written along it. */
function Closing(props: { answer: BoundaryAnswer; boundary: Thing<"boundary">; legs: readonly Thing<"leg">[] }) {
  const { answer, boundary, legs } = props;
  const before = legs.findIndex((leg) => leg.computed);
  const isStale = before >= 0 && (answer.closed?.misclosureMm ?? Number.POSITIVE_INFINITY) > STALE_MM;
  // Where one of the legs is likely mistyped, another one does not mend it.
  if (!answer.closing || answer.mistyped.length > 0 || (before >= 0 && !isStale)) return null;
  const { closing } = answer;
  return (
    <p className="mt-1 text-quiet">
      What closes it{isStale ? " now" : ""}: <span className="text-ink">{closing.bearing}</span>,{" "}
      <span className="text-ink">{onSite(closing.mm)}</span>.{" "}
      <Link onClick={() => void close(boundary.id, closing, legs[before]?.id)}>
        {before >= 0 ? `Compute leg ${before + 1} anew` : "Take it as the last leg, computed"}
      </Link>
    </p>
  );
}

/** A leg as it is written; open, its figures are corrected, and another one is inserted behind it. */
function Leg({ leg, number, clear }: { leg: Thing<"leg">; number: number; clear: number | undefined }) {
  const isOpen = useBoundaryAtHand((s) => s.leg === leg.id);
  const [typed, setTyped] = useState<typeof NO_LEG | null>(null);
  const [behind, setBehind] = useState<typeof NO_LEG | null>(null);
  const toggle = () => {
    setTyped(null);
    setBehind(null);
    useBoundaryAtHand.setState({ leg: isOpen ? null : leg.id });
  };
  return (
    <li className="border-t border-line">
      <button type="button" aria-expanded={isOpen} className="flex w-full gap-2 py-1 text-left" onClick={toggle}>
        <span className="text-quiet">{number}</span>
        <span className="flex-1">
          {legWords(leg)}
          {leg.computed && <span className="text-quiet"> · computed</span>}
        </span>
        {clear !== undefined && (
          <span className={clear === 0 ? "text-rust" : ""}>{clear === 0 ? "crosses it" : onSite(clear)}</span>
        )}
      </button>
      {isOpen && (
        <div className="pb-2">
          <LegFields
            leg={typed ?? leg}
            set={setTyped}
            send={async () => (await setLeg(leg.id, pick(typed ?? leg)))?.message ?? null}
            words="Correct"
            waitsFor="length"
          >
            <span className="flex-1" />
            <Link onClick={() => setBehind(NO_LEG)}>Insert one after</Link>
            <Link onClick={() => void change("Remove a leg", [{ do: "remove", type: "leg", id: leg.id }])}>Remove</Link>
          </LegFields>
          {behind && (
            <LegFields
              leg={behind}
              set={setBehind}
              send={async () => {
                const refused = await addLeg(leg.boundary, behind, leg.id);
                if (!refused) setBehind(null);
                return refused?.message ?? null;
              }}
              words="Insert"
            />
          )}
        </div>
      )}
    </li>
  );
}

/** mm along a path */
function lengthOf(path: readonly (readonly number[])[]): number {
  return path.reduce((sum, [x = 0, y = 0], i) => {
    const [px = x, py = y] = path[i - 1] ?? [];
    return sum + Math.hypot(x - px, y - py);
  }, 0);
}

const pick = ({ bearing, length, radius, turns, gives }: typeof NO_LEG) => ({ bearing, length, radius, turns, gives });

/** Where the drawing is squared to a building, up on the board is not north. */
function UpIs({ boundary }: { boundary: Thing<"boundary"> }) {
  const [up, setUp] = useState(boundary.up);
  return (
    <form
      className="flex items-end gap-2"
      onSubmit={(e) => {
        e.preventDefault();
        void change("Which way north is", [
          { do: "set", type: "boundary", id: boundary.id, values: { up: up.trim() } },
        ]);
      }}
    >
      <Field label="straight up is" value={up} onChange={setUp} placeholder="north" />
      <button
        type="submit"
        className="rounded border border-line bg-white px-2 py-1"
        disabled={up.trim() === boundary.up}
      >
        Set
      </button>
    </form>
  );
}
