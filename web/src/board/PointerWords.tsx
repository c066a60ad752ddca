import { useRef } from "react";
import { apply } from "../geometry/maps";
import { toScreen } from "../geometry/view";
import { currentAct } from "./act";
import { useDesk } from "./desk";
import { useFrames } from "./frames";

/** ms after which words beside the pointer are said aloud */
const REST_MS = 350;

/** Snaps, lengths and angles in words beside the pointer. */
export function PointerWords() {
  const words = useRef<HTMLDivElement>(null);
  const said = useRef<HTMLDivElement>(null);
  const resting = useRef<ReturnType<typeof setTimeout>>(undefined);
  useFrames(() => {
    const node = words.current;
    if (!node) return;
    const { pointer, slip, snap, size, view } = useDesk.getState();
    const tip = snap?.at ?? pointer;
    const lines = pointer && tip && !slip ? [...(currentAct()?.words?.(tip) ?? []), ...(snap ? [snap.words] : [])] : [];
    node.hidden = lines.length === 0;
    if (lines.length === 0 || !tip) return;
    const text = lines.join(" · ");
    if (node.textContent !== text) {
      node.textContent = text;
      // Said aloud where the hand has come to rest, not on its way.
      clearTimeout(resting.current);
      resting.current = setTimeout(() => {
        if (said.current) said.current.textContent = text;
      }, REST_MS);
    }
    const [x, y] = apply(toScreen(view, size), tip);
    // Towards the middle of the board, so that no word is cut off at its edge.
    const { width, height } = size;
    node.style.left = x < 0.6 * width ? `${x + 16}px` : "auto";
    node.style.right = x < 0.6 * width ? "auto" : `${width - x + 16}px`;
    node.style.top = y < 0.9 * height ? `${y + 16}px` : "auto";
    node.style.bottom = y < 0.9 * height ? "auto" : `${height - y + 16}px`;
  });
  return (
    <>
      <div ref={said} role="status" aria-label="Under the pointer" className="sr-only" />
      <div
        ref={words}
        hidden
        className="pointer-events-none absolute rounded-md bg-ink px-2 py-1 text-[13px] leading-snug whitespace-nowrap text-white"
        data-testid="pointer-words"
      />
    </>
  );
}
