import type { Operation, Refused, Row, Schemas } from "../api/client";

/** What a hand has done: made here, kept until the server has acknowledged it. */
export interface Edit {
  /** under which it is known for ever, however often it is sent */
  id: string;
  kind: "change" | "undo" | "redo";
  title: string;
  operations: Operation[];
  /** carry along what was traced, where a fit moves; kept where it is otherwise */
  carry: boolean;
  /** the revision that was shown when it was composed */
  base: number;
  /** own edits on their way by then, on which it stands */
  after: string[];
  /** what an undo or a redo was said to be about; null where nobody knew */
  target: string | null;
}

/** An edit that met somebody else's change, or was put aside: kept until its author has decided. */
export interface Clash {
  edit: Edit;
  message: string;
  /** the rows concerned, as they are now */
  theirs: Row[];
  gone: boolean;
  /** who changed them, by what and when */
  by: Schemas["Touch"] | null;
}

/** All of one tab's that the server has not acknowledged. */
export interface Unsent {
  edits: Edit[];
  clashes: Clash[];
}

/** Why what is to be sent waits. */
export interface Held {
  why: "away" | "signed-out" | "failing";
  message: string;
  /** how often in a row it was tried */
  tries: number;
}

const MET = ["changed-since", "gone", "other-step", "base-ahead"];

/** Whether an edit was refused because of what somebody else has done meanwhile. */
export function isClash(refused: Refused): boolean {
  return MET.includes(refused.code);
}
