// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { stepBack } from "../../board/hand";
import { deskWithPlan, json, type Serving, STOREY } from "../../testing/desk";
import { aScreen, press } from "../../testing/screen";
import { loadStep } from "..";
import { SheetCard, useSheet } from "./SheetCard";
import { SheetView } from "./SheetView";

const { show } = aScreen();
let server: Serving;

const asked = () =>
  server.asked
    .filter((u) => u.pathname.endsWith("sheet.svg"))
    .at(-1)
    ?.searchParams.toString();

beforeEach(() => {
  server = deskWithPlan();
  server.answers["sheet.svg"] = new Response("<svg xmlns='http://www.w3.org/2000/svg'/>", {
    headers: { "Content-Type": "image/svg+xml" },
  });
  useSheet.setState(useSheet.getInitialState());
  useDesk.setState({ step: "hand-over" });
});

it("asks for the paper and the scale that are chosen, and gives files of the same", async () => {
  await show(<SheetCard storey={STOREY} ready />);
  expect(asked()).toBe("paper=A3");
  await press("A1");
  await press("1:50");
  await press("Upright");
  expect(asked()).toBe("paper=A1&upright=true&scale=50");
  const links = [...document.querySelectorAll("a")].map((a) => a.getAttribute("href") ?? "");
  expect(links.map((l) => l.split("/").at(-1))).toEqual([
    "sheet.pdf?paper=A1&upright=1&scale=50",
    "sheet.svg?paper=A1&upright=1&scale=50",
    "sheet.png?paper=A1&upright=1&scale=50",
  ]);
  expect(document.querySelector("img")?.getAttribute("alt")).toBe("The sheet as it prints");
});

it("says what does not fit, and gives nothing then", async () => {
  const message = "The plan and its dimensions do not fit on A4 at 1:20.";
  server.answers["sheet.svg"] = json({ error: { code: "unusable-sheet", message, at: "scale" } }, 422);
  await show(<SheetCard storey={STOREY} ready />);
  expect(document.body.textContent).toContain(message);
  expect(document.querySelectorAll("a")).toHaveLength(0);
});

it("is looked at over the board, closer and back; Escape puts it away, and so does another step", async () => {
  await loadStep("hand-over");
  useSheet.setState({ large: true });
  await show(<SheetView />);
  const scale = () => document.querySelector("img")?.style.transform ?? "";
  expect(scale()).toContain("scale(1)");
  await press("closer");
  expect(scale()).toContain("scale(1.4)");
  await press("further");
  expect(scale()).toContain("scale(1)");
  await settled(async () => useDesk.setState({ step: "trace" }));
  expect(document.querySelector("img")).toBeNull();
  await settled(async () => useDesk.setState({ step: "hand-over" }));
  await settled(async () => stepBack());
  expect(useSheet.getState().large).toBe(false);
});

it("shows nothing while nothing is traced", async () => {
  await show(<SheetCard storey={STOREY} ready={false} />);
  expect(document.body.textContent).toBe("");
});
