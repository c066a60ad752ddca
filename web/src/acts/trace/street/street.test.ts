import { beforeEach, describe, expect, it, vi } from "vitest";
import { setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { streetParts } from "../../../store/street";
import { deskWithPlan, row, type Serving } from "../../../testing/desk";
import { addAll, addPart, askRow, movePart, reachOf } from "./street";

let server: Serving;
const side = (id: string, values = {}) =>
  row("side", id, {
    name: id,
    fromX: null,
    fromY: null,
    toX: null,
    toY: null,
    cut: false,
    depth: null,
    jogs: "",
    ...values,
  });
const part = (id: string, of: string, order: number, fromX: number, toX: number, rise = 0) =>
  row("streetPart", id, { street: "street", side: of, order, fromX, toX, rise });
const there = (...rows: ReturnType<typeof row>[]) => useProject.setState((s) => ({ rows: withRows(s.rows, rows) }));
const latest = () => server.sent.at(-1)?.operations;

beforeEach(() => {
  server = deskWithPlan();
  there(side("street"), side("south", { fromX: 0, fromY: 0, toX: 6000, toY: 0 }), side("next"));
  useDesk.setState({ storey: null, side: "street", drawing: null });
});

it("puts sides in a row as far as their lines go", async () => {
  await addAll();
  expect(latest()?.map((o) => o.values)).toEqual([
    { street: "street", side: "south", order: 0, fromX: 0, toX: 6000, rise: 0 },
  ]);
});

it("puts further ones at its right end", async () => {
  there(part("a", "south", 4, 0, 6000));
  await addPart("next");
  expect(latest()?.[0]?.values).toMatchObject({ side: "next", order: 5, fromX: 0, toX: 5000 });
});

it("goes as far as its picture where a side has no line", () => {
  const { rows } = useProject.getState();
  const [c, s] = [10, 0];
  there(
    row("drawing", "photo", {
      side: "next",
      storey: null,
      page: "g",
      left: 100,
      top: 0,
      width: 700,
      height: 500,
      order: 0,
    }),
    row("fit", "photo", { m00: c, m01: s, m02: -500, m10: s, m11: -c, m12: 0, m20: 0, m21: 0, m22: 1 }),
  );
  const next = useProject.getState().rows.side.get("next");
  if (!next) throw new Error("There is no side.");
  expect(reachOf(useProject.getState().rows, next)).toEqual([500, 7500]);
  expect(reachOf(rows, next)).toEqual([0, 5000]);
});

it("moves a side past its neighbour", async () => {
  there(part("b", "next", 2, -500, 2500, 300), part("a", "south", 1, 1000, 5000));
  const parts = streetParts(useProject.getState().rows, "street");
  movePart(parts[0]?.part as never, 1);
  await vi.waitFor(() => expect(server.sent).toHaveLength(1));
  expect(latest()?.map((o) => [o.id, o.values?.order])).toEqual([
    ["b", 0],
    ["a", 1],
  ]);
});

/** Two places of the row, the second once the first is taken. */
async function point(first: XY, second: XY): Promise<void> {
  clickAt(first, true);
  await vi.waitFor(() => expect(useDesk.getState().draft).toMatchObject({ first }));
  clickAt(second, true);
}

describe("two places", () => {
  beforeEach(() => {
    there(part("a", "south", 1, 0, 6000), part("b", "next", 2, 0, 3000, 200));
    setAct("street");
  });

  it("say where its corners are", async () => {
    askRow("corners", "b");
    await point([8500, 0], [6200, 0]);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(latest()?.[0]).toMatchObject({ id: "b", values: { fromX: 200, toX: 2500 } });
  });

  it("say that it is as high there as its neighbour is", async () => {
    askRow("level", "b");
    await point([3000, 2500], [7000, 2900]);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(latest()?.[0]).toMatchObject({ id: "b", values: { rise: -200 } });
  });

  it("say nothing where both are of one side", async () => {
    askRow("level", "b");
    await point([7000, 2900], [7500, 100]);
    await vi.waitFor(() => expect(useProject.getState().trouble ?? "").toContain("neighbour"));
    expect(server.sent).toHaveLength(0);
  });
});
