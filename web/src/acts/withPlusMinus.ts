import { useDesk } from "../board/desk";
import { useProject } from "../store/project";
import { grouped } from "../ui/numbers";

/** A length in the model with how far it can be trusted by the fit of the drawing at hand. */
export function withPlusMinus(mm: number): string {
  const fit = useProject.getState().rows.fit.get(useDesk.getState().drawing ?? "");
  const relative = fit?.plusMinusMmPer10m ?? null;
  const off = relative === null ? "" : ` ±${grouped(Math.max(1, (relative * mm) / 10_000))}`;
  return `${grouped(mm)}${off} mm`;
}
