import type { Operation } from "../../api/client";
import { newId } from "../../api/ids";
import { clearDraft, drafted, goTo, useDesk } from "../../board/desk";
import { chooseDrawing } from "../../board/place";
import { showPage } from "../../board/views";
import { ask, change, type ProjectState, useProject } from "../../store/project";
import type { DrawingKind, Rows, Thing } from "../../store/rows";
import { inOrder } from "../../store/rows";
import { Places, placedBy, placeOf, titleIn, type Wanted } from "./places";

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
  place: Wanted;
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
  const { cuts: proposed = [], titles = [] } = project.pages.get(page)?.made ?? {};
  const uncut = drawings.length === 1 && isWhole(first, row);
  const boxes: CutBox[] =
    uncut && proposed.length > 0
      ? proposed.map(([left = 0, top = 0, width = 1, height = 1], i) => {
          const name = i === 0 ? first.name : `${first.name} ${i + 1}`;
          const title = titleIn(titles, { left, top, width, height });
          const box = { drawing: i === 0 ? first.id : null, left, top, width, height };
          if (!title) return { ...box, name, kind: i === 0 ? first.kind : "plan", place: placeOf(first) };
          return { ...box, name: title.words, ...placedBy(project.rows, title, placeOf(first), title.words) };
        })
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
  if (project.pages.get(page)?.made?.titles === undefined && project.role !== "read") void ask("find-way-up", page);
  chooseDrawing(first.id);
  goTo("bring-in", "cut");
  useDesk.setState({ draft: { of: "cut", page, boxes, focused: 0 } });
  showPage();
}

/** What the titles in the boxes say of those that are called and placed otherwise. */
export function titled(project: Pick<ProjectState, "rows" | "pages">, { page, boxes }: Cutting): Partial<CutBox>[] {
  const titles = project.pages.get(page)?.made?.titles ?? [];
  return boxes.map((box) => {
    const title = titleIn(titles, box);
    if (!title) return {};
    const { kind, place } = placedBy(project.rows, title, box.place, title.words);
    const isSo = box.name === title.words && box.kind === kind && JSON.stringify(box.place) === JSON.stringify(place);
    return isSo ? {} : { name: title.words, kind, place };
  });
}

/** Names and places the boxes as the titles in them say. */
export function nameByTitles(): void {
  const cutting = drafted("cut");
  if (!cutting) return;
  const said = titled(useProject.getState(), cutting);
  useDesk.setState({ draft: { ...cutting, boxes: cutting.boxes.map((box, i) => ({ ...box, ...said[i] })) } });
}

export function setBox(index: number, values: Partial<CutBox>): void {
  const cutting = drafted("cut");
  const page = cutting && useProject.getState().rows.page.get(cutting.page);
  if (!cutting || !page) return;
  const boxes = cutting.boxes.map((box, i) =>
    i === index ? inPage({ ...box, ...values, ...follows(box, values) }, page) : box,
  );
  useDesk.setState({ draft: { ...cutting, boxes, focused: index } });
}

/** A side of its own is called what its drawing is called. */
function follows({ name, place }: CutBox, values: Partial<CutBox>): Partial<CutBox> {
  const isItsOwn = "newSide" in place && place.newSide === name && values.place === undefined;
  return isItsOwn && values.name !== undefined ? { place: { newSide: values.name } } : {};
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
  const places = new Places(rows);
  const operations: Operation[] = [];
  const kept = new Set(cutting.boxes.map((b) => b.drawing));
  const ids = cutting.boxes.map((b) => b.drawing ?? newId());
  const [like] = drawingsOfPage(rows, cutting.page);
  let order = Math.max(0, ...[...rows.drawing.values()].map((d) => d.order));
  cutting.boxes.forEach((box, i) => {
    const place = places.at(box.place);
    const values = {
      name: box.name.trim() === "" ? `Drawing ${i + 1}` : box.name,
      kind: box.kind,
      left: box.left,
      top: box.top,
      width: box.width,
      height: box.height,
      ...place,
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
  return { operations: [...places.operations, ...operations], first: ids[0] ?? "" };
}

function inPage(box: CutBox, page: { width: number; height: number }): CutBox {
  const width = Math.min(box.width, page.width);
  const height = Math.min(box.height, page.height);
  const left = Math.max(0, Math.min(page.width - width, box.left));
  const top = Math.max(0, Math.min(page.height - height, box.top));
  return { ...box, left, top, width, height };
}
