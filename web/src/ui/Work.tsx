import { ask, stop, useProject } from "../store/project";
import { type Asked, workKey } from "../store/work";
import { Progress } from "./Progress";
import { Plain } from "./parts";

/** What each kind of long work says of itself. */
const SAYS: Record<Asked, { done: string; stopped: string; again: string }> = {
  "import-page": { done: "read in", stopped: "Stopped.", again: "Try again" },
  "rectify-drawing": {
    done: "straightened",
    stopped: "Stopped: the picture shows as it was taken, the fit holds.",
    again: "Straighten it",
  },
  "find-way-up": { done: "read", stopped: "Stopped before its end.", again: "Read it again" },
  "find-walls": { done: "looked through", stopped: "Stopped before its end.", again: "Look again" },
  "find-openings": { done: "looked through", stopped: "Stopped before its end.", again: "Look again" },
  "read-figures": { done: "read", stopped: "Stopped before its end.", again: "Read again" },
  "print-sheets": { done: "printed", stopped: "Stopped: nothing was printed.", again: "Print them" },
};

/** How far a piece of long work is, with its stop; why it came to nothing, with the way to begin it again. */
export function Work({ kind, about }: { kind: Asked; about: string }) {
  const work = useProject((s) => s.work.get(workKey(kind, about)));
  const { done, stopped, again } = SAYS[kind];
  switch (work?.state) {
    case "waiting":
      return <Progress part={0} words="waits for its turn" stop={() => void stop(kind, about)} />;
    case "working": {
      const percent = Math.round(work.part * 100);
      return <Progress part={work.part} words={`${percent} % ${done}`} stop={() => void stop(kind, about)} />;
    }
    case "failed":
    case "stopped":
      return (
        <div role="alert" className="mt-1.5 flex items-start justify-between gap-2 text-[13px]">
          {work.state === "failed" ? (
            <span className="text-rust">{work.words}</span>
          ) : (
            <span className="text-quiet">{stopped}</span>
          )}
          <Plain onClick={() => void ask(kind, about)}>{again}</Plain>
        </div>
      );
    default:
      return null;
  }
}
