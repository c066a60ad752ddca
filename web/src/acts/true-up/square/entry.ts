import type { ActEntry } from "../../../board/act";
import { inkOffGrid } from "../../../store/fits";

declare module "../../../board/desk" {
  interface ActNames {
    square: true;
  }
}

export default {
  act: "square",
  step: "true-up",
  order: 20,
  label: "Square",
  key: "G",
  when: "turn it to the grid: by the ink, a line, a figure",
  /** What the ink says of the turn, until something is stated about it. */
  hint(project, drawing) {
    const off = project.fits.get(drawing ?? "")?.determined.turn ? null : inkOffGrid(project, drawing);
    return off === null ? null : `${Math.abs(off).toFixed(2)}° off`;
  },
} satisfies ActEntry;
