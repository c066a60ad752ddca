// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { useProject } from "../../store/project";
import { deskWithPlan, STOREY } from "../../testing/desk";
import { aScreen, press } from "../../testing/screen";
import { HandOverLedger } from "./HandOverLedger";
import { useSheets } from "./sheets";

const { show } = aScreen();

/** Where the button that says so leads. */
const taken = (words: string) =>
  [...document.querySelectorAll("a[download]")].find((a) => a.textContent === words)?.getAttribute("href");
/** Presses a choice of the group that is called so. */
const chosen = (group: string, words: string) =>
  settled(async () => {
    const found = document.querySelector(`fieldset[aria-label="${group}"]`)?.querySelectorAll("button") ?? [];
    [...found].find((b) => b.textContent === words)?.click();
  });
const project = () => useProject.getState().id;

beforeEach(async () => {
  deskWithPlan();
  useSheets.setState(useSheets.getInitialState());
  const shapes = useProject.getState().derived.get(STOREY);
  expect(shapes).toBeDefined();
  if (!shapes) return;
  // One wall that has been derived is enough for something to be handed over.
  const walls = new Map(shapes.walls).set("south", { id: "south", stretches: [], openings: {}, findings: [] } as never);
  await settled(async () => {
    useProject.setState({ derived: new Map([[STOREY, { ...shapes, walls }]]) });
    useDesk.setState({ step: "hand-over", storey: STOREY });
  });
  await show(<HandOverLedger />);
});

it("gives this storey as DXF with plain layers, or all of them with those of the standard", async () => {
  const path = `/api/projects/${project()}`;
  expect(taken("Take the DXF")).toBe(`${path}/storeys/${STOREY}/plan.dxf?layers=plain`);
  await press("ISO 13567");
  await chosen("DXF of", "All storeys");
  expect(taken("Take the DXF")).toBe(`${path}/building.dxf?layers=iso13567`);
  await chosen("DXF of", "This one");
  expect(taken("Take the DXF")).toBe(`${path}/storeys/${STOREY}/plan.dxf?layers=iso13567`);
});

it("gives the plan document of the whole building, which another project takes, or of this storey", async () => {
  expect(taken("Take the plan document")).toBe(`/api/projects/${project()}/plan.json`);
  await chosen("Plan document of", "This one");
  expect(taken("Take the plan document")).toBe(`/api/projects/${project()}/storeys/${STOREY}/plan.json`);
});

it("gives tables in the format that is chosen", async () => {
  expect(taken("Take the building’s tables")).toBe(`/api/projects/${project()}/tables.ods`);
  for (const [words, suffix] of [
    ["XLSX", "xlsx"],
    ["CSV", "zip"],
    ["ODS", "ods"],
  ] as const) {
    await press(words);
    expect(taken("Take the building’s tables")).toBe(`/api/projects/${project()}/tables.${suffix}`);
  }
});

it("gives the whole building in open formats, and says of each what is in it and what is not", () => {
  expect(taken("Take the archive")).toBe(`/api/projects/${project()}/archive.zip`);
  expect(taken("Take the IFC")).toBe(`/api/projects/${project()}/building.ifc`);
  expect(taken("Take the GeoJSON")).toBe(`/api/projects/${project()}/plan.geojson`);
  expect(taken("Take the building")).toBe(`/api/projects/${project()}/building.glb`);
  for (const card of document.querySelectorAll("section:has(> a[download])")) {
    expect(card.textContent, card.querySelector("h3")?.textContent ?? "").toContain("Not in it:");
  }
});
