import { useDesk } from "../board/desk";
import { useProject } from "../store/project";
import { fine, unitWord, written } from "../ui/measures";

/** A length in the model with how far it can be trusted by the fit of the drawing at hand. */
export function withPlusMinus(mm: number): string {
  const fit = useProject.getState().rows.fit.get(useDesk.getState().drawing ?? "");
  const relative = fit?.plusMinusMmPer10m ?? null;
  const off = relative === null ? "" : ` ±${fine(Math.max(1, (relative * mm) / 10_000), 0)}`;
  return `${written(mm)}${off}${unitWord()}`;
}
