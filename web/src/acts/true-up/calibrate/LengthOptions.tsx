import { useCallback, useEffect, useState } from "react";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import type { Values } from "../../../store/rows";
import { type NextLength, useNextLength } from "../../nextLength";

const ENDS: Values["knownLength"]["ends"][] = ["outer face", "inner face", "axis", "centre"];
const STANDINGS: Values["knownLength"]["standing"][] = [
  "figured",
  "taped",
  "known from elsewhere",
  "estimated",
  "scale bar",
];

/** Whether the rest of what can be said of a length shows, remembered from one to the next. */
const MORE = "plinth.length-more";
const isMore = () => localStorage.getItem(MORE) === "1";

/** What a length runs between; whence it is known, along what, and whether the fit may use it, behind one key. */
export function LengthOptions() {
  const next = useNextLength();
  const drawing = useDesk((s) => s.drawing);
  // Round a site there are no walls for a figure to run between.
  const isSite = useProject((s) => s.rows.drawing.get(drawing ?? "")?.kind === "site");
  const [more, setMore] = useState(isMore);
  const turn = useCallback(() => {
    localStorage.setItem(MORE, isMore() ? "0" : "1");
    setMore(isMore());
  }, []);
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key !== "ArrowDown" || !(e.target instanceof HTMLInputElement) || !e.target.closest("form[data-slip]"))
        return;
      e.preventDefault();
      turn();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [turn]);
  // What is said behind the key is never said in silence.
  const said = [
    next.standing === "figured" ? "" : next.standing,
    next.pickedAt === next.endsAt ? "" : `picked on ${next.pickedAt}`,
    next.heldOut ? "check only" : "",
    next.wholePage ? "whole page" : "",
    next.standOff.by.trim() === "" ? "" : `stands off ${next.standOff.by}`,
  ].filter((words) => words !== "");
  const select = "rounded border border-line bg-white px-1 py-0.5 text-xs";
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1.5 text-xs">
      {!isSite && (
        <Choice
          label="between"
          value={next.endsAt}
          of={ENDS}
          // What is picked follows, until somebody says otherwise.
          set={(endsAt) => set({ endsAt, ...(next.pickedAt === next.endsAt ? { pickedAt: endsAt } : {}) })}
        />
      )}
      {next.pickedAt !== next.endsAt && (
        <label className="flex items-center gap-1">
          wall
          <input
            className={`${select} w-14`}
            aria-label="Thickness of the wall at its ends"
            value={next.wallText}
            onChange={(e) => set({ wallText: e.target.value })}
          />
        </label>
      )}
      <button
        type="button"
        className="rounded border border-line bg-white px-1.5 py-0.5 text-xs"
        aria-expanded={more}
        onClick={turn}
      >
        {more ? "less" : said.join(", ") || "more"} <kbd>↓</kbd>
      </button>
      {more && (
        <>
          <Choice label="known as" value={next.standing} of={STANDINGS} set={(standing) => set({ standing })} />
          {!isSite && (
            <span className="flex items-center gap-1">
              picked
              <Choice label="picked on" value={next.pickedAt} of={ENDS} set={(pickedAt) => set({ pickedAt })} />
            </span>
          )}
          <label className="flex items-center gap-1">
            <input type="checkbox" checked={next.heldOut} onChange={(e) => set({ heldOut: e.target.checked })} />
            check only
          </label>
          <label className="flex items-center gap-1">
            <input type="checkbox" checked={next.wholePage} onChange={(e) => set({ wholePage: e.target.checked })} />
            whole page
          </label>
          <label className="flex items-center gap-1">
            stands before the wall by
            <input
              className={`${select} w-14`}
              value={next.standOff.by}
              onChange={(e) => set({ standOff: { ...next.standOff, by: e.target.value } })}
            />
          </label>
          {next.standOff.by.trim() !== "" && (
            <label className="flex items-center gap-1">
              seen from
              <input
                className={`${select} w-14`}
                value={next.standOff.from}
                onChange={(e) => set({ standOff: { ...next.standOff, from: e.target.value } })}
              />
            </label>
          )}
        </>
      )}
    </div>
  );
}

/** What was wrong at the slip may be mended by it. */
function set(values: Partial<NextLength>): void {
  useNextLength.setState(values);
  useDesk.setState({ slipError: null });
}

function Choice<T extends string>(props: { label: string; value: T; of: readonly T[]; set: (value: T) => void }) {
  return (
    <select
      className="rounded border border-line bg-white px-1 py-0.5 text-xs"
      aria-label={props.label}
      value={props.value}
      onChange={(e) => props.set(e.target.value as T)}
    >
      {props.of.map((v) => (
        <option key={v}>{v}</option>
      ))}
    </select>
  );
}
