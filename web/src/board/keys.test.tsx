// @vitest-environment happy-dom
import { act as settled } from "react";
import { createRoot, type Root } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { useWallOptions } from "../acts/trace/walls/options";
import { useTruthPlot } from "../acts/true-up/plot";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, row, type Sent, type Serving } from "../testing/desk";
import { useActs } from "./act";
import { drafted, setAct, useDesk } from "./desk";
import { useKeys } from "./keys";
import { STEPS } from "./steps";

let server: Serving;
let sent: Sent[];
let root: Root;

function Board() {
  useKeys();
  return (
    <>
      <input />
      <button type="button">Any</button>
      <div role="dialog">
        <p id="told">A question</p>
      </div>
    </>
  );
}

beforeEach(async () => {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  server = deskWithPlan();
  sent = server.sent;
  useDesk.setState({ singleKeys: true });
  const place = document.createElement("div");
  document.body.append(place);
  root = createRoot(place);
  await settled(async () => root.render(<Board />));
});

afterEach(async () => {
  await settled(async () => root.unmount());
  document.body.replaceChildren();
});

/** @returns whether the key was taken, so that the browser does nothing of its own with it */
function press(key: string, held: KeyboardEventInit = {}, on: Element = document.body): boolean {
  const event = new KeyboardEvent("keydown", { key, bubbles: true, cancelable: true, ...held });
  on.dispatchEvent(event);
  return event.defaultPrevented;
}

function element(selector: string): Element {
  const found = document.querySelector(selector);
  if (!found) throw new Error(`There is no ${selector}.`);
  return found;
}

describe("keys", () => {
  it("go to every step, and to every act from whichever step is open", () => {
    STEPS.forEach(({ step }, i) => {
      expect(press(`${i + 1}`, { altKey: true })).toBe(true);
      expect(useDesk.getState().step).toBe(step);
    });
    for (const { step, act, key, on } of useActs.getState().entries) {
      useDesk.setState({ step: "hand-over", act: null, side: on === "side" ? "south" : null });
      expect(press(key.toLowerCase()), `${key} for ${act}`).toBe(true);
      expect(useDesk.getState()).toMatchObject({ step: step ?? "hand-over", act });
    }
  });

  it("of one act are never those of another on the same kind of place", () => {
    const acts = useActs.getState().entries;
    for (const on of ["storey", "side"] as const) {
      const keys = acts.filter((a) => a.on === undefined || a.on === on).map((a) => a.key);
      expect(new Set(keys).size).toBe(keys.length);
    }
  });

  it("rest while a field or a question has the focus, and letters where they are switched off", () => {
    setAct(null);
    expect(press("w", {}, element("input"))).toBe(false);
    expect(press("w", {}, element("#told"))).toBe(false);
    expect(press("w", { ctrlKey: true })).toBe(false);
    useDesk.setState({ singleKeys: false });
    expect(press("w")).toBe(false);
    expect(useDesk.getState().act).toBeNull();
    expect(press("ArrowLeft"), "what is no letter goes on working").toBe(true);
  });

  it("move the view, closer and further, and the pointer where a point is wanted", () => {
    setAct(null);
    useDesk.setState({ view: { x: 0, y: 0, k: 0.1 } });
    press("ArrowRight");
    press("ArrowUp");
    expect(useDesk.getState().view).toEqual({ x: 800, y: 800, k: 0.1 });
    press("+");
    expect(useDesk.getState().view.k).toBeCloseTo(0.125);
    press("-");
    expect(useDesk.getState().view.k).toBeCloseTo(0.1);
    const before = useDesk.getState().view;
    setAct("measure");
    useDesk.setState({ pointer: [1000, 1000] });
    press("ArrowDown");
    press("ArrowLeft", { shiftKey: true });
    expect(useDesk.getState().pointer).toEqual([990, 880]);
    expect(useDesk.getState().view, "the view stays").toEqual(before);
  });

  it("pick at the pointer by Space, but press the button that has the focus", () => {
    setAct("measure");
    useDesk.setState({ pointer: [10_000, 10_000] });
    expect(press(" ", {}, element("button"))).toBe(false);
    expect(drafted("measure")).toBeNull();
    expect(press(" ")).toBe(true);
    expect(drafted("measure")?.points).toEqual([[10_000, 10_000]]);
  });

  it("begin a length while a wall is drawn, all go into the slip then, and back out of it", () => {
    setAct("walls");
    useDesk.setState({ pointer: [10_000, 10_000] });
    expect(press("4"), "with nothing begun a digit means nothing").toBe(false);
    press(" ");
    expect(drafted("chain")?.points).toEqual([[10_000, 10_000]]);
    for (const key of ["4", ".", "5", " ", "m"]) press(key);
    expect(useDesk.getState()).toMatchObject({ slip: "4.5 m", act: "walls" });
    press("Backspace");
    press("Backspace");
    expect(useDesk.getState().slip).toBe("4.5");
    press("Escape");
    expect(useDesk.getState().slip).toBeNull();
    expect(drafted("chain"), "the wall is still being drawn").not.toBeNull();
    press("Enter");
    expect(drafted("chain")).toBeNull();
  });

  it("close an outline by Enter", async () => {
    setAct("outline");
    const ring: [number, number][] = [
      [0, 0],
      [4000, 0],
      [4000, 3000],
    ];
    useDesk.setState({ draft: { of: "outline", ring } });
    expect(press("Enter")).toBe(true);
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations).toHaveLength(4);
    expect(drafted("outline")).toBeNull();
  });

  it("remove nothing that is out of sight", async () => {
    useDesk.setState({ selected: { type: "wall", id: "south" }, view: { x: 900_000, y: 0, k: 0.05 } });
    expect(press("Backspace")).toBe(true);
    expect(useProject.getState().trouble).toContain("out of sight");
    expect(sent).toHaveLength(0);
  });

  it("remove what is selected, undo and redo", async () => {
    useDesk.setState({ selected: { type: "wall", id: "south" } });
    press("Delete");
    await vi.waitFor(() => expect(sent).toHaveLength(1));
    expect(sent[0]?.operations).toEqual([{ do: "removeMany", type: "wall", ids: ["south"] }]);
    useDesk.setState({ selected: { type: "wall", id: "south" } });
    press("z", { ctrlKey: true }, element("input"));
    expect(press("z", { ctrlKey: true })).toBe(true);
    await vi.waitFor(() => expect(sent).toHaveLength(2));
    press("Z", { ctrlKey: true, shiftKey: true });
    await vi.waitFor(() => expect(sent).toHaveLength(3));
    const asked = server.asked.map((url) => url.pathname.split("/").at(-1));
    expect(asked, "in a field they are the field's own").toEqual(["changes", "undo", "redo"]);
  });

  it("go one step back at a time by Escape, and leave a question to itself", () => {
    setAct("walls");
    useDesk.setState({ pointer: [10_000, 10_000], selected: null });
    press(" ");
    press("Escape", {}, element("#told"));
    expect(drafted("chain")).not.toBeNull();
    press("Escape");
    expect([drafted("chain"), useDesk.getState().act]).toEqual([null, "walls"]);
    press("Escape", {}, element("input"));
    expect(useDesk.getState().act).toBeNull();
    useDesk.setState({ selected: { type: "wall", id: "south" } });
    press("Escape");
    expect(useDesk.getState().selected).toBeNull();
  });

  it("switch what they name, on and off", () => {
    useDesk.setState({ showsOpen: false, holdSquare: true, keysShown: false, act: null });
    const switches = () => {
      const { showsOpen, holdSquare, act } = useDesk.getState();
      return [showsOpen, useTruthPlot.getState().shown, holdSquare, act];
    };
    for (const key of ["m", "h", "v", "q"]) press(key);
    expect(switches()).toEqual([true, true, false, "measure"]);
    for (const key of ["h", "v", "q", "m"]) press(key);
    expect(switches()).toEqual([false, false, true, null]);
    press("h");
    press("w");
    expect(switches(), "what floats goes when the act changes").toEqual([false, false, true, "walls"]);
    press("h");
    press("Escape");
    expect(switches(), "and by Escape, before anything else").toEqual([false, false, true, "walls"]);
    setAct("walls");
    const lines = ["x", "x", "x"].map((key) => press(key) && useWallOptions.getState().line);
    expect(lines).toEqual(["right", "left", "centre"]);
    press("?");
    expect(useDesk.getState().keysShown).toBe(true);
    expect(press("%"), "one that means nothing is left to the browser").toBe(false);
  });

  it("show the whole drawing, and what is traced", () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("page", "g", { number: 1, width: 900, height: 900 })]),
    }));
    useDesk.setState({ drawing: DRAWING, size: { width: 924, height: 924 }, view: { x: 0, y: 0, k: 1 } });
    press("f");
    const { view } = useDesk.getState();
    // 900 px of 10 mm, turned by 2°, with 12 px of edge round it.
    expect(view.k).toBeCloseTo(900 / (9000 * (Math.cos(Math.PI / 90) + Math.sin(Math.PI / 90))), 3);
    useDesk.setState({ view: { x: 1e6, y: 1e6, k: 1 } });
    press("t");
    expect(useDesk.getState().view, "where nothing is traced, the drawing").toEqual(view);
  });
});
