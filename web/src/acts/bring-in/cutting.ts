import type { Operation } from "../../api/client";
import { newId } from "../../api/ids";
import { clearDraft, drafted, goTo, useDesk } from "../../board/desk";
import { chooseDrawing } from "../../board/place";
import { showPage } from "../../board/views";
import { change, useProject } from "../../store/project";
import type { DrawingKind, Rows, Thing } from "../../store/rows";
import { inOrder } from "../../store/rows";

/** A box on a page while it is being cut into drawings; page pixels. */
export interface CutBox {
  /** the drawing that it is the outline of; null for one still to be made */
  drawing: string | null;
  left: number;
  top: number;
  width: number;
  height: number;
  name: string;
  kind: DrawingKind;
  /** where it goes: a storey, a side, or a side of its own still to be made */
  place: { storey: string } | { side: string } | "new side";
}

export interface Cutting {
  page: string;
  boxes: readonly CutBox[];
  focused: number;
}

declare module "../../board/desk" {
  interface Drafts {
    /** a page being cut into drawings */
    cut: Cutting;
  }
  interface ActNames {
    cut: true;
  }
}

/** Whether a drawing is still the whole of its page. */
export function isWhole(drawing: Thing<"drawing">, page: Thing<"page">): boolean {
  return drawing.width * drawing.height > 0.98 * page.width * page.height;
}

export function drawingsOfPage(rows: Rows, page: string): Thing<"drawing">[] {
  return inOrder(rows.drawing.values()).filter((d) => d.page === page);
}

/** Opens a page to be cut: with the boxes of its drawings, or with those proposed while it is uncut. */
export function beginCut(page: string): void {
  const project = useProject.getState();
  const row = project.rows.page.get(page);
  const drawings = drawingsOfPage(project.rows, page);
  const [first] = drawings;
  if (!row || !first) return;
  const proposed = project.pages.get(page)?.made?.cuts ?? [];
  const uncut = drawings.length === 1 && isWhole(first, row);
  const boxes: CutBox[] =
    uncut && proposed.length > 0
      ? proposed.map(([left = 0, top = 0, width = 1, height = 1], i) => ({
          drawing: i === 0 ? first.id : null,
          left,
          top,
          width,
          height,
          name: i === 0 ? first.name : `${first.name} ${i + 1}`,
          kind: i === 0 ? first.kind : "plan",
          place: placeOf(first),
        }))
      : drawings.map((d) => ({
          drawing: d.id,
          left: d.left,
          top: d.top,
          width: d.width,
          height: d.height,
          name: d.name,
          kind: d.kind,
          place: placeOf(d),
        }));
  chooseDrawing(first.id);
  goTo("bring-in", "cut");
  useDesk.setState({ draft: { of: "cut", page, boxes, focused: 0 } });
  showPage();
}

export function setBox(index: number, values: Partial<CutBox>): void {
  const cutting = drafted("cut");
  const page = cutting && useProject.getState().rows.page.get(cutting.page);
  if (!cutting || !page) return;
  const boxes = cutting.boxes.map((box, i) => (i === index ? inPage({ ...box, ...values }, page) : box));
  useDesk.setState({ draft: { ...cutting, boxes, focused: index } });
}

/** Moves one edge or the whole of a box, page pixels. */
export function moveBox(index: number, grip: Grip, dx: number, dy: number): void {
  const box = drafted("cut")?.boxes[index];
  if (!box) return;
  const left = grip.includes("w") || grip === "all" ? box.left + dx : box.left;
  const top = grip.includes("n") || grip === "all" ? box.top + dy : box.top;
  const right = box.left + box.width + (grip.includes("e") || grip === "all" ? dx : 0);
  const bottom = box.top + box.height + (grip.includes("s") || grip === "all" ? dy : 0);
  if (right - left < LEAST_PX || bottom - top < LEAST_PX) return;
  setBox(index, { left, top, width: right - left, height: bottom - top });
}

export type Grip = "all" | "n" | "s" | "w" | "e" | "nw" | "ne" | "sw" | "se";
export const GRIPS: readonly Exclude<Grip, "all">[] = ["nw", "n", "ne", "e", "se", "s", "sw", "w"];
const LEAST_PX = 20;

export function addBox(): void {
  const cutting = drafted("cut");
  const page = cutting && useProject.getState().rows.page.get(cutting.page);
  const last = cutting?.boxes.at(-1);
  if (!cutting || !page || !last) return;
  const [width, height] = [page.width * 0.3, page.height * 0.3];
  const box: CutBox = {
    drawing: null,
    left: (page.width - width) / 2,
    top: (page.height - height) / 2,
    width,
    height,
    name: `Drawing ${cutting.boxes.length + 1}`,
    kind: "plan",
    place: last.place,
  };
  useDesk.setState({ draft: { ...cutting, boxes: [...cutting.boxes, box], focused: cutting.boxes.length } });
}

/** Takes a box away; the first cannot go, since a page keeps at least one drawing. */
export function dropBox(index: number): void {
  const cutting = drafted("cut");
  if (!cutting || cutting.boxes.length < 2) return;
  const boxes = cutting.boxes.filter((_, i) => i !== index);
  useDesk.setState({ draft: { ...cutting, boxes, focused: Math.max(0, index - 1) } });
}

export function focusBox(index: number): void {
  const cutting = drafted("cut");
  if (cutting) useDesk.setState({ draft: { ...cutting, focused: index } });
}

/** The page stays as it was cut before. */
export function leaveCut(): void {
  clearDraft();
  useDesk.setState({ act: null });
}

/** Makes the drawings of the boxes, as one change. Boxes of drawings that are there keep their fit and tracing. */
export async function finishCut(): Promise<void> {
  const cutting = drafted("cut");
  if (!cutting) return;
  const { operations, first } = cutOperations(useProject.getState().rows, cutting);
  const refused = await change(
    `Cut a page into ${cutting.boxes.length} drawing${cutting.boxes.length === 1 ? "" : "s"}`,
    operations,
  );
  if (refused) return;
  leaveCut();
  chooseDrawing(first);
  showPage();
}

export function cutOperations(rows: Rows, cutting: Cutting): { operations: Operation[]; first: string } {
  const operations: Operation[] = [];
  const kept = new Set(cutting.boxes.map((b) => b.drawing));
  const ids = cutting.boxes.map((b) => b.drawing ?? newId());
  const [like] = drawingsOfPage(rows, cutting.page);
  let order = Math.max(0, ...[...rows.drawing.values()].map((d) => d.order));
  cutting.boxes.forEach((box, i) => {
    let place = box.place;
    if (place === "new side") {
      const side = newId();
      operations.push({ do: "add", type: "side", id: side, values: { name: box.name } });
      place = { side };
    }
    const values = {
      name: box.name.trim() === "" ? `Drawing ${i + 1}` : box.name,
      kind: box.kind,
      left: box.left,
      top: box.top,
      width: box.width,
      height: box.height,
      storey: "storey" in place ? place.storey : null,
      side: "side" in place ? place.side : null,
    };
    const id = ids[i] ?? newId();
    if (box.drawing !== null) {
      operations.push({ do: "set", type: "drawing", id, values });
    } else {
      const shows = {
        fade: like?.fade ?? 0.75,
        turns: like?.turns ?? 0,
        inkOnly: false,
        tint: "ink" as const,
        before: false,
        order: ++order,
        hidden: false,
      };
      operations.push({ do: "add", type: "drawing", id, values: { page: cutting.page, ...values, ...shows } });
    }
  });
  for (const drawing of drawingsOfPage(rows, cutting.page)) {
    if (!kept.has(drawing.id)) operations.push({ do: "remove", type: "drawing", id: drawing.id });
  }
  return { operations, first: ids[0] ?? "" };
}

function placeOf(drawing: Thing<"drawing">): CutBox["place"] {
  return drawing.storey !== null ? { storey: drawing.storey } : { side: drawing.side ?? "" };
}

function inPage(box: CutBox, page: { width: number; height: number }): CutBox {
  const width = Math.min(box.width, page.width);
  const height = Math.min(box.height, page.height);
  const left = Math.max(0, Math.min(page.width - width, box.left));
  const top = Math.max(0, Math.min(page.height - height, box.top));
  return { ...box, left, top, width, height };
}
