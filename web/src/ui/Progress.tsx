import { Plain } from "./parts";

/** A bar with a true figure, and the way to stop it while there is one. */
export function Progress({ part, words, stop }: { part: number; words: string; stop: (() => void) | null }) {
  return (
    <div className="mt-1.5 flex items-center gap-2">
      <div
        className="h-2 flex-1 overflow-hidden rounded bg-stone"
        role="progressbar"
        aria-valuenow={Math.round(part * 100)}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-label={words}
      >
        <div className="h-full bg-teal" style={{ width: `${part * 100}%` }} />
      </div>
      <span className="text-[13px] whitespace-nowrap text-quiet">{words}</span>
      {stop && <Plain onClick={stop}>Stop</Plain>}
    </div>
  );
}
