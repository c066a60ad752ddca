import type { Fill, LineKind } from "../../../store/drawn";
import { Choose } from "../../../ui/parts";

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

/** How a line is drawn, by ISO 128. */
export const KindOf = (props: { value: LineKind | null; set: (kind: LineKind) => void }) => (
  <Choose label="line" of={KINDS} {...props} />
);

export const FillOf = (props: { value: Fill | null; set: (fill: Fill) => void }) => (
  <Choose label="filled, if closed" of={FILLS} {...props} />
);
