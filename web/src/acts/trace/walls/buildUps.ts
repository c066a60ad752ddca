import type { Operation, Refused } from "../../../api/client";
import { allStoreys, change, useProject } from "../../../store/project";
import { setOfWalls } from "./editing";
import { useWallOptions } from "./options";

/** Walls take a build-up's thickness, height and whether it encloses. */
export function setBuildUp(walls: readonly string[], id: string | null): Promise<Refused | null> {
  const kind = useProject.getState().rows.buildUp.get(id ?? "");
  if (!kind) return setOfWalls("Build-up", walls, { buildUp: null });
  const { thickness, height, enclosing } = kind;
  return change("Build-up", [
    { do: "shift", shift: { walls: [...walls], thickness } },
    ...walls.map(
      (wall): Operation => ({ do: "set", type: "wall", id: wall, values: { buildUp: kind.id, height, enclosing } }),
    ),
  ]);
}

/** A build-up becomes another, and with it every wall that has it. */
export async function changeBuildUp(
  id: string,
  values: { name?: string; thickness?: number; height?: number | null; enclosing?: boolean },
): Promise<Refused | null> {
  await allStoreys();
  const walls = [...useProject.getState().rows.wall.values()].filter((w) => w.buildUp === id).map((w) => w.id);
  const { name: _name, thickness, ...shared } = values;
  const operations: Operation[] = [{ do: "set", type: "buildUp", id, values }];
  if (walls.length > 0 && thickness !== undefined) operations.push({ do: "shift", shift: { walls, thickness } });
  if (thickness !== undefined || Object.keys(shared).length > 0) {
    for (const wall of walls)
      operations.push({ do: "set", type: "wall", id: wall, values: { ...shared, buildUp: id } });
  }
  return change("Change a build-up", operations);
}

/** A build-up goes; walls that have it stay as they are. */
export async function removeBuildUp(id: string): Promise<Refused | null> {
  await allStoreys();
  const walls = [...useProject.getState().rows.wall.values()].filter((w) => w.buildUp === id);
  useWallOptions.setState({ buildUp: null });
  return change("Remove a build-up", [
    { do: "setMany", type: "wall", ids: walls.map((w) => w.id), values: { buildUp: null } },
    { do: "remove", type: "buildUp", id },
  ]);
}
