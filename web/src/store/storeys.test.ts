import { beforeEach, describe, expect, it } from "vitest";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { storeysInOrder } from "../store/storeys";
import { deskWithPlan, row, STOREY } from "../testing/desk";

beforeEach(() => {
  deskWithPlan();
});

describe("storeys", () => {
  it("are told from the lowest up, alternatives after what they are one of", () => {
    const storey = (id: string, elevation: number, alternativeOf: string | null = null) =>
      row("storey", id, { name: id, elevation, height: 2700, alternativeOf });
    useProject.setState((s) => ({
      rows: withRows(s.rows, [
        storey(STOREY, 0),
        storey("upper B", 2900, "upper"),
        storey("upper", 2900),
        storey("cellar", -2600),
      ]),
    }));
    expect(storeysInOrder().map((s) => s.id)).toEqual(["cellar", STOREY, "upper", "upper B"]);
  });
});
