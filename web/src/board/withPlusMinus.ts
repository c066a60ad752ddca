import { useProject } from "../store/project";
import { area, fine, unitWord, written } from "../ui/measures";
import { useDesk } from "./desk";

/** ± over length by the fit of the drawing at hand; null while its scale is a guess. */
function relative(): number | null {
  const fit = useProject.getState().rows.fit.get(useDesk.getState().drawing ?? "");
  return fit?.plusMinusMmPer10m == null ? null : fit.plusMinusMmPer10m / 10_000;
}

/** A length in the model with how far it can be trusted by the fit of the drawing at hand. */
export function withPlusMinus(mm: number): string {
  const part = relative();
  const off = part === null ? "" : ` ±${fine(Math.max(1, part * mm), 0)}`;
  return `${written(mm)}${off}${unitWord()}`;
}

/** An area likewise: off by twice as great a part as its sides. */
export function areaWithPlusMinus(m2: number): string {
  const part = relative();
  return `${area(m2)}${part === null ? "" : ` ±${area(2 * part * m2)}`}`;
}
