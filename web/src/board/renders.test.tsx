// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { Profiler, act as settled } from "react";
import { createRoot, type Root } from "react-dom/client";
import { afterEach, beforeEach, describe, expect, it } from "vitest";
import { loadSteps } from "../acts";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, report, row } from "../testing/desk";
import { useActs } from "./act";
import { Board } from "./Board";
import { type ActName, goTo, setAct, useDesk } from "./desk";
import { Lens } from "./Lens";

let root: Root;
let renders = 0;

function Over() {
  return [...useActs((s) => s.steps)].map(([of, { Over: Each }]) => Each && <Each key={of} />);
}

function Ledger() {
  const step = useDesk((s) => s.step);
  const module = useActs((s) => s.steps.get(step));
  return module && <module.Ledger />;
}

beforeEach(async () => {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  deskWithPlan();
  await loadSteps("trace");
  useProject.setState((s) => ({
    fits: new Map([[DRAWING, report()]]),
    rows: withRows(s.rows, [row("drawing", DRAWING, { ...s.rows.drawing.get(DRAWING), statedScale: null })]),
  }));
  const place = document.createElement("div");
  document.body.append(place);
  root = createRoot(place);
  await settled(async () =>
    root.render(
      <QueryClientProvider client={new QueryClient()}>
        <Profiler id="all" onRender={() => renders++}>
          <Board>
            <Lens />
            <Over />
          </Board>
          <Ledger />
        </Profiler>
      </QueryClientProvider>,
    ),
  );
});

afterEach(async () => {
  await settled(async () => root.unmount());
  document.body.replaceChildren();
});

const board = () => document.querySelector('[data-testid="board"]') as HTMLElement;

async function move(x: number, y: number): Promise<void> {
  await settled(async () => {
    board().dispatchEvent(new PointerEvent("pointermove", { clientX: x, clientY: y, bubbles: true }));
    await new Promise((frame) => setTimeout(frame, 40));
  });
}

describe("a move of the pointer", () => {
  it.each<ActName | null>([
    null,
    "calibrate",
    "square",
    "place",
    "walls",
    "openings",
    "rooms",
    "figures",
    "outline",
    "measure",
  ])("renders nothing in React: %s", async (act) => {
    await settled(async () => {
      goTo(act === "calibrate" || act === "square" || act === "place" ? "true-up" : "trace");
      setAct(act);
      await new Promise((later) => setTimeout(later, 60));
    });
    await move(200, 200);
    // With something begun, where the act begins anything.
    await settled(async () => {
      for (const type of ["pointerdown", "pointerup"])
        board().dispatchEvent(new PointerEvent(type, { clientX: 200, clientY: 200, button: 0, bubbles: true }));
      await new Promise((later) => setTimeout(later, 60));
    });
    const before = renders;
    expect(before, "what is begun was rendered").toBeGreaterThan(0);
    for (let i = 0; i < 8; i++) await move(220 + 17 * i, 190 + 11 * i);
    expect(renders - before).toBe(0);
    expect(useDesk.getState().pointer, "it was moved").not.toBeNull();
  });
});
