import { create } from "zustand";
import { isRowEdit, type Operation, type Refused } from "../api/client";
import { currentAct } from "../board/act";
import { type Caution, clearDraft, type Picked, useDesk } from "../board/desk";
import { isClash } from "../store/edits";
import { attempt, change, say, towardsChange, useProject } from "../store/project";

/** A change of the fit that would move the picture under what is traced: kept or carried along, as the user says. */
export interface PendingFit {
  title: string;
  operations: Operation[];
  mm: number;
  traced: number;
}

/** What waits for a word before it is stated. */
export const usePending = create<{
  fit: PendingFit | null;
  slip: { title: string; operations: Operation[]; caution: Caution } | null;
}>(() => ({ fit: null, slip: null }));

export function addPick(id: string, drawing: string, p: Picked): Operation {
  return { do: "add", type: "pick", id, values: { drawing, x: p.at[0], y: p.at[1], sigmaPx: p.sigmaPx } };
}

/**
 * A statement about a drawing is tried first: slips are said before anything is taken, and where it would move the picture under
 * what is traced already, the user says which of the two stays. The draft is cleared at once, so that the hand can go on; it comes
 * back with what was wrong, or, where the hand has gone on, the ledger says it.
 */
export function sendStatement(title: string, operations: Operation[], text: string | null = null): Promise<void> {
  return towardsChange(() => tryAndSend(title, operations, text));
}

async function tryAndSend(title: string, operations: Operation[], text: string | null): Promise<void> {
  const { caution, drawing, draft, slip } = useDesk.getState();
  const accepted = caution !== null && caution.text === text;
  clearDraft();
  const comeBack = (why: { caution: Caution } | { slipError: string }): boolean => {
    if (text === null || useDesk.getState().draft || !currentAct()?.wanted) return false;
    useDesk.setState({ draft, slip, ...why });
    return true;
  };
  try {
    const tried = await attempt(operations);
    const [found] = tried?.slips ?? [];
    if (found && text !== null && !accepted) {
      const said: Caution = { text, code: found.code, message: found.message, wouldBeMm: found.wouldBeMm };
      if (!comeBack({ caution: said })) usePending.setState({ slip: { title, operations, caution: said } });
      return;
    }
    const guess = drawing === null || (useProject.getState().rows.fit.get(drawing)?.isGuess ?? true);
    const move = tried?.moves.find((m) => m.traced > 0 && m.mm > 0.5);
    if (move && !guess) {
      usePending.setState({ fit: { title, operations, mm: move.mm, traced: move.traced } });
      return;
    }
  } catch (error) {
    const { message } = error as Refused;
    if (!comeBack({ slipError: message })) say(message);
    return;
  }
  const refused = await change(title, operations);
  // The error stands at the slip, not twice.
  if (refused && !isClash(refused) && comeBack({ slipError: refused.message })) say(null);
}

/** A figure that was found to look like a slip after the hand had gone on: taken as typed, as it would agree, or left. */
export function settlePendingSlip(as: "typed" | "mended" | "left"): void {
  const { slip: pendingSlip } = usePending.getState();
  if (!pendingSlip) return;
  usePending.setState({ slip: null });
  if (as === "left") return;
  const text = `${Math.round(pendingSlip.caution.wouldBeMm * 10) / 10} mm`;
  const operations = pendingSlip.operations.map(
    (o): Operation =>
      as === "mended" && isRowEdit(o) && o.type === "knownLength"
        ? { ...o, values: { ...o.values, text, unit: "mm" } }
        : o,
  );
  void change(pendingSlip.title, operations);
}

/** The tracing stays and the picture moves, or both move together. */
export function settlePendingFit(carry: boolean): void {
  const { fit: pendingFit } = usePending.getState();
  if (!pendingFit) return;
  usePending.setState({ fit: null });
  void change(pendingFit.title, pendingFit.operations, carry);
}

type Stated = "knownLength" | "gridPick" | "rectangle" | "controlPoint" | "levelMark";

/** What removing a statement takes: itself, and its picks where nothing else uses them. */
export function removal(type: Stated, id: string, picks: readonly (string | null)[]): Operation[] {
  const { rows } = useProject.getState();
  const others = [
    ...[...rows.knownLength.values()].filter((s) => s.id !== id).flatMap((s) => [s.a, s.b, s.c]),
    ...[...rows.gridPick.values()].filter((s) => s.id !== id).flatMap((s) => [s.a, s.b]),
    ...[...rows.rectangle.values()].filter((s) => s.id !== id).flatMap((s) => [s.a, s.b, s.c, s.d]),
    ...[...rows.controlPoint.values(), ...rows.levelMark.values()].filter((s) => s.id !== id).map((s) => s.pick),
  ];
  const alone = picks.filter((p): p is string => p !== null && !others.includes(p));
  return [{ do: "remove", type, id }, ...alone.map((pick): Operation => ({ do: "remove", type: "pick", id: pick }))];
}

const REMOVED: Record<Stated, string> = {
  knownLength: "Remove a known length",
  gridPick: "Remove a grid line",
  rectangle: "Remove a room of known size",
  controlPoint: "Remove a placed point",
  levelMark: "Remove a level mark",
};

export function picksOf(type: Stated, id: string): (string | null)[] {
  const { rows } = useProject.getState();
  switch (type) {
    case "knownLength": {
      const l = rows.knownLength.get(id);
      return l ? [l.a, l.b, l.c] : [];
    }
    case "gridPick": {
      const g = rows.gridPick.get(id);
      return g ? [g.a, g.b] : [];
    }
    case "rectangle": {
      const r = rows.rectangle.get(id);
      return r ? [r.a, r.b, r.c, r.d] : [];
    }
    case "levelMark":
    case "controlPoint": {
      const c = rows.controlPoint.get(id) ?? rows.levelMark.get(id);
      return c ? [c.pick] : [];
    }
  }
}

export function removeStatement(type: Stated, id: string): Promise<void> {
  return sendStatement(REMOVED[type], removal(type, id, picksOf(type, id)));
}
