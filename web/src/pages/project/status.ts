import type { DeskState, Step } from "../../board/desk";
import { isTestedOneWayOnly, testedPlusMinus } from "../../store/fits";
import type { ProjectState } from "../../store/project";
import { isUnderWay, picturesAre } from "../../store/work";
import { overSpan, plusMinusBeside, unitWord } from "../../ui/measures";
import { count } from "../../ui/numbers";

/** Each step's state in one line. */
export function statusOf(
  step: Step,
  project: ProjectState,
  desk: Pick<DeskState, "drawing" | "storey" | "side">,
): string {
  const { rows } = project;
  const fit = desk.drawing === null ? undefined : project.fits.get(desk.drawing);
  const shapes = desk.storey === null ? undefined : project.derived.get(desk.storey);
  const isComing = desk.storey !== null && project.missing.has(desk.storey);
  if (isComing && (step === "trace" || step === "prove")) return "is loading";
  switch (step) {
    case "bring-in": {
      if (rows.page.size === 0) return "nothing yet";
      const busy = [...project.work.values()].filter((p) => p.kind === "import-page" && isUnderWay(p)).length;
      return busy > 0 ? `${busy} being read` : count(rows.page.size, "page");
    }
    case "true-up": {
      if (!fit) return "nothing to true up yet";
      const { mm } = testedPlusMinus(fit);
      if (mm === null) return "scale is a guess";
      const good = mm > project.tolerance ? "not yet enough" : isTestedOneWayOnly(fit) ? "one way only" : "good enough";
      return `${plusMinusBeside(mm, project.tolerance)}${unitWord()} over ${overSpan()}, ${good}`;
    }
    case "trace": {
      if (desk.side !== null) {
        const outlines = [...rows.outline.values()].filter((o) => o.side === desk.side).length;
        const levels = fit?.levels.length ?? 0;
        return levels + outlines === 0 ? "nothing yet" : `${count(levels, "level")}, ${count(outlines, "outline")}`;
      }
      const walls = [...rows.wall.values()].filter((w) => w.storey === desk.storey).length;
      const boundaries = [...rows.boundary.values()].filter((b) => b.storey === desk.storey).length;
      if (walls === 0) return boundaries === 0 ? "nothing yet" : count(boundaries, "boundary");
      const leaks = shapes?.leaks.length ?? 0;
      return `${count(walls, "wall")}, ${count(shapes?.regions.size ?? 0, "room")}${leaks ? `, ${count(leaks, "leak")}` : ""}`;
    }
    case "prove": {
      const found = (shapes?.findings.length ?? 0) + undecided(project, desk.storey).length;
      const isHere = (id: string) => {
        const at = rows.drawing.get(id);
        return at !== undefined && at.storey === desk.storey && at.side === desk.side;
      };
      const checks = [...rows.knownLength.values()].filter((l) => l.heldOut && isHere(l.drawing)).length;
      return found > 0 ? count(found, "finding") : checks > 0 ? count(checks, "check length") : "no check length yet";
    }
    case "hand-over":
      return rows.wall.size > 0 ? "DXF, plan document" : "ready when you are";
  }
}

export function isDone(
  step: Step,
  project: ProjectState,
  desk: Pick<DeskState, "drawing" | "storey" | "side">,
): boolean {
  const fit = desk.drawing === null ? undefined : project.fits.get(desk.drawing);
  const shapes = desk.storey === null ? undefined : project.derived.get(desk.storey);
  switch (step) {
    case "bring-in":
      return [...project.pages.keys()].some((page) => picturesAre(project, page) === "ready");
    case "true-up":
      return (
        (fit?.plusMinusMmPer10m ?? Number.POSITIVE_INFINITY) <= project.tolerance && (fit?.determined.turn ?? false)
      );
    case "trace":
      return (
        shapes !== undefined &&
        shapes.regions.size > 0 &&
        shapes.leaks.length === 0 &&
        [...shapes.regions.values()].every((r) => r.id !== null)
      );
    default:
      return false;
  }
}

/** Figures of a storey that nothing was decided about, and that are traced otherwise. */
export function undecided(project: ProjectState, storey: string | null) {
  return [...project.rows.figure.values()].filter((f) => f.storey === storey && f.decided === "open");
}
