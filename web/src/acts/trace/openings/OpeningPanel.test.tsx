// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, expect, it } from "vitest";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row, type Serving } from "../../../testing/desk";
import { aScreen } from "../../../testing/screen";
import { SelectedOpening } from "./OpeningPanel";

const { show } = aScreen();
let server: Serving;
const door = { wall: "north", kind: "door", offset: 500, width: 900, sill: 0, height: 2100, number: "D01" } as const;

beforeEach(() => {
  server = deskWithPlan();
});

it("says of a door where it leads for who escapes and how it is rated, and of a window neither", async () => {
  const opening = row("opening", "o", { ...door, leaf: "single", head: "level", exit: "none", rated: "" });
  useProject.setState((s) => ({ rows: withRows(s.rows, [opening]) }));
  await show(<SelectedOpening id="o" />);
  const final = [...document.querySelectorAll("option, button, label")].find((e) => e.textContent === "final exit");
  expect(final).toBeDefined();
  const choice = final?.closest("select");
  if (choice) {
    await settled(async () => {
      choice.value = "final";
      choice.dispatchEvent(new Event("change", { bubbles: true }));
    });
  } else await settled(async () => (final as HTMLElement).click());
  expect(server.sent.at(-1)?.operations).toEqual([{ do: "set", type: "opening", id: "o", values: { exit: "final" } }]);
  const window = { ...opening, values: { ...opening.values, kind: "window" } } as typeof opening;
  await settled(async () => useProject.setState((s) => ({ rows: withRows(s.rows, [window]) })));
  expect(document.body.textContent).not.toContain("final exit");
});
