// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import { useDesk } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { deskWithPlan, row, type Serving, STOREY } from "../../../testing/desk";
import { aScreen, press, soon } from "../../../testing/screen";
import { StreetPanel } from "../street/StreetPanel";
import { Drawn } from "./Drawn";
import { DimensionPanel, LinePanel } from "./DrawnPanels";
import { DrawnRows } from "./DrawnRows";
import { DrawOptions } from "./DrawOptions";
import { useDrawOptions } from "./draw";
import { SweepPanel } from "./SweepPanel";
import { Sweeps, sweepUnder } from "./Sweeps";

const { show } = aScreen();
let server: Serving;

/** Writes into the field of a label and leaves it. */
async function write(label: string, text: string): Promise<void> {
  const input = [...document.querySelectorAll("label")].find((l) => l.textContent === label)?.querySelector("input");
  expect(input, label).not.toBeNull();
  await settled(async () => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
    set?.call(input, text);
    input?.dispatchEvent(new Event("input", { bubbles: true }));
  });
  await settled(async () => {
    input?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true }));
  });
  await soon();
}

async function choose(label: string, value: string): Promise<void> {
  const select = [...document.querySelectorAll("label")]
    .find((l) => l.textContent?.startsWith(label))
    ?.querySelector("select");
  expect(select, label).not.toBeNull();
  await settled(async () => {
    if (select) select.value = value;
    select?.dispatchEvent(new Event("change", { bubbles: true }));
  });
  await soon();
}

const latest = () => server.sent.at(-1)?.operations[0];
const there = (...rows: ReturnType<typeof row>[]) => useProject.setState((s) => ({ rows: withRows(s.rows, rows) }));
const words = () => document.body.textContent ?? "";

const SHAPE = row("drawnLine", "shape", {
  storey: STOREY,
  side: null,
  drawing: null,
  name: "",
  line: "0 0; 100 0; 100 50 -12; 0 50",
  closed: true,
  kind: "dashed",
  fill: "hatched",
});
const PATH = row("drawnLine", "path", {
  storey: null,
  side: "south",
  drawing: null,
  name: "Arch",
  line: "0 0 300; 900 0",
  closed: false,
  kind: "continuous narrow",
  fill: "none",
});
const moulding = (values = {}) =>
  row("sweep", "m", {
    storey: STOREY,
    name: "Cornice",
    profile: "shape",
    heldX: 0,
    heldY: 1,
    outline: null,
    path: null,
    level: 2700,
    inward: false,
    ...values,
  });

beforeEach(() => {
  server = deskWithPlan();
  useDrawOptions.setState(useDrawOptions.getInitialState());
  there(row("side", "south", { name: "South", fromX: 0, fromY: 0, toX: 6000, toY: 0 }));
});

describe("a selected line", () => {
  beforeEach(() => {
    there(SHAPE);
    server.answers.shape = { lengthMm: 302.5, areaM2: 0.0052 };
    useDesk.setState({ selected: { type: "drawnLine", id: "shape" } });
  });

  it("says what it measures, and takes another kind, fill, name, and corners by figures", async () => {
    await show(<LinePanel id="shape" />);
    expect(words()).toContain("Shape of 4 corners");
    expect(words()).toContain("round it");
    await choose("line", "long-dashed dotted");
    expect(latest()?.values).toEqual({ kind: "long-dashed dotted" });
  });

  it("opens, and closes again", async () => {
    await show(<LinePanel id="shape" />);
    await press("Closed");
    expect(latest()?.values).toEqual({ closed: false });
  });

  it("is made longer from a corner on", async () => {
    await show(<LinePanel id="shape" />);
    await write("to the next", "250");
    expect(latest()?.values).toEqual({ line: "0 0; 250 0; 100 50 -12; 0 50" });
  });

  it("is arranged by figures, each of which speaks once", async () => {
    await show(<LinePanel id="shape" />);
    await write("copies", "3");
    await write("move by x y", "500 0");
    expect(latest()).toMatchObject({
      do: "arrange",
      arrange: { things: [{ type: "drawnLine", id: "shape" }], by: [500, 0], copies: 3 },
    });
  });

  it("is turned about its middle, and mirrored there", async () => {
    await show(<LinePanel id="shape" />);
    await write("turn by °", "30");
    const turned = latest() as unknown as { arrange: { turn: number; about: [number, number] } };
    expect(turned.arrange.turn).toBe(30);
    expect(turned.arrange.about[0]).toBeCloseTo(50, 6);
  });

  it("becomes a moulding round the walls of a storey, as high as its walls, and selects it", async () => {
    await show(<LinePanel id="shape" />);
    await choose("take it along", STOREY);
    expect(latest()).toMatchObject({
      do: "add",
      type: "sweep",
      values: { storey: STOREY, profile: "shape", heldX: 0, heldY: 1, outline: null, path: null, level: 2700 },
    });
    expect(useDesk.getState().selected?.type).toBe("sweep");
  });
});

it("several lines are told by their number, and changed and removed together", async () => {
  there(SHAPE, PATH);
  useDesk.setState({
    selected: null,
    things: [
      { type: "drawnLine", id: "shape" },
      { type: "drawnLine", id: "path" },
    ],
  });
  await show(<LinePanel id="" />);
  expect(words()).toContain("2 things");
  expect(words(), "they are of two kinds").toContain("several");
  await press("Remove");
  expect(server.sent.at(-1)?.operations.map((o) => [o.do, o.id])).toEqual([
    ["remove", "shape"],
    ["remove", "path"],
  ]);
  expect(useDesk.getState().things).toEqual([]);
});

it("a dimension is measured another way, and its line stands elsewhere, by a figure", async () => {
  there(
    row("dimension", "d", { storey: STOREY, side: null, x1: 0, y1: 0, x2: 300, y2: 400, direction: null, off: 50 }),
  );
  await show(<DimensionPanel id="d" />);
  expect(words()).toContain("500");
  await press("upright");
  expect(latest()?.values).toEqual({ direction: 90 });
});

describe("a moulding", () => {
  const ring = [
    [0, 0],
    [6000, 0],
    [6000, 4000],
    [0, 4000],
  ];

  it("says why it has no body, and is held another way", async () => {
    there(SHAPE, moulding());
    server.answers.sweeps = { sweeps: [], refused: [{ id: "m", message: "The profile is too wide for the corner." }] };
    await show(<SweepPanel id="m" />);
    expect(words()).toContain("too wide");
    await press("its middle");
    expect(latest()?.values).toEqual({ heldX: 0.5 });
  });

  it("goes along the eaves of a roof, told from their edge, or a line on a side, told from its face", async () => {
    there(SHAPE, PATH, moulding(), row("outline", "roof", { storey: STOREY, side: null, kind: "roof", name: "Roof" }));
    server.answers.sweeps = { sweeps: [], refused: [] };
    await show(<SweepPanel id="m" />);
    expect(words()).toContain("the eaves of Roof");
    expect(words()).toContain("Arch, on South");
    await choose("along", "roof");
    expect(latest()?.values).toEqual({ outline: "roof", path: null, level: 0 });
  });

  it("is told from the face that its path stands on", async () => {
    there(SHAPE, PATH, moulding({ path: "path", level: 20 }));
    server.answers.sweeps = { sweeps: [], refused: [] };
    await show(<SweepPanel id="m" />);
    expect(words()).toContain("before the side");
    await choose("along", "");
    expect(latest()?.values).toEqual({ outline: null, path: null });
  });

  it("shows on the plan, dashed where it lies over the cut, and is meant by its edge", async () => {
    there(SHAPE, moulding());
    server.answers.sweeps = { sweeps: [{ id: "m", rings: [ring], bottomMm: 2400 }], refused: [] };
    await show(
      <svg>
        <title>plan</title>
        <Sweeps screen={[0.1, 0, 0, 0, -0.1, 0]} />
      </svg>,
    );
    const path = document.querySelector("path");
    expect(path?.getAttribute("stroke-dasharray")).toBe("10 3");
    expect(path?.getAttribute("d")?.startsWith("M0.0,")).toBe(true);
    expect(sweepUnder([3000, 20], 40)).toBe("m");
    expect(sweepUnder([3000, 2000], 40)).toBeNull();
    useDesk.setState({ storey: null, side: "south" });
    expect(sweepUnder([3000, 20], 40)).toBeNull();
  });
});

it("what is drawn shows by its kind and fill, and dimensions with their figure", async () => {
  there(
    SHAPE,
    row("dimension", "d", { storey: STOREY, side: null, x1: 0, y1: 0, x2: 0, y2: 900, direction: null, off: 200 }),
  );
  await show(
    <svg>
      <title>board</title>
      <Drawn screen={[1, 0, 0, 0, -1, 0]} />
    </svg>,
  );
  const paths = [...document.querySelectorAll("path")];
  expect(paths.some((p) => p.getAttribute("fill")?.includes("hatch-45"))).toBe(true);
  expect(paths.some((p) => p.getAttribute("stroke-dasharray")?.startsWith("14."))).toBe(true);
  expect(document.querySelector("text")?.textContent).toContain("900");
  await show(<DrawnRows storey={STOREY} side={null} />);
  expect(words()).toContain("Shape of 4 corners");
  expect(words()).toContain("Dimension");
});

it("says how the next one is drawn", async () => {
  await show(<DrawOptions />);
  await press("an arc");
  expect(useDrawOptions.getState().stretch).toBe("arc");
  await press("dimension");
  expect(words()).toContain("then where its line stands");
  await press("level");
  expect(useDrawOptions.getState().measures).toBe("level");
  await press("Hold to the ink");
  expect(useDrawOptions.getState().ink).toBe(false);
});

describe("a row of sides", () => {
  it("is begun on a side that has no line, and one of its parts lifted or taken out", async () => {
    there(
      row("side", "street", { name: "Street", fromX: null, fromY: null, toX: null, toY: null }),
      row("streetPart", "a", { street: "street", side: "south", order: 0, fromX: 0, toX: 6000, rise: 0 }),
    );
    useDesk.setState({ storey: null, side: "street" });
    await show(<StreetPanel />);
    expect(words()).toContain("in a row");
    await write("higher by", "300");
    expect(latest()).toMatchObject({ type: "streetPart", id: "a", values: { rise: 300 } });
  });

  it("has nothing to say of a side that has a line", async () => {
    useDesk.setState({ storey: null, side: "south" });
    await show(<StreetPanel />);
    expect(words()).toContain("a side that has none");
  });
});
