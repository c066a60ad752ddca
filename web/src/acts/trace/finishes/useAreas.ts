import type { Schemas } from "../../../api/client";
import { useBodiesOf } from "../useBodiesOf";

const NONE: ReadonlyMap<string, number> = new Map();
const areas = (told: Schemas["Bodies"]) => new Map(told.surfaces.map((s) => [s.id, s.areaM2]));

/** Net areas of the surfaces of a storey, m², by their ids. */
export function useAreas(storey: string | null, isWanted: boolean): ReadonlyMap<string, number> {
  return useBodiesOf(storey, isWanted, areas) ?? NONE;
}
