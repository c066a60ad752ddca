import { useDesk, useDeskFields } from "../desk/desk";
import type { Values } from "../store/rows";

const ENDS: Values["knownLength"]["ends"][] = ["outer face", "inner face", "axis", "centre"];
const STANDINGS: Values["knownLength"]["standing"][] = [
  "figured",
  "taped",
  "known from elsewhere",
  "estimated",
  "scale bar",
];

/** What a length runs between, whence it is known, along what, and whether the fit may use it. */
export function LengthOptions() {
  const desk = useDeskFields("endsAt", "pickedAt", "wallText", "standing", "heldOut", "wholePage", "along", "standOff");
  const select = "rounded border border-line bg-white px-1 py-0.5 text-xs";
  return (
    <div className="mt-1 flex flex-wrap items-center gap-1.5 text-xs">
      <Choice
        label="between"
        value={desk.endsAt}
        of={ENDS}
        // What is picked follows, until somebody says otherwise.
        set={(endsAt) => useDesk.setState({ endsAt, ...(desk.pickedAt === desk.endsAt ? { pickedAt: endsAt } : {}) })}
      />
      <Choice
        label="known as"
        value={desk.standing}
        of={STANDINGS}
        set={(standing) => useDesk.setState({ standing })}
      />
      <span className="flex items-center gap-1">
        picked
        <Choice label="picked on" value={desk.pickedAt} of={ENDS} set={(pickedAt) => useDesk.setState({ pickedAt })} />
      </span>
      {desk.pickedAt !== desk.endsAt && (
        <label className="flex items-center gap-1">
          wall
          <input
            className={`${select} w-14`}
            aria-label="Thickness of the wall at its ends"
            value={desk.wallText}
            onChange={(e) => useDesk.setState({ wallText: e.target.value, slipError: null })}
          />
        </label>
      )}
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={desk.heldOut}
          onChange={(e) => useDesk.setState({ heldOut: e.target.checked })}
        />
        check only
      </label>
      <label className="flex items-center gap-1">
        <input
          type="checkbox"
          checked={desk.wholePage}
          onChange={(e) => useDesk.setState({ wholePage: e.target.checked })}
        />
        whole page
      </label>
      <label className="flex items-center gap-1">
        stands before the wall by
        <input
          className={`${select} w-14`}
          value={desk.standOff.by}
          onChange={(e) => useDesk.setState({ standOff: { ...desk.standOff, by: e.target.value }, slipError: null })}
        />
      </label>
      {desk.standOff.by.trim() !== "" && (
        <label className="flex items-center gap-1">
          seen from
          <input
            className={`${select} w-14`}
            value={desk.standOff.from}
            onChange={(e) =>
              useDesk.setState({ standOff: { ...desk.standOff, from: e.target.value }, slipError: null })
            }
          />
        </label>
      )}
    </div>
  );
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
