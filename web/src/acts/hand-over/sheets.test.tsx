// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { stepBack } from "../../board/hand";
import { useProject } from "../../store/project";
import { noRows, withRows } from "../../store/rows";
import {
  deskWithPlan,
  type Looked,
  plan,
  presentProject,
  progress,
  row,
  type Serving,
  STOREY,
} from "../../testing/desk";
import { aScreen, press, soon } from "../../testing/screen";
import { loadStep } from "..";
import { SheetLedger } from "./SheetLedger";
import { SheetOver } from "./SheetOver";
import { SheetsCard } from "./SheetsCard";
import { addSheet, lookAt, nameOf, newView, offered, paperOf, type Sheet, takeView, useSheets } from "./sheets";

const { show } = aScreen();
let server: Serving;
const PROJECT = "00000000-0000-7000-8000-0000000000ff";
const SHEET = "00000000-0000-7000-8000-00000000005e";
const VIEW = "00000000-0000-7000-8000-000000000071";

const SVG = `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 420 297"><g data-view="${VIEW}" data-box="100 50 220 180">
<text x="150" y="170" font-size="3.5" data-key="below.openings.1a2b">1500</text><text x="1" y="1" font-size="3" data-left-out="חד">Hall</text></g></svg>`;

const sheet = (id: string, order: number, values: object = {}) =>
  row("printSheet", id, {
    order,
    width: 420,
    height: 297,
    part: "Plans",
    number: `A-0${order + 1}`,
    owner: "",
    creator: "",
    approved: "",
    date: "2026-12-01",
    ...values,
  });
const view = (id: string, values: object = {}) =>
  row("sheetView", id, {
    sheet: SHEET,
    kind: "plan",
    storey: STOREY,
    side: null,
    drawing: null,
    x: 120,
    y: 160,
    scale: 100,
    fromX: null,
    fromY: null,
    toX: null,
    toY: null,
    width: null,
    title: "",
    words: "",
    shows: "dimensions,stamps",
    turn: 0,
    tilt: 0,
    ...values,
  });

/** A project with those rows beside a plan. */
const put = (...rows: ReturnType<typeof row>[]) =>
  settled(async () =>
    presentProject(PROJECT, "00000000-0000-7000-8000-0000000000ac", {
      revision: 1,
      rows: withRows(noRows(), [...plan(), ...rows]),
    }),
  );
const opened = () => useProject.getState().rows.printSheet.get(SHEET) as Sheet;
const latest = (): Looked | undefined => server.sent.at(-1)?.operations.at(-1);
const key = (of: Element | null, name: string, more: object = {}) =>
  settled(async () => void of?.dispatchEvent(new KeyboardEvent("keydown", { key: name, bubbles: true, ...more })));
/** Types into the field that is labelled so, and sets it. */
async function type(label: string, text: string): Promise<void> {
  const labelled = [...document.querySelectorAll("label")].find((l) => l.textContent?.startsWith(label));
  const field = labelled?.querySelector("input") ?? null;
  expect(field, label).not.toBeNull();
  await settled(async () => {
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
    field?.dispatchEvent(new Event("input", { bubbles: true }));
  });
  await key(field, "Enter");
}
const region = () => document.querySelector('section[aria-label="The sheet as it prints"]');
const named = (name: string) => document.querySelector(`[aria-label="${name}"]`);

beforeEach(async () => {
  server = deskWithPlan();
  server.answers["sheet.svg"] = new Response(SVG, { headers: { "Content-Type": "image/svg+xml" } });
  useSheets.setState(useSheets.getInitialState());
  useDesk.setState({ step: "hand-over" });
});

it("proposes a set on the paper that is chosen, takes it in one change, and opens its first sheet", async () => {
  const values = { order: 0, width: 297, height: 420, part: "Site", number: "A-01" };
  server.answers.proposal = {
    sheets: [{ id: SHEET, values, views: [{ id: VIEW, values: { sheet: SHEET, kind: "site" } }] }],
  };
  await show(<SheetsCard />);
  await press("A2");
  await press("Upright");
  await press("Propose a planning set");
  const asked = server.asked.filter((u) => u.pathname.endsWith("/sheets/proposal")).at(-1);
  expect(asked?.searchParams.toString()).toBe("paper=A2&upright=true&part=planning");
  expect(server.sent.at(-1)?.operations).toMatchObject([
    { do: "add", type: "printSheet", id: SHEET, values: { part: "Site" } },
    { do: "add", type: "sheetView", id: VIEW, values: { kind: "site" } },
  ]);
  expect(useSheets.getState().sheet).toBe(SHEET);
});

it("lists sheets in their order, prints them as one, and gives the file once it is of now", async () => {
  await put(sheet("b", 1, { part: "Sides" }), sheet("a", 0));
  await show(<SheetsCard />);
  expect([...document.querySelectorAll("ol button")].map((b) => b.textContent)).toEqual(["A-01Plans", "A-02Sides"]);
  server.answers[PROJECT] = progress({ kind: "print-sheets", about: PROJECT, state: "waiting" });
  await press("Print the set as one PDF");
  const id = PROJECT;
  const work = (state: "working" | "done" | "failed", words = "") =>
    settled(async () =>
      useProject.setState({
        work: new Map([[`print-sheets ${id}`, progress({ kind: "print-sheets", about: id, state, part: 0.4, words })]]),
      }),
    );
  await work("working");
  expect(document.body.textContent).toContain("40 % printed");
  await work("done");
  expect(document.querySelector("a")?.getAttribute("href")).toBe(`/api/projects/${id}/sheets/set.pdf`);
  await settled(async () => useProject.setState((s) => ({ revision: s.revision + 1 })));
  expect(document.querySelector("a"), "A change makes it one of yesterday.").toBeNull();
  await work("failed", "A view shows what is gone.");
  expect(document.body.textContent).toContain("A view shows what is gone.");
});

it("changes title block and paper, puts views on the sheet and goes on to the next one", async () => {
  await put(sheet(SHEET, 0), sheet("z", 1), view(VIEW), row("side", "s", { name: "South", cut: false }));
  lookAt(SHEET);
  await show(<SheetLedger sheet={opened()} />);
  expect(document.body.textContent).toContain("Sheet 1 of 2, A3 lying, 1 view.");
  await type("Owner", "The parish");
  expect(latest()).toMatchObject({ do: "set", type: "printSheet", id: SHEET, values: { owner: "The parish" } });
  await press("A1");
  expect(latest()).toMatchObject({ values: { width: 841, height: 594 } });
  await press("Upright");
  expect(latest()).toMatchObject({ values: { width: 297, height: 420 } });
  const choose = document.querySelector("select") as HTMLSelectElement;
  await settled(async () => {
    choose.value = "side s";
    choose.dispatchEvent(new Event("change", { bubbles: true }));
  });
  await press("Add it");
  expect(latest()).toMatchObject({
    do: "add",
    type: "sheetView",
    values: { sheet: SHEET, kind: "side", side: "s", shows: "dimensions,levels,drawn,notes" },
  });
  takeView(null);
  await soon();
  const links = [...document.querySelectorAll("a")].map((a) => a.getAttribute("href")?.split("/").at(-1));
  expect(links).toEqual(["sheet.pdf", "sheet.svg", "sheet.png", "tiles.pdf?paper=A4", "tiles.pdf?paper=A3"]);
  await press("The next one");
  expect(useSheets.getState()).toMatchObject({ sheet: "z", view: null });
});

it("says what a view shows, at which scale, and takes it off", async () => {
  await put(sheet(SHEET, 0), view(VIEW));
  lookAt(SHEET);
  takeView(VIEW);
  await show(<SheetLedger sheet={opened()} />);
  const box = (words: string) =>
    [...document.querySelectorAll("label")].find((l) => l.textContent === words)?.querySelector("input");
  expect(box("room stamps")?.checked).toBe(true);
  await settled(async () => box("rooms coloured")?.click());
  expect(latest()).toMatchObject({ type: "sheetView", id: VIEW, values: { shows: "dimensions,stamps,colour" } });
  await settled(async () => box("room stamps")?.click());
  expect(String(latest()?.values?.shows)).not.toContain("stamps");
  const scale = document.querySelector("select") as HTMLSelectElement;
  await settled(async () => {
    scale.value = "50";
    scale.dispatchEvent(new Event("change", { bubbles: true }));
  });
  expect(latest()).toMatchObject({ values: { scale: 50 } });
  await type("Only from", "0 0 – 2000 1500");
  expect(latest()).toMatchObject({ values: { fromX: 0, fromY: 0, toX: 2000, toY: 1500 } });
  const count = server.sent.length;
  await type("Only from", "a corner");
  expect(server.sent).toHaveLength(count);
  expect(useProject.getState().trouble).toContain("two corners");
  await press("Take it off the sheet");
  expect(latest()).toMatchObject({ do: "remove", type: "sheetView", id: VIEW });
  expect(useSheets.getState().view).toBeNull();
});

it("brings back what was left out and puts back what was moved", async () => {
  const mark = (id: string, hidden: boolean) =>
    row("viewMark", id, { view: VIEW, of: `below.openings.${id}`, dx: hidden ? 0 : 3, dy: 0, hidden });
  await put(sheet(SHEET, 0), view(VIEW), mark("m1", true), mark("m2", true), mark("m3", false));
  lookAt(SHEET);
  takeView(VIEW);
  await show(<SheetLedger sheet={opened()} />);
  expect(document.body.textContent).toContain("2 things left out.");
  await press("Bring back");
  expect(latest()).toMatchObject({ do: "removeMany", type: "viewMark", ids: ["m1", "m2"] });
  await press("Put back where they would stand");
  expect(latest()).toMatchObject({ do: "removeMany", type: "viewMark", ids: ["m3"] });
});

it("is looked at over the board; by keys a view is moved, and a dimension moved and left out", async () => {
  await loadStep("hand-over");
  await put(sheet(SHEET, 0), view(VIEW), view("other", { x: 300 }));
  lookAt(SHEET);
  await show(<SheetOver />);
  expect(region()?.textContent).toContain("Sheets have no letters for חד");
  expect(named("Dimension 1500"), "Figures are had of the view in hand alone.").toBeNull();
  await key(named("Ground"), "Enter");
  expect(useSheets.getState().view).toBe(VIEW);
  await key(region(), "ArrowRight", { shiftKey: true });
  expect(latest()).toMatchObject({ do: "set", type: "sheetView", id: VIEW, values: { x: 130, y: 160 } });
  await settled(async () =>
    (named("Dimension 1500") as SVGElement | null)?.dispatchEvent(new FocusEvent("focusin", { bubbles: true })),
  );
  useSheets.setState({ figure: "below.openings.1a2b" });
  await key(region(), "ArrowDown");
  expect(latest()).toMatchObject({
    do: "add",
    type: "viewMark",
    values: { view: VIEW, of: "below.openings.1a2b", dx: 0, dy: 1, hidden: false },
  });
  await key(region(), "Delete");
  expect(latest()).toMatchObject({ type: "viewMark", values: { hidden: true } });
  expect(useSheets.getState().figure).toBeNull();
});

it("is gone closer to, and Escape steps back from figure to view to sheet to board", async () => {
  await loadStep("hand-over");
  await put(sheet(SHEET, 0), view(VIEW));
  lookAt(SHEET);
  await show(<SheetOver />);
  const scale = () => document.querySelector<HTMLElement>("[data-paper]")?.style.transform ?? "";
  expect(scale()).toContain("scale(1)");
  await press("closer");
  expect(scale()).toContain("scale(1.5625)");
  await press("all of it");
  expect(scale()).toContain("scale(1)");
  // The wheel as well, and the board under it hears nothing of that.
  let heard = 0;
  const listen = () => heard++;
  document.body.addEventListener("wheel", listen);
  await settled(async () => void region()?.dispatchEvent(new WheelEvent("wheel", { deltaY: -1, bubbles: true })));
  document.body.removeEventListener("wheel", listen);
  expect([scale().includes("scale(1.25)"), heard]).toEqual([true, 0]);
  useSheets.setState({ view: VIEW, figure: "x" });
  const steps = [];
  for (let k = 0; k < 3; k++) {
    await settled(async () => stepBack());
    const { sheet: s, view: v, figure } = useSheets.getState();
    steps.push([s !== null, v !== null, figure !== null]);
  }
  expect(steps).toEqual([
    [true, true, false],
    [true, false, false],
    [false, false, false],
  ]);
  lookAt(SHEET);
  await settled(async () => useDesk.setState({ step: "trace" }));
  expect(region()).toBeNull();
});

it("says in its place what keeps a sheet from being drawn", async () => {
  const message =
    "A view of this sheet shows a storey, side or picture that is not there any more: take the view away.";
  server.answers["sheet.svg"] = new Response(JSON.stringify({ error: { code: "unusable-sheet", message, at: "of" } }), {
    status: 422,
    headers: { "Content-Type": "application/json" },
  });
  await put(sheet(SHEET, 0));
  lookAt(SHEET);
  await show(<SheetOver />);
  expect(region()?.textContent).toContain(message);
});

it("offers whatever there is, named as it is, and adds sheets after the others", async () => {
  await put(
    sheet(SHEET, 4, { owner: "The parish", creator: "mw" }),
    view(VIEW),
    row("side", "c", { name: "Section A", cut: true }),
  );
  const { rows } = useProject.getState();
  const words = offered(rows).map(([, w]) => w);
  expect(words).toEqual(
    expect.arrayContaining(["Ground, plan", "Section A, section", "Roof from above", "d, picture"]),
  );
  expect(newView(opened(), "standing roof")).toMatchObject({ kind: "standing", tilt: 90, turn: 0 });
  expect(newView(opened(), "key ")).toMatchObject({ kind: "key", storey: null, x: 30 });
  const there = rows.sheetView.get(VIEW);
  if (!there) throw new Error("no view");
  expect(nameOf(rows, there)).toBe("Ground");
  expect(nameOf(rows, { ...there, title: "Ground floor as proposed" })).toBe("Ground floor as proposed");
  expect(nameOf(rows, { ...there, kind: "openings" })).toBe("Doors and windows");
  expect(paperOf({ width: 594, height: 841 })).toEqual({ paper: "A1", upright: true });
  expect(paperOf({ width: 700, height: 500 }).paper).toBeNull();
  await addSheet("A0", false);
  expect(latest()).toMatchObject({
    do: "add",
    type: "printSheet",
    values: { order: 5, width: 1189, number: "A-02", owner: "The parish" },
  });
});

/** A press, moves and letting go, at places of the screen. */
async function dragged(what: Element | null, ...places: [number, number][]): Promise<void> {
  const send = (of: Element | null, type: string, [x, y]: [number, number]) =>
    settled(
      async () =>
        void of?.dispatchEvent(new PointerEvent(type, { clientX: x, clientY: y, bubbles: true, pointerId: 1 })),
    );
  await send(what, "pointerdown", places[0] ?? [0, 0]);
  for (const place of places.slice(1)) await send(region(), "pointermove", place);
  await send(region(), "pointerup", places.at(-1) ?? [0, 0]);
}

/** As if the paper were so many pixels wide. */
const paperWide = (px: number) => {
  const paper = document.querySelector<HTMLElement>("[data-paper]");
  if (paper) paper.getBoundingClientRect = () => ({ width: px, height: px / 2, left: 0, top: 0 }) as DOMRect;
};

it("is dragged in millimetres of paper, however large it is shown, and held level with what stands beside it", async () => {
  await put(sheet(SHEET, 0), view(VIEW), view("other", { x: 300, y: 171 }));
  lookAt(SHEET);
  await show(<SheetOver />);
  paperWide(840); // two pixels a millimetre
  // Not in hand it only comes to hand; dragged then it moves.
  await dragged(named("Ground"), [100, 100], [101, 100]);
  expect(useSheets.getState().view).toBe(VIEW);
  expect(server.sent).toHaveLength(0);
  await dragged(named("Ground"), [100, 100], [110, 104], [140, 120]);
  // 20 mm to the right; 10 down brings it within 2 mm of the other's height, which holds it.
  expect(latest()).toMatchObject({ type: "sheetView", id: VIEW, values: { x: 140, y: 171 } });
});

it("moves the figure that is dragged and the sheet under the eye, and takes nothing for a drag that is a click", async () => {
  await put(sheet(SHEET, 0), view(VIEW));
  lookAt(SHEET);
  takeView(VIEW);
  await show(<SheetOver />);
  paperWide(840);
  await dragged(named("Dimension 1500"), [50, 50], [60, 40], [70, 30]);
  expect(latest()).toMatchObject({ type: "viewMark", values: { of: "below.openings.1a2b", dx: 10, dy: -10 } });
  const count = server.sent.length;
  await dragged(named("Dimension 1500"), [50, 50], [51, 51]);
  expect(server.sent).toHaveLength(count);
  const at = () => document.querySelector<HTMLElement>("[data-paper]")?.style.transform ?? "";
  await dragged(region(), [10, 10], [40, 70]);
  expect(at()).toContain("translate(30px, 60px)");
  expect(server.sent).toHaveLength(count);
  // A click beside all views lets go of the one in hand.
  await dragged(region(), [5, 5]);
  expect(useSheets.getState().view).toBeNull();
});

it("lets a reader look and take files, and change nothing", async () => {
  await put(sheet(SHEET, 0), view(VIEW));
  await settled(async () => useProject.setState({ role: "read" }));
  lookAt(SHEET);
  takeView(VIEW);
  await show(<SheetOver />);
  paperWide(840);
  await dragged(named("Ground"), [100, 100], [140, 120]);
  await key(region(), "ArrowRight");
  expect(server.sent).toHaveLength(0);
  await show(<SheetLedger sheet={opened()} />);
  const words = [...document.querySelectorAll("button")].map((b) => b.textContent);
  expect(words).not.toContain("Take it off the sheet");
  await settled(async () => takeView(null));
  await soon();
  expect([...document.querySelectorAll("button")].map((b) => b.textContent)).not.toContain("Remove this sheet");
  expect(document.querySelectorAll("a")).toHaveLength(5);
});
