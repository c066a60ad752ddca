// @vitest-environment happy-dom
import { act as settled } from "react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row } from "../../../testing/desk";
import { aScreen } from "../../../testing/screen";
import { showIn } from "../../../ui/measures";
import { OpeningOptions } from "./OpeningOptions";

const { show } = aScreen();

beforeEach(() => {
  deskWithPlan();
});

afterEach(async () => {
  showIn("mm");
});

it("offers the usual widths as sizes are shown, and types them so that they are read back as they are", async () => {
  const door = { wall: "north", kind: "door", offset: 0, width: 812.8, sill: 0, height: 2032, number: "D01" } as const;
  useProject.setState((s) => ({ rows: withRows(s.rows, [row("opening", "o", door)]) }));
  showIn("ft-in/16");
  useDesk.setState({ draft: { of: "jamb", wall: "south", from: 1000 } });
  await show(<OpeningOptions />);
  const usual = [...document.querySelectorAll("button")].find((b) => b.textContent === "2'-8\"");
  await settled(async () => usual?.click());
  expect(useDesk.getState().slip).toBe("2'-8\"");
});
