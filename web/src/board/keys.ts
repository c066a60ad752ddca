import { useEffect } from "react";
import type { XY } from "../geometry/plane";
import { inSight, zoomAt } from "../geometry/view";
import { redo, say, undo, useProject } from "../store/project";
import { currentAct, entriesOf, selectableOf, useActs } from "./act";
import { goTo, setAct, setView, useDesk } from "./desk";
import { lookNear, wantsInk } from "./found";
import { clickAt, stepBack } from "./hand";
import { showOther } from "./place";
import { snapAt } from "./snap";
import { STEPS } from "./steps";
import { showTraced, showWholePage } from "./views";

/** The board's keys. They rest while a field has the focus, and single letters can be switched off. */
export function useKeys(): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const inField =
        e.target instanceof HTMLElement && e.target.closest("input, select, textarea, [role=dialog]") !== null;
      if (e.key === "Escape" && !(e.target instanceof HTMLElement && e.target.closest("[role=dialog]"))) {
        stepBack();
        return;
      }
      if ((e.ctrlKey || e.metaKey) && e.key.toLowerCase() === "z" && !inField) {
        e.preventDefault();
        void (e.shiftKey ? redo() : undo());
        return;
      }
      if (e.altKey && /^[1-5]$/.test(e.key)) {
        e.preventDefault();
        const entry = STEPS[Number(e.key) - 1];
        if (entry) goTo(entry.step);
        return;
      }
      if (inField || e.ctrlKey || e.metaKey || e.altKey) return;
      if (boardKey(e)) e.preventDefault();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}

function boardKey(e: KeyboardEvent): boolean {
  const desk = useDesk.getState();
  const inLedger = e.target instanceof HTMLElement && e.target.closest("aside") !== null;
  if (inLedger && /^(Arrow|Page|Home$|End$)/.test(e.key)) return false;
  const onButton = e.target instanceof HTMLElement && e.target.closest("button, a") !== null;
  // While the slip is open every printable key belongs to it, also before its field has the focus.
  if (desk.slip !== null && e.key.length === 1) {
    useDesk.setState({ slip: desk.slip + e.key, slipError: null });
    document.querySelector<HTMLInputElement>("form[data-slip] input")?.focus();
    return true;
  }
  if (desk.slip && (e.key === "Enter" || e.key === "Backspace")) {
    if (e.key === "Enter") sendSlip();
    else useDesk.setState({ slip: desk.slip.slice(0, -1) });
    return true;
  }
  const act = currentAct();
  if (/^[\d.]$/.test(e.key) && act?.slip?.()?.passes) {
    useDesk.setState({ slip: e.key, slipError: null });
    return true;
  }
  const isOthers = (onButton && e.key === "Enter") || (/^[a-z]$/i.test(e.key) && !desk.singleKeys);
  if (!isOthers && act?.key?.(e)) return true;
  switch (e.key) {
    case "+":
    case "=":
      setView(zoomAt(desk.view, desk.size, [desk.size.width / 2, desk.size.height / 2], 1.25));
      return true;
    case "-":
      setView(zoomAt(desk.view, desk.size, [desk.size.width / 2, desk.size.height / 2], 0.8));
      return true;
    case "ArrowLeft":
    case "ArrowRight":
    case "ArrowUp":
    case "ArrowDown": {
      const step = (desk.act ? (e.shiftKey ? 1 : 12) : 80) / desk.view.k;
      const dx = e.key === "ArrowLeft" ? -step : e.key === "ArrowRight" ? step : 0;
      const dy = e.key === "ArrowDown" ? -step : e.key === "ArrowUp" ? step : 0;
      if (desk.act) movePointer(dx, dy, desk.pointer ?? [desk.view.x, desk.view.y]);
      else setView({ ...desk.view, x: desk.view.x + dx, y: desk.view.y + dy });
      return true;
    }
    case " ":
      if (onButton || !desk.act || !desk.pointer) return false;
      clickAt(desk.pointer, false, e.shiftKey);
      return true;
    case "Backspace":
    case "Delete":
      return removeSelected(inLedger);
    case "?":
      useDesk.setState({ keysShown: true });
      return true;
  }
  return desk.singleKeys && letterKey(e.key.toLowerCase());
}

/** What is selected is removed by the act that knows how, if it is in sight; from the ledger, only if that is certain. */
function removeSelected(inLedger: boolean): boolean {
  const { selected, group, things, view, size } = useDesk.getState();
  const [first] = group;
  const kind = first !== undefined ? "wall" : things.length > 0 ? "drawnLine" : selected?.type;
  const id = first ?? things[0]?.id ?? selected?.id;
  if (kind === undefined || id === undefined || useProject.getState().role === "read") return false;
  const selectable = selectableOf(kind);
  const ends =
    group.length > 0
      ? group.flatMap((one) => selectable?.handles?.(one) ?? [])
      : things.length > 0
        ? things.flatMap((one) => selectableOf(one.type)?.handles?.(one.id) ?? [])
        : selectable?.handles?.(id);
  if (ends ? !inSight(view, size, ends) : inLedger) {
    say("What is selected is out of sight, and was not removed. Bring it into sight first.");
    return true;
  }
  selectable?.remove?.(id);
  return true;
}

/** Enter may come before the slip is there to take it. */
function sendSlip(tries = 5): void {
  const form = document.querySelector<HTMLFormElement>("form[data-slip]");
  if (form) form.requestSubmit();
  else if (tries > 0) requestAnimationFrame(() => sendSlip(tries - 1));
}

/** While a point is wanted the arrow keys move the pointer, and with it the lens. */
function movePointer(dx: number, dy: number, [x, y]: XY): void {
  const pointer: XY = [x + dx, y + dy];
  const snap = snapAt(pointer, false);
  useDesk.setState({ pointer, snap });
  if (wantsInk(snap)) lookNear(pointer, false);
}

function letterKey(key: string): boolean {
  const desk = useDesk.getState();
  for (const step of [...STEPS.map((s) => s.step), null]) {
    const entry = entriesOf(step, desk.side !== null).find((a) => a.key.toLowerCase() === key);
    if (!entry) continue;
    // Who only reads has no act that makes anything.
    if (step !== null && useProject.getState().role === "read") return false;
    if (step === null) setAct(desk.act === entry.act ? null : entry.act, entry.measures ? desk.face : "drawn");
    else if (desk.step !== step) goTo(step, entry.act);
    else setAct(entry.act);
    return true;
  }
  switch (key) {
    case "f":
      showWholePage();
      return true;
    case "h":
      useDesk.setState({ showsOpen: !desk.showsOpen });
      return true;
    case "t":
      showTraced();
      return true;
    case "y":
      void showOther();
      return true;
    case "q":
      useDesk.setState({ holdSquare: !desk.holdSquare });
      return true;
  }
  return [...useActs.getState().steps.values()].some((module) => module.key?.(key));
}
