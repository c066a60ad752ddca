import type { Operation, Refused } from "../api/client";
import { api, settled } from "../api/client";
import { isClash } from "../store/edits";
import { change, say, useProject } from "../store/project";
import { NOTHING_DRAFTED, useDesk } from "./desk";

export function projectUnit() {
  const [project] = useProject.getState().rows.project.values();
  return project?.unit ?? "mm";
}

/** Reads a length above zero, or says at the slip why it is none. */
export async function read(text: string): Promise<number | null> {
  try {
    const { mm } = await settled(api.GET("/api/length", { params: { query: { text, unit: projectUnit() } } }));
    if (mm > 0) return mm;
    useDesk.setState({ slipError: "A length must be longer than zero." });
  } catch (error) {
    useDesk.setState({ slipError: (error as Refused).message });
  }
  return null;
}

/** A length typed into a field of the ledger; what is wrong with it is said on top. */
export async function typed(text: string, take: (mm: number) => unknown): Promise<void> {
  const mm = await lengthOf(text);
  if (mm !== null) take(mm);
}

/** @returns mm, or null after what is wrong with the length was said on top */
async function lengthOf(text: string): Promise<number | null> {
  try {
    return (await settled(api.GET("/api/length", { params: { query: { text, unit: projectUnit() } } }))).mm;
  } catch (error) {
    say((error as Refused).message);
    return null;
  }
}

/** Width and depth as typed, `350` or `350 × 450`, in mm; null after what is wrong with them was said on top. */
export async function sidesOf(text: string): Promise<readonly [number, number] | null> {
  const [width = "", depth = width] = text.split(/[x×*]/i);
  const [w, d] = [await lengthOf(width), await lengthOf(depth)];
  return w === null || d === null ? null : [w, d];
}

/**
 * Sends a change and clears the draft at once, so that the next pick need not wait for the answer. A refusal brings the
 * draft back with its reason, unless the hand has gone on to something else.
 */
export async function sendDraft(title: string, operations: Operation[], carry = false): Promise<void> {
  const { picks, focusedEnd, ticks, door, roomAt, noteAt, slip } = useDesk.getState();
  useDesk.setState(structuredClone(NOTHING_DRAFTED));
  const refused = await change(title, operations, carry);
  // What met somebody else's change is decided beside it.
  if (!refused || isClash(refused)) return;
  const now = useDesk.getState();
  if (now.picks.length > 0 || now.door || now.roomAt || now.noteAt || now.chain) return;
  useDesk.setState({ picks, focusedEnd, ticks, door, roomAt, noteAt, slip, slipError: refused.message });
  // The error stands at the slip, not twice.
  say(null);
}
