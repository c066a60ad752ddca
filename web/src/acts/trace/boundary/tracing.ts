import type { Refused } from "../../../api/client";
import { api, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import { useDesk } from "../../../board/desk";
import { apply, inverse } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { change, inProject, say, useProject } from "../../../store/project";
import { boundariesOf } from "./boundary";
import { boundaryAtHand, useBoundaryAtHand } from "./legs";

declare module "../../../board/desk" {
  interface Drafts {
    /** which way a leg runs by the ink, as it was read there */
    bearing: { bearing: string; plusMinusDegrees: number };
  }
}

/** The first click sets where the boundary of the storey begins; later ones ask the ink which way the next leg runs. */
export async function boundaryPoint(at: XY): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  if (storey === null) return;
  const { rows } = useProject.getState();
  const known = boundaryAtHand();
  if (!known || useBoundaryAtHand.getState().another) {
    const others = boundariesOf(rows.boundary.values(), storey);
    const name = others.length === 0 ? "Boundary" : `Boundary ${others.length + 1}`;
    const boundary = newId();
    useBoundaryAtHand.setState({ boundary, another: false, leg: null });
    const values = { storey, drawing, name, x: at[0], y: at[1], up: known?.up ?? "" };
    await change("Begin a boundary", [{ do: "add", type: "boundary", id: boundary, values }]);
    return;
  }
  useBoundaryAtHand.setState(({ clicks }) => ({ clicks: clicks + 1 }));
  const map = fitMap(rows, drawing);
  if (drawing === null || !map) return;
  if (!useProject.getState().fits.get(drawing)?.determined.turn) {
    return say(
      "Nothing says yet which way this drawing is turned, so no bearing can be read off it. In Square, pick a leg and type its bearing.",
    );
  }
  const { path, upDegrees } = await settled(
    api.GET("/api/projects/{project}/boundaries/{id}", { params: { path: inProject(known.id) } }),
  );
  const [x = known.x, y = known.y] = path.at(-1) ?? [];
  const [a, b] = [apply(inverse(map), [x, y]), apply(inverse(map), at)];
  try {
    const query = { ax: a[0], ay: a[1], bx: b[0], by: b[1], up: upDegrees };
    const { found } = await settled(
      api.GET("/api/projects/{project}/drawings/{id}/bearing", { params: { path: inProject(drawing), query } }),
    );
    useDesk.setState({ draft: found && { of: "bearing", ...found } });
    if (!found) say("No straight line runs that way in the ink: click further along the leg.");
  } catch (error) {
    say((error as Refused).message);
  }
}
