import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Drag } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { wallUnder } from "../../../board/snap";
import { distance, middleOfChain, nearestOn, type XY } from "../../../geometry/plane";
import { change, useProject } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { arcChain } from "../../../store/walls";

type Divider = Thing<"divider">;

/** Ends that lie nearer to each other than this are one, mm. */
const JOIN_MM = 1;

/** A divider as chords; a straight one has two points. */
export function dividerChain(d: Divider): readonly XY[] {
  return arcChain([d.x1, d.y1], [d.x2, d.y2], d.rise);
}

function dividersHere(): Divider[] {
  const { storey } = useDesk.getState();
  return [...useProject.getState().rows.divider.values()].filter((d) => d.storey === storey);
}

const dividerOf = (id: string) => useProject.getState().rows.divider.get(id);

export function dividerUnder(pointer: XY, reach: number): string | null {
  const isNear = (chain: readonly XY[]) =>
    chain.slice(1).some((p, i) => nearestOn(pointer, chain[i] ?? p, p).off < reach);
  return dividersHere().find((d) => isNear(dividerChain(d)))?.id ?? null;
}

export function dividerEnds(id: string): XY[] {
  const d = dividerOf(id);
  return d
    ? [
        [d.x1, d.y1],
        [d.x2, d.y2],
      ]
    : [];
}

/** Its middle, where a corner can be pulled out. */
export function dividerMiddle(id: string): XY[] {
  const d = dividerOf(id);
  return d ? [middleOfChain(dividerChain(d))] : [];
}

/** A drag of an end, with all that end there, or of the middle: that becomes a corner. */
export function dividerDrag(id: string, at: XY, reach: number): Drag | null {
  const own = dividerOf(id);
  const end = dividerEnds(id).find((p) => distance(p, at) < reach);
  const middle = dividerMiddle(id).find((p) => distance(p, at) < reach);
  if (!own || (!end && !middle)) return null;
  const meeting = end ? dividersHere().flatMap((d) => endsAt(d, end)) : [];
  const far: readonly XY[] = end ? meeting.map((m) => m.far) : dividerEnds(id);
  let to: XY | null = null;
  return {
    move(_from, pointer, free) {
      to = (free ? null : wallUnder(pointer, reach)?.at) ?? pointer;
      useDesk.setState({ draft: { of: "moved", lines: far.map((p) => [p, to ?? pointer] as const), told: true } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      const [x, y] = to ?? [];
      if (x === undefined || y === undefined) return;
      if (!end) return bend(own, [x, y], 0);
      return change(
        "Move the end of a divider",
        meeting.map(({ of, first }): Operation => {
          const values = first ? { x1: x, y1: y } : { x2: x, y2: y };
          return { do: "set", type: "divider", id: of, values };
        }),
      );
    },
  };
}

function endsAt(d: Divider, p: XY): { of: string; first: boolean; far: XY }[] {
  const [a, b]: [XY, XY] = [
    [d.x1, d.y1],
    [d.x2, d.y2],
  ];
  if (distance(a, p) < JOIN_MM) return [{ of: d.id, first: true, far: b }];
  return distance(b, p) < JOIN_MM ? [{ of: d.id, first: false, far: a }] : [];
}

/** One becomes two that meet in a point. */
function bend(d: Divider, [x, y]: XY, rise: number): Promise<unknown> {
  const { storey, drawing, x2, y2 } = d;
  return change("Bend a divider", [
    { do: "set", type: "divider", id: d.id, values: { x2: x, y2: y, rise } },
    { do: "add", type: "divider", id: newId(), values: { storey, drawing, x1: x, y1: y, x2, y2, rise } },
  ]);
}

/** A typed length moves its second end. */
export function setDividerLength(d: Divider, length: number): Promise<unknown> {
  const part = length / distance([d.x1, d.y1], [d.x2, d.y2]);
  const values = { x2: d.x1 + (d.x2 - d.x1) * part, y2: d.y1 + (d.y2 - d.y1) * part };
  return change("Length of a divider", [{ do: "set", type: "divider", id: d.id, values }]);
}
