import { difference } from "../../ui/measures";
import { withPlusMinus } from "../withPlusMinus";
import { apart, type Taken } from "./taking";

/** What is measured in space, as far as it has been pointed at: straight, level and up. */
export function Measured({ points }: { points: readonly Taken[] }) {
  const [a, b] = points;
  const found = a && b ? apart(a.at, b.at) : null;
  return (
    <>
      <svg
        className="pointer-events-none absolute left-1/2 top-1/2 -ml-2 -mt-2 text-plum"
        width="16"
        height="16"
        aria-hidden
      >
        <path d="M8 1V6M8 10V15M1 8H6M10 8H15" stroke="currentColor" strokeOpacity="0.6" />
      </svg>
      <div
        role="status"
        className="absolute left-3 top-3 rounded-lg border border-line bg-sheet px-3 py-2 text-[13px]"
        data-testid="measured"
      >
        {found ? (
          <>
            <span className="block text-lg font-semibold text-plum">{withPlusMinus(found.straight)}</span>
            <span className="block text-quiet">
              {withPlusMinus(found.level)} level, {difference(found.up)} up
            </span>
          </>
        ) : (
          <span className="block text-quiet">
            {a ? "Point at where it ends." : "Point at a corner, an edge or a face; Space takes what is in the middle."}
          </span>
        )}
        {a && (
          <span className="block text-quiet">
            from {withArticle(a.on)}
            {b && ` to ${withArticle(b.on)}`}
          </span>
        )}
      </div>
    </>
  );
}

const withArticle = (on: Taken["on"]) => (on === "edge" ? "an edge" : `a ${on}`);
