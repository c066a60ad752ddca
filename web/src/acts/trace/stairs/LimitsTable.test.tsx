// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, expect, it } from "vitest";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row, type Serving, STOREY } from "../../../testing/desk";
import { aScreen, press, soon } from "../../../testing/screen";
import { LimitsTable } from "./LimitsTable";

const { show } = aScreen();
let server: Serving;
const limit = (measure: string, least: number | null, most: number | null) => ({
  measure,
  least,
  most,
  standing: "a book",
});

beforeEach(() => {
  server = deskWithPlan();
  const limits = [limit("width", 800, null), limit("pitch", null, 42)];
  server.answers = { ...server.answers, stairs: { stairs: [], refused: [], limits } };
});

async function open(more: Parameters<typeof withRows>[1] = []): Promise<void> {
  const stair = row("stair", "s", { storey: STOREY, line: "0 0; 1 1", treads: "" });
  useProject.setState((s) => ({ rows: withRows(s.rows, [stair, ...more]) }));
  await show(<LimitsTable storey={STOREY} />);
  await press("What stairs are held against");
}

it("says what stairs are held against and by whose word; what is typed is the project’s own", async () => {
  await open();
  expect(document.body.textContent).toContain("Width");
  expect(document.body.textContent).toContain("a book");
  // A pitch has no least: width least, width most, pitch most.
  const fields = [...document.querySelectorAll("input")];
  expect(fields.map((f) => f.value)).toEqual(["800 mm", "none", "42°"]);
  await settled(async () => {
    fields[0]?.focus();
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(fields[0], "1000");
    fields[0]?.dispatchEvent(new Event("input", { bubbles: true }));
    fields[0]?.blur();
  });
  await soon();
  expect(server.sent.at(-1)?.operations[0]).toMatchObject({
    do: "add",
    type: "stairLimit",
    values: { measure: "width", least: 1000, most: null, standing: "the project’s own" },
  });
});

it("gives way to what is common where the project’s own is taken back", async () => {
  await open([row("stairLimit", "own", { measure: "width", least: 1000, most: null, standing: "the brief" })]);
  await press("As is common");
  expect(server.sent.at(-1)?.operations[0]).toEqual({ do: "remove", type: "stairLimit", id: "own" });
});
