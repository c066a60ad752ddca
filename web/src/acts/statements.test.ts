import { beforeEach, describe, expect, it } from "vitest";
import { removal, removeStatement } from "../acts/statements";
import { useProject } from "../store/project";
import { withRows } from "../store/rows";
import { DRAWING, deskWithPlan, type Looked, row, type Serving } from "../testing/desk";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

describe("removing", () => {
  it("takes the picks along that nothing else uses", async () => {
    const length = (id: string, a: string, b: string) =>
      row("knownLength", id, { drawing: DRAWING, a, b, c: null, text: "1", heldOut: false });
    useProject.setState(({ rows }) => ({ rows: withRows(rows, [length("one", "p", "q"), length("two", "q", "r")]) }));
    expect((removal("knownLength", "one", ["p", "q", null]) as Looked[]).map((o) => o.id)).toEqual(["one", "p"]);
    await removeStatement("knownLength", "two");
    expect(server.sent[0]?.operations.map((o) => o.id)).toEqual(["two", "r"]);
  });
});
