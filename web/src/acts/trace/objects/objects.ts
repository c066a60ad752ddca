import { create } from "zustand";
import type { Schemas } from "../../../api/client";
import { newId } from "../../../api/ids";
import type { Drag } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import type { XY } from "../../../geometry/plane";
import { change, useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";

export type ObjectKind = Schemas["ObjectKind"];
type Size = Pick<Thing<"object">, "width" | "depth" | "height" | "base">;

/** What the next click puts down. */
export const useNextObject = create<{ kind: ObjectKind; size: Size; degrees: number }>(() => ({
  kind: "table",
  size: { width: 1400, depth: 800, height: 740, base: 0 },
  degrees: 0,
}));

/** A quarter turn, and a finer one. */
export const [QUARTER, FINE] = [90, 15];

export const turnedBy = (degrees: number, by: number) => (((degrees + by) % 360) + 360) % 360;

/** Puts down what was chosen, its middle where it was clicked. */
export async function putObject([x, y]: XY): Promise<void> {
  const { storey } = useDesk.getState();
  if (storey === null) return;
  const { kind, size, degrees } = useNextObject.getState();
  await change(`Put down a ${kind}`, [
    { do: "add", type: "object", id: newId(), values: { storey, kind, x, y, degrees, ...size } },
  ]);
}

export function objectsHere(objects: Iterable<Thing<"object">>, storey: string | null): Thing<"object">[] {
  return inOrder(objects).filter((o) => o.storey === storey);
}

/** A place about the model's zero as it lies on an object that is turned and moved. */
export function onObject({ x, y, degrees }: Pick<Thing<"object">, "x" | "y" | "degrees">, [u, v]: XY): XY {
  const turn = (degrees * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  return [x + c * u - s * v, y + s * u + c * v];
}

/** The object whose size lies over a place; of several the one put down last. */
export function objectAt([px, py]: XY): string | null {
  const { storey } = useDesk.getState();
  const over = objectsHere(useProject.getState().rows.object.values(), storey).findLast((o) => {
    const [u, v] = onObject({ x: 0, y: 0, degrees: -o.degrees }, [px - o.x, py - o.y]);
    return Math.abs(u) <= o.width / 2 && Math.abs(v) <= o.depth / 2;
  });
  return over?.id ?? null;
}

/** A drag of it moves it. */
export function objectDrag(id: string, at: XY): Drag | null {
  const object = useProject.getState().rows.object.get(id);
  if (!object || objectAt(at) !== id) return null;
  const [w, d] = [object.width / 2, object.depth / 2];
  let to = { x: object.x, y: object.y };
  return {
    move(from, pointer) {
      to = { x: object.x + pointer[0] - from[0], y: object.y + pointer[1] - from[1] };
      const ring = (
        [
          [-w, -d],
          [w, -d],
          [w, d],
          [-w, d],
        ] as const
      ).map((p) => onObject({ ...object, ...to }, p));
      const lines = ring.map((p, i) => [p, ring[(i + 1) % 4] ?? p] as const);
      useDesk.setState({ draft: { of: "moved", lines, told: false } });
    },
    async drop() {
      useDesk.setState({ draft: null });
      await change(`Move a ${object.kind}`, [{ do: "set", type: "object", id, values: to }]);
    },
  };
}
