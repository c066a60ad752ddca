// @vitest-environment happy-dom
import { act as settled } from "react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { useProject } from "../../store/project";
import { withRows } from "../../store/rows";
import { deskWithPlan, row, type Serving } from "../../testing/desk";
import { aScreen, press } from "../../testing/screen";
import { SideView, sideCorners } from "../SideView";
import { differs, differsSurely, heightsOf, isAside, type Match, moving, putting, SideOpenings } from "./SideOpenings";

const { show } = aScreen();
let server: Serving;
const at = (id: string, left: number, right: number, sill: number, head: number) => ({
  id,
  leftMm: left,
  rightMm: right,
  sillMm: sill,
  headMm: head,
});
const window = at("w", 1000, 2200, 3600, 4800);
const match = (values: Partial<Match>): Match => ({
  opening: null,
  outline: null,
  wall: null,
  plusMinusMm: null,
  floorMm: 2700,
  ...values,
});

beforeEach(() => {
  server = deskWithPlan();
  const side = row("side", "s", { name: "South", fromX: 0, fromY: 0, toX: 6000, toY: 0, cut: false });
  const opening = row("opening", "w", { wall: "south", kind: "window", offset: 1000, width: 1200, number: "W01" });
  useProject.setState((s) => ({ rows: withRows(s.rows, [side, opening]) }));
  useDesk.setState({ side: "s", storey: null });
});

afterEach(async () => {
  useDesk.setState({ side: null });
});

it("takes sill and head from what was traced on the side, over the opening’s own floor", async () => {
  const traced = match({ opening: window, outline: at("o", 970, 2170, 3640.4, 4799.6) });
  expect(heightsOf(traced)).toEqual({ sill: 940, height: 1160 });
  server.answers = { ...server.answers, openings: { plusMinusMmPer10m: 12, matches: [traced] } };
  await show(<SideOpenings side="s" />);
  expect(document.body.textContent?.replace(/\s/g, " ")).toContain("W01 sill 900, head 2 100");
  expect(document.body.textContent?.replace(/\s/g, " ")).toContain("here 940 and 2 100 · 30 mm to the left");
  await press("Take them");
  expect(server.sent.at(-1)?.operations).toEqual([
    { do: "set", type: "opening", id: "w", values: { sill: 940, height: 1160 } },
  ]);
});

it("says what is as it should be, and takes nothing from what was not traced", () => {
  expect(differs(match({ opening: window, outline: at("o", 970, 2170, 3601, 4799) }))).toBe(false);
  expect(differs(match({ opening: window }))).toBe(false);
  expect(heightsOf(match({ opening: window }))).toBeNull();
  expect(putting(match({ outline: window }))).toEqual([]);
});

it("differs surely only by more than the tracing may be off, and moves an opening to where the side has it", async () => {
  const wall = { id: "south", offsetMm: 970, widthMm: 1210 };
  const traced = match({ opening: window, outline: at("o", 970, 2180, 3606, 4800), wall, plusMinusMm: 9 });
  expect([differs(traced), differsSurely(traced)]).toEqual([true, false]);
  expect(differsSurely({ ...traced, plusMinusMm: 4 })).toBe(true);
  expect(isAside(traced)).toBe(true);
  expect(isAside(match({ opening: window, outline: at("o", 1001, 2201, 3600, 4800), wall }))).toBe(false);
  expect(moving({ ...traced, wall: null })).toEqual([]);
  server.answers = { ...server.answers, openings: { plusMinusMmPer10m: 12, matches: [traced] } };
  await show(<SideOpenings side="s" />);
  expect(document.body.textContent).toContain("±9");
  await press("Move it there");
  expect(server.sent.at(-1)?.operations).toEqual([
    { do: "set", type: "opening", id: "w", values: { offset: 970, width: 1210 } },
  ]);
});

it("leaves a door on its floor where its foot was missed by a little", () => {
  const door = match({ opening: at("d", 0, 900, 2700, 4740), outline: at("o", 0, 900, 2716, 4754) });
  expect(heightsOf(door)).toEqual({ sill: 0, height: 2054 });
  expect(differs(door)).toBe(true);
  expect(differs(match({ opening: at("d", 0, 900, 2700, 4740), outline: at("o", 0, 900, 2716, 4741) }))).toBe(false);
});

it("puts what the plan lacks into its wall: a door stands on its floor, numbers go on", async () => {
  const wall = { id: "south", offsetMm: 4000, widthMm: 900 };
  const lacking = match({ outline: at("o", 4000, 4900, 2710, 4760), wall });
  expect(putting(lacking)[0]).toMatchObject({
    values: {
      wall: "south",
      kind: "door",
      offset: 4000,
      width: 900,
      sill: 0,
      height: 2060,
      number: "D01",
    },
  });
  server.answers = {
    ...server.answers,
    openings: { plusMinusMmPer10m: null, matches: [match({ outline: at("o", 4000, 4900, 3600, 4800), wall })] },
  };
  await show(<SideOpenings side="s" />);
  await press("Put it in");
  expect(server.sent.at(-1)?.operations[0]?.values).toMatchObject({
    kind: "window",
    sill: 900,
    height: 1200,
    number: "W02",
  });
});

it("draws what the core says is seen, what is cut filled; it holds the side’s line and all storeys", async () => {
  const line = { from: [0, 0], to: [6000, 0], role: "visible", kind: "wall", id: "south", storey: "g" };
  const face = { rings: [[[0, 0], [200, 0], [200, 2700]]], kind: "wall", id: "west", storey: "g" }; // biome-ignore format: one line
  server.answers = { ...server.answers, view: { lines: [line, { ...line, role: "cut" }], faces: [face] } };
  await show(
    <svg>
      <title>board</title>
      <SideView screen={[1, 0, 0, 0, 1, 0]} />
    </svg>,
  );
  const paths = [...document.querySelectorAll("path")].map((p) => p.getAttribute("d"));
  expect(paths[0]).toBe("M0.0 0.0L200.0 0.0L200.0 2700.0Z");
  expect(paths.filter((d) => d === "M0.0 0.0L6000.0 0.0")).toHaveLength(2);
  expect(sideCorners()).toEqual([[0, 0], [6000, 2700]]); // biome-ignore format: one line
  await settled(async () => useDesk.setState({ side: null }));
  expect(sideCorners()).toEqual([]);
});
