import type { Click } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { inkAt } from "../../../board/found";
import { useGrid } from "../../../board/grid";
import { offQuarter } from "../../../board/held";
import { SNAP_PX, snapAt, wallUnder } from "../../../board/snap";
import { change, say, useProject } from "../../../store/project";
import { wallLine } from "../../../store/walls";
import { useWallOptions } from "./options";

/** Sets which way a wing of the storey runs, degrees from x; null for none. */
export async function setWing(degrees: number | null): Promise<void> {
  const { storey } = useDesk.getState();
  if (storey === null) return;
  const wing =
    degrees === null ? null : Math.round(((offQuarter((degrees * Math.PI) / 180) * 180) / Math.PI) * 1e4) / 1e4;
  await change("Grid of a wing", [{ do: "set", type: "storey", id: storey, values: { wing } }]);
}

/** A click that says where the regular grid begins, or which wall or line of the ink a wing runs with. */
export async function pointedAt({ pointer, free, snap }: Click): Promise<void> {
  const { asks } = useWallOptions.getState();
  useWallOptions.setState({ asks: null });
  if (asks === "origin") {
    const at = (snap ?? snapAt(pointer, free))?.at ?? (await inkAt(pointer, true))?.at ?? pointer;
    useGrid.setState({ origin: at });
    return;
  }
  const hit = wallUnder(pointer, SNAP_PX / useDesk.getState().view.k);
  const line = wallLine(useProject.getState().rows, hit?.id);
  const along = line
    ? Math.atan2(line.to[1] - line.from[1], line.to[0] - line.from[0])
    : (await inkAt(pointer, false))?.along;
  if (along === undefined) return say("No wall and no straight line is there: point at one that runs with the wing.");
  await setWing((along * 180) / Math.PI);
}
