import { useEffect, useRef } from "react";
import { useProject } from "../store/project";
import { useActs } from "./act";
import { useDesk } from "./desk";

/**
 * Does something at most once a frame after the desk, the project or the acts have changed: what follows the pointer is put in place by
 * hand, so that React is not asked with every move.
 *
 * @param follows what else asks for it; returns how to stop that
 */
export function useFrames(does: () => void, follows?: (ask: () => void) => () => void): void {
  const latest = useRef(does);
  latest.current = does;
  const others = useRef(follows);
  useEffect(() => {
    let asked = 0;
    const ask = () => {
      if (asked === 0)
        asked = requestAnimationFrame(() => {
          asked = 0;
          latest.current();
        });
    };
    const stops = [useDesk.subscribe(ask), useProject.subscribe(ask), useActs.subscribe(ask), others.current?.(ask)];
    ask();
    return () => {
      for (const stop of stops) stop?.();
      cancelAnimationFrame(asked);
    };
  }, []);
}
