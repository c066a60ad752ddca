import { useDrafted } from "../../../board/desk";
import { Holds } from "./FigurePanel";

/** What is clicked in this act, and which face stays. */
export function FigureOptions() {
  const faces = useDrafted("faces")?.faces ?? [];
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Figures">
      <p className="text-quiet">
        {faces.length === 0
          ? "Click the face that the drawing figures from, then the one it figures to; twice on a wall for its length, once on the middle of an opening for its width."
          : faces.length === 1
            ? "Now the face that it figures to."
            : "Type what the drawing says; the face that does not stay is moved."}
      </p>
      {faces.length === 2 && <Holds />}
    </section>
  );
}
