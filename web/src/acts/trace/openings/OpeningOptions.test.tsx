// @vitest-environment happy-dom
import { act as settled } from "react";
import { createRoot, type Root } from "react-dom/client";
import { afterEach, beforeEach, expect, it } from "vitest";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row } from "../../../testing/desk";
import { showIn } from "../../../ui/measures";
import { OpeningOptions } from "./OpeningOptions";

let root: Root;

beforeEach(() => {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  deskWithPlan();
  const place = document.createElement("div");
  document.body.append(place);
  root = createRoot(place);
});

afterEach(async () => {
  await settled(async () => root.unmount());
  document.body.replaceChildren();
  showIn("mm");
});

it("offers the usual widths as sizes are shown, and types them so that they are read back as they are", async () => {
  const door = { wall: "north", kind: "door", offset: 0, width: 812.8, sill: 0, height: 2032, number: "D01" } as const;
  useProject.setState((s) => ({ rows: withRows(s.rows, [row("opening", "o", door)]) }));
  showIn("ft-in/16");
  useDesk.setState({ draft: { of: "jamb", wall: "south", from: 1000 } });
  await settled(async () => root.render(<OpeningOptions />));
  const usual = [...document.querySelectorAll("button")].find((b) => b.textContent === "2'-8\"");
  await settled(async () => usual?.click());
  expect(useDesk.getState().slip).toBe("2'-8\"");
});
