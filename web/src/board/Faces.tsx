import { lazy, Suspense } from "react";
import { useDesk } from "./desk";
import { askAhead, useReadiness } from "./standing/bodies";

/** Comes with what it takes to draw in space only once it is wanted. */
const StandingView = lazy(() => import("./standing/StandingView"));

const FACES = [
  ["drawn", "drawn"],
  ["standing", "3D"],
] as const;

/** The board's two faces: the drawing with what is traced over it, and the building as it stands. */
export function Faces({ children }: { children: React.ReactNode }) {
  const face = useDesk((s) => s.face);
  // What stands is what was traced; while drawings are brought in and trued up the corner is theirs.
  const isOffered = useDesk((s) => s.face === "standing" || (s.step !== "bring-in" && s.step !== "true-up"));
  useReadiness(isOffered && face === "drawn");
  return (
    <div className="relative flex min-w-0 flex-1">
      {children}
      {face === "standing" && (
        <Suspense
          fallback={<p className="absolute inset-0 z-20 bg-board p-6 text-quiet">The building is being put up.</p>}
        >
          <StandingView />
        </Suspense>
      )}
      {isOffered && (
        <fieldset
          className="absolute right-3 top-9 z-21 flex overflow-hidden rounded-lg border border-line bg-white text-[13px]"
          aria-label="Face of the board"
        >
          {FACES.map(([of, name]) => (
            <button
              key={of}
              type="button"
              aria-pressed={face === of}
              className={`px-2.5 py-1 ${face === of ? "bg-ink font-semibold text-white" : ""}`}
              onClick={() => {
                if (of === "standing" && face !== of) askAhead();
                useDesk.setState({ face: of });
              }}
            >
              {name}
            </button>
          ))}
        </fieldset>
      )}
    </div>
  );
}
