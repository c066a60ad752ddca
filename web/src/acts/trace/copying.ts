import { contains, type XY } from "../../geometry/plane";
import { change, useProject } from "../../store/project";
import { wallLines } from "../../store/walls";

/** Walls of another storey are copied to this one, where they stand, without their openings. */
export async function copyWalls(from: string, to: string, which: (id: string) => boolean): Promise<void> {
  const { rows } = useProject.getState();
  const walls = wallLines(rows, from).filter(({ wall }) => which(wall.id));
  const things = walls.map(({ wall }) => ({ type: "wall" as const, id: wall.id }));
  if (things.length > 0) {
    const words = `Copy walls of ${rows.storey.get(from)?.name ?? ""}`;
    await change(words, [{ do: "copy", copy: { things, alone: true, to } }]);
  }
}

/** Further from a face than this is beside the wall, mm. */
const BESIDE_MM = 20;

/** Walls with no room beside some of their length: those round the building. */
export function outerWalls(storey: string): ReadonlySet<string> {
  const shapes = useProject.getState().derived.get(storey);
  const regions = [...(shapes?.regions.values() ?? [])];
  const outer = new Set<string>();
  for (const { id, stretches } of shapes?.walls.values() ?? []) {
    for (const { from, to, right, left } of stretches) {
      const [x1 = 0, y1 = 0, x2 = 0, y2 = 0] = [from[0], from[1], to[0], to[1]];
      const length = Math.hypot(x2 - x1, y2 - y1);
      if (length < BESIDE_MM) continue;
      const [nx, ny] = [-(y2 - y1) / length, (x2 - x1) / length];
      const beside = (face: readonly (readonly number[])[], side: number): XY => {
        const off = Math.abs(((face[0]?.[0] ?? x1) - x1) * nx + ((face[0]?.[1] ?? y1) - y1) * ny) + BESIDE_MM;
        return [(x1 + x2) / 2 + side * off * nx, (y1 + y2) / 2 + side * off * ny];
      };
      const isOpen = (p: XY) => !regions.some((r) => contains(r.polygon, p));
      if (isOpen(beside(left, 1)) || isOpen(beside(right, -1))) outer.add(id);
    }
  }
  return outer;
}
