import type { Fill, LineKind } from "../../../store/drawn";

const KINDS: readonly (readonly [LineKind, string])[] = [
  ["continuous narrow", "continuous, narrow"],
  ["continuous wide", "continuous, wide"],
  ["dashed", "dashed: hidden, above"],
  ["long-dashed dotted", "dash and dot: axis"],
  ["long-dashed dotted wide", "dash and dot, wide: cut"],
  ["long-dashed double-dotted", "dash, two dots: beside"],
  ["dotted", "dotted"],
];

const FILLS: readonly (readonly [Fill, string])[] = [
  ["none", "nothing"],
  ["solid", "solid"],
  ["hatched", "hatched"],
  ["cross-hatched", "cross-hatched"],
];

function Choice<T extends string>(props: {
  label: string;
  value: T | null;
  of: readonly (readonly [T, string])[];
  set: (value: T) => void;
}) {
  return (
    <label className="block min-w-0 text-xs text-quiet">
      {props.label}
      <select
        className="mt-0.5 h-7 w-full rounded border border-line bg-white px-1 text-[13px] text-ink"
        value={props.value ?? ""}
        onChange={(e) => props.set(e.target.value as T)}
      >
        {props.value === null && <option value="">several</option>}
        {props.of.map(([value, words]) => (
          <option key={value} value={value}>
            {words}
          </option>
        ))}
      </select>
    </label>
  );
}

/** How a line is drawn, by ISO 128. */
export const KindOf = (props: { value: LineKind | null; set: (kind: LineKind) => void }) => (
  <Choice label="line" of={KINDS} {...props} />
);

export const FillOf = (props: { value: Fill | null; set: (fill: Fill) => void }) => (
  <Choice label="filled, if closed" of={FILLS} {...props} />
);
