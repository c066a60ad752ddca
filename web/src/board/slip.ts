import type { Operation, Refused } from "../api/client";
import { isClash } from "../store/edits";
import { lengthOf } from "../store/lengths";
import { change, say } from "../store/project";
import { clearDraft, useDesk } from "./desk";

/** Reads a length above zero, or says at the slip why it is none. */
export async function read(text: string): Promise<number | null> {
  try {
    const mm = await lengthOf(text);
    if (mm > 0) return mm;
    useDesk.setState({ slipError: "A length must be longer than zero." });
  } catch (error) {
    useDesk.setState({ slipError: (error as Refused).message });
  }
  return null;
}

/** A length and, where it is typed, an angle: `4.2 m`, `4.2 m 30°`; null after what is wrong with it was said. */
export async function readAlong(text: string): Promise<{ mm: number; radians: number | null } | null> {
  const [, length = text, angle] = /^(.*?)(?:\s+(-?\d+(?:\.\d+)?)\s*°)?$/.exec(text.trim()) ?? [];
  const mm = await read(length);
  return mm === null ? null : { mm, radians: angle === undefined ? null : (Number(angle) * Math.PI) / 180 };
}

/**
 * Sends a change and clears the draft at once, so that the next pick need not wait for the answer. A refusal brings the
 * draft back with its reason, unless the hand has gone on to something else.
 *
 * @param draft what it comes of, where that was cleared before
 */
export async function sendDraft(
  title: string,
  operations: Operation[],
  draft = useDesk.getState().draft,
): Promise<void> {
  const { slip, draft: now } = useDesk.getState();
  if (now === draft) clearDraft();
  const refused = await change(title, operations);
  // What met somebody else's change is decided beside it.
  if (!refused || isClash(refused) || useDesk.getState().draft) return;
  useDesk.setState({ draft, slip, slipError: refused.message });
  // The error stands at the slip, not twice.
  say(null);
}
