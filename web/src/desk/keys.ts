import { useEffect } from "react";
import { apply, viewOf, type XY, zoomAt } from "../board/geometry";
import type { Picture } from "../board/picture";
import { STEPS } from "../steps/steps";
import { redo, undo, useProject } from "../store/project";
import { clickAt, showOther, stepBack } from "./acts";
import { goTo, NOTHING_DRAFTED, setAct, setView, useDesk } from "./desk";
import { removeSelected } from "./editing";
import { closeOutline } from "./elevation";
import { lookNear } from "./found";
import { pageWhole, pictureOf } from "./selectors";
import { isPicking, snapAt } from "./snap";

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
  if ((desk.chain || desk.rectangle || desk.arc.length === 2) && /^[\d.]$/.test(e.key)) {
    useDesk.setState({ slip: e.key, slipError: null });
    return true;
  }
  switch (e.key) {
    case "Enter":
      if (!onButton && desk.ring.length > 2) {
        void closeOutline();
        return true;
      }
      if (onButton || !desk.chain) return false;
      useDesk.setState(structuredClone(NOTHING_DRAFTED));
      return true;
    case "Backspace":
    case "Delete":
      removeSelected();
      return true;
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
    case "?":
      useDesk.setState({ keysShown: true });
      return true;
  }
  return desk.singleKeys && letterKey(e.key.toLowerCase());
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
  if (snap?.sigmaPx === undefined && isPicking(useDesk.getState().act)) lookNear(pointer, false);
}

function letterKey(key: string): boolean {
  for (const { step, acts } of STEPS) {
    const onSide = useDesk.getState().side !== null;
    const entry = acts.find((a) => a.key.toLowerCase() === key && (a.on === undefined || (a.on === "side") === onSide));
    if (entry) {
      if (useDesk.getState().step !== step) goTo(step, entry.act);
      else setAct(entry.act);
      return true;
    }
  }
  const desk = useDesk.getState();
  switch (key) {
    case "m":
      setAct(desk.act === "measure" ? null : "measure");
      return true;
    case "f":
      showWholePage();
      return true;
    case "h":
      useDesk.setState({ showsOpen: !desk.showsOpen });
      return true;
    case "v":
      useDesk.setState({ truthPlot: !desk.truthPlot });
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
    case "x":
      useDesk.setState({ line: desk.line === "right" ? "left" : desk.line === "left" ? "centre" : "right" });
      return true;
  }
  return false;
}

/** The drawing that is worked on, filling the board; while its page is being cut, the page. */
export function showWholePage(): void {
  const { drawing, cutting } = useDesk.getState();
  const project = useProject.getState();
  showPicture(cutting ? pageWhole(project, drawing) : pictureOf(project, drawing));
}

/** The whole page under the drawing that is worked on. */
export function showPage(): void {
  showPicture(pageWhole(useProject.getState(), useDesk.getState().drawing));
}

function showPicture(picture: Picture | null): void {
  const { size } = useDesk.getState();
  if (!picture) return;
  const { left, top, width, height } = picture.crop;
  const corners: XY[] = [
    [left, top],
    [left + width, top],
    [left + width, top + height],
    [left, top + height],
  ];
  const view = viewOf(
    corners.map((c) => apply(picture.pixelToMm, c)),
    size,
    12,
  );
  if (view) setView(view);
}

export function showTraced(): void {
  const { storey, size } = useDesk.getState();
  const shapes = storey === null ? undefined : useProject.getState().derived.get(storey);
  const points: XY[] = [];
  for (const { stretches } of shapes?.walls.values() ?? []) {
    for (const { right, left } of stretches) {
      for (const p of [...right, ...left]) points.push([p[0] ?? 0, p[1] ?? 0]);
    }
  }
  const view = viewOf(points, size);
  if (view) setView(view);
  else showWholePage();
}
