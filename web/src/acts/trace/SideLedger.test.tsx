// @vitest-environment happy-dom
import { beforeEach, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { useProject } from "../../store/project";
import { withRows } from "../../store/rows";
import { DRAWING, deskWithPlan, row } from "../../testing/desk";
import { aScreen, press } from "../../testing/screen";
import { useHidden } from "../SideView";
import { SideLedger } from "./SideLedger";

const { show } = aScreen();
const button = () => [...document.querySelectorAll("button")].find((b) => b.textContent === "Hidden lines");

beforeEach(() => {
  deskWithPlan();
  useHidden.setState({ hidden: false });
  const line = { fromX: 0, fromY: 0, toX: 6000, toY: 0, cut: false, depth: null, jogs: "" };
  const none = { ...line, fromX: null, fromY: null, toX: null, toY: null };
  const sides = [row("side", "s", { name: "South", ...line }), row("side", "d", { name: "Details", ...none })];
  useProject.setState((s) => ({ rows: withRows(s.rows, sides) }));
});

it.each([null, DRAWING])(
  "a side draws its hidden lines too where that is asked for, with a picture or without",
  async (drawing) => {
    useDesk.setState({ side: "s", storey: null, drawing, act: null });
    await show(<SideLedger side="s" />);
    await press("Hidden lines");
    expect(useHidden.getState().hidden).toBe(true);
    expect(button()?.getAttribute("aria-pressed")).toBe("true");
  },
);

it("what has no line sees nothing, and offers none", async () => {
  useDesk.setState({ side: "d", storey: null, drawing: DRAWING, act: null });
  await show(<SideLedger side="d" />);
  expect(button()).toBeUndefined();
});
