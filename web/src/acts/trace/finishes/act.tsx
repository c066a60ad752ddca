import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { isTracing } from "../../isTracing";
import { removeRow } from "../removing";
import { Finishes } from "./Finishes";
import { FinishOptions, SelectedSurface, SurfaceRows } from "./FinishPanel";
import { layFinish, nextFinish, placeUnder, whereInWords } from "./finishes";

/** How far from a wall its face is still meant, px. */
const REACH_PX = 14;
const reach = () => REACH_PX / useDesk.getState().view.k;

/** Colours, tiles and boards of true size on floors, ceilings and walls. */
const act: Act = {
  name: "finishes",
  click: ({ pointer }) => void layFinish(pointer, reach()),
  snap(pointer) {
    const { rows } = useProject.getState();
    const place = placeUnder(pointer, reach());
    const finish = nextFinish(rows);
    if (typeof place === "string") return { at: pointer, words: place };
    return { at: pointer, words: finish ? `${finish.name} on ${whereInWords(rows, place)}` : "make a finish first" };
  },
  Panel: FinishOptions,
  Rows: { of: SurfaceRows, rank: 5 },
  selects: {
    surface: {
      Panel: SelectedSurface,
      remove: (id) => removeRow("surface", id, "Remove a finish from a surface"),
    },
  },
};

export default act;

export const shows: readonly Shown[] = [{ in: isTracing, Marks: Finishes }];
