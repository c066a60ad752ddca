// @vitest-environment happy-dom
import { act as settled } from "react";
import { afterEach, beforeEach, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { useProject } from "../../store/project";
import { withRows } from "../../store/rows";
import { DRAWING, deskWithPlan, json, progress, row, type Serving } from "../../testing/desk";
import { aScreen, press } from "../../testing/screen";
import { useFound } from "../searches";
import { FacadeMarks, FacadeOpenings } from "./FacadeOpenings";

const { show } = aScreen();
let server: Serving;
const shown = (id: string, left: number, sure: boolean) => ({
  id,
  leftMm: left,
  rightMm: left + 1200,
  sillMm: 900,
  headMm: 2100,
  plusMinusMm: 3,
  confidence: sure ? 0.9 : 0.2,
  sure,
});

beforeEach(() => {
  server = deskWithPlan();
  useProject.setState((s) => ({ rows: withRows(s.rows, [row("side", "s", { name: "South" })]) }));
  useDesk.setState({ side: "s", storey: null });
});

afterEach(async () => {
  useDesk.setState({ side: null });
  useFound.setState({ facade: null, looked: null });
});

const showFound = () =>
  show(
    <>
      <FacadeOpenings side="s" drawing={DRAWING} />
      <svg>
        <title>board</title>
        <FacadeMarks screen={[1, 0, 0, 0, -1, 3000]} />
      </svg>
    </>,
  );

it("asks for a search where there was none, and traces all that are sure as outlines with their ±", async () => {
  const working = progress({ kind: "find-openings", about: DRAWING, state: "working" });
  server.answers = {
    ...server.answers,
    facade: { found: false, refused: 0, openings: [] },
    [DRAWING]: json(working, 202),
  };
  await showFound();
  await press("Find the openings in the picture");
  expect(server.asked.map((url) => url.pathname).at(-1)).toContain("/jobs/find-openings/");
  server.answers = {
    ...server.answers,
    facade: {
      found: true,
      refused: 0,
      openings: [shown("b", 4000, true), shown("a", 500, true), shown("c", 7000, false)],
    },
  };
  await settled(async () => useProject.setState({ work: new Map() }));
  await settled(async () => useFound.setState({ facade: { of: DRAWING, told: server.answers.facade as never } }));
  expect(document.body.textContent?.replace(/\s/g, " ")).toContain("2 openings found, 1 more in doubt.");
  expect([...document.querySelectorAll("rect")].map((r) => r.getAttribute("stroke-dasharray"))).toEqual([
    "9 3",
    "9 3",
    "2 4",
  ]);
  expect(document.querySelector("rect")?.getAttribute("y")).toBe("900");
  await press("Trace all 2 that are sure");
  const sent = server.sent.at(-1)?.operations ?? [];
  expect(sent.filter((o) => o.type === "outline").map((o) => o.values)).toMatchObject([
    { side: "s", kind: "face", name: "Opening 1", plusMinusMm: 3 },
    { side: "s", kind: "face", name: "Opening 2", plusMinusMm: 3 },
  ]);
  expect(sent.filter((o) => o.type === "outlineCorner").map((o) => [o.values?.x, o.values?.y])).toEqual([
    [500, 900], [1700, 900], [1700, 2100], [500, 2100], [4000, 900], [5200, 900], [5200, 2100], [4000, 2100],
  ]); // biome-ignore format: eight corners
});

it("refuses what is not wanted, and takes refusals back", async () => {
  server.answers = { ...server.answers, facade: { found: true, refused: 0, openings: [shown("a", 500, true)] } };
  await showFound();
  server.answers = { ...server.answers, refuse: json({ found: true, refused: 1, openings: [] }) };
  await press("Refuse");
  expect(useFound.getState().facade?.told.refused).toBe(1);
  expect(document.body.textContent).toContain("Nothing found is left to trace.");
  await press("take back 1 refused");
});
