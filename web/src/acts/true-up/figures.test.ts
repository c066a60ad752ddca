import { beforeEach, describe, expect, it } from "vitest";
import { type ReadFigure, useFound } from "../../acts/searches";
import { useProject } from "../../store/project";
import { DRAWING, deskWithPlan, EMPTY, row, type Serving } from "../../testing/desk";
import { sizeByFigures, takeFigure } from "./figures";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

const figure = (typed: string, standing = "figured"): ReadFigure =>
  ({ id: "f", text: typed, typed, standing, a: [10, 20], b: [460, 20], sigmaPx: 0.3 }) as unknown as ReadFigure;

describe("a figure that was read", () => {
  const taken = () => server.sent.at(-1)?.operations.at(-1)?.values;

  it("is taken with its two ends, as known length or held out as a check", async () => {
    server.answers = { readings: { figures: [], rooms: [] } };
    await takeFigure(figure("4500"), false);
    expect(server.sent[0]?.operations.map((o) => o.type)).toEqual(["pick", "pick", "knownLength"]);
    expect(server.sent[0]?.operations[0]?.values).toEqual({ drawing: DRAWING, x: 10, y: 20, sigmaPx: 0.3 });
    expect(taken()).toMatchObject({ text: "4500", unit: "mm", heldOut: false, standing: "figured" });
    await takeFigure(figure("4500"), true);
    expect(taken()).toMatchObject({ heldOut: true });
    await takeFigure(figure("5 m", "scale bar"), false);
    expect(taken()).toMatchObject({ text: "5 m", standing: "scale bar" });
    expect(useFound.getState().readings?.of).toBe(DRAWING);
  });
});

describe("all figures that were read", () => {
  it("size the drawing in one act, and what disagrees with the rest is named", async () => {
    const readings = { figures: [], rooms: [] };
    server.answers = { readings };
    await sizeByFigures();
    expect(server.sent[0]?.operations).toEqual([{ do: "size", size: { drawing: DRAWING } }]);
    expect(useProject.getState().trouble).toBeNull();
    const length = (id: string, text: string, heldOut: boolean) =>
      row("knownLength", id, { drawing: DRAWING, text, heldOut }, 3);
    const rows = [length("a", "4500", false), length("b", "13 200", true)];
    server.answers = { readings, changes: { ...EMPTY, revision: 3, rows } };
    await sizeByFigures();
    expect(useProject.getState().trouble).toBe("13 200 disagrees with the others: held out, as a check.");
  });
});
