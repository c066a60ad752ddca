import { useEffect } from "react";
import { useDesk } from "../../board/desk";
import { sayGone, sayWhere } from "../../store/presence";

/** ms between two words that one is still here; the server waits three times as long */
const AGAIN_MS = 12_000;
/** ms that one stays somewhere before it is said */
const SETTLED_MS = 250;

/** Tells the others on a project where one is, for as long as the page is open and seen. */
export function usePresence(project: string | null): void {
  useEffect(() => {
    if (project === null) return;
    const here = () => useDesk.getState().storey ?? useDesk.getState().side;
    const say = () => {
      if (document.visibilityState === "visible") void sayWhere(here());
    };
    let soon: ReturnType<typeof setTimeout> | undefined;
    const stop = useDesk.subscribe((now, old) => {
      if (now.storey === old.storey && now.side === old.side) return;
      clearTimeout(soon);
      soon = setTimeout(say, SETTLED_MS);
    });
    const timer = setInterval(say, AGAIN_MS);
    const leave = () => void sayGone(project);
    document.addEventListener("visibilitychange", say);
    window.addEventListener("pagehide", leave);
    say();
    return () => {
      stop();
      clearTimeout(soon);
      clearInterval(timer);
      document.removeEventListener("visibilitychange", say);
      window.removeEventListener("pagehide", leave);
      leave();
    };
  }, [project]);
}
