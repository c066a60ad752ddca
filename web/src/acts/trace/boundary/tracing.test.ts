import { beforeEach, describe, expect, it } from "vitest";
import { drafted } from "../../../board/desk";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import { DRAWING, deskWithPlan, json, report, row, type Serving, STOREY } from "../../../testing/desk";
import { legsOf } from "./boundary";
import { addLeg, close, legWords, NO_LEG, setLeg, useBoundaryAtHand } from "./legs";
import { boundaryPoint } from "./tracing";

let server: Serving;
const boundary = row("boundary", "b", { storey: STOREY, name: "Boundary", x: 1000, y: 2000, up: "" });

beforeEach(() => {
  server = deskWithPlan();
  useProject.setState({ fits: new Map([[DRAWING, report()]]) });
  useBoundaryAtHand.setState(useBoundaryAtHand.getInitialState());
  server.answers = {
    b: {
      path: [
        [1000, 2000],
        [5000, 2000],
      ],
      upDegrees: 4,
    },
  };
});

describe("a boundary on the board", () => {
  it("begins where it is first clicked", async () => {
    await boundaryPoint([1000, 2000]);
    expect(server.sent[0]?.operations[0]).toMatchObject({
      do: "add",
      type: "boundary",
      values: { storey: STOREY, x: 1000, y: 2000 },
    });
  });

  it("asks the ink which way the next leg runs, from where the last one ended, in pixels of the page", async () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [boundary]) }));
    server.bearing = { bearing: "N 68 E", degrees: 68, plusMinusDegrees: 0.1 };
    await boundaryPoint([5000, 6000]);
    expect(drafted("bearing")).toMatchObject({ bearing: "N 68 E" });
    const query = server.asked.find((u) => u.pathname.endsWith("/bearing"))?.searchParams;
    const [ax, ay, bx, by] = ["ax", "ay", "bx", "by"].map((k) => Number(query?.get(k)));
    // 4 m straight up the plan are 400 px on a picture of 10 mm per pixel, whichever way it is turned.
    expect(Math.hypot(Number(bx) - Number(ax), Number(by) - Number(ay))).toBeCloseTo(400);
    expect(query?.get("up")).toBe("4");
    expect(server.sent, "nothing is changed by asking").toEqual([]);
  });

  it("reads no bearing off a drawing of which nothing says how it is turned", async () => {
    const determined = { scale: true, turn: false, place: false };
    useProject.setState((s) => ({
      rows: withRows(s.rows, [boundary]),
      fits: new Map([[DRAWING, { ...report(), determined }]]),
    }));
    await boundaryPoint([5000, 6000]);
    expect(useProject.getState().trouble).toContain("In Square, pick a leg and type its bearing.");
    expect(server.asked.filter((u) => u.pathname.endsWith("/bearing"))).toEqual([]);
  });

  it("says where no line runs that way, and why it could not be asked", async () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [boundary]) }));
    await boundaryPoint([5000, 6000]);
    expect(useProject.getState().trouble).toMatch(/^No straight line runs that way/);
    useProject.setState({ fits: new Map([[DRAWING, report()]]) });
    server.answers.bearing = json({ error: { code: "not-ready", message: "Still being read.", at: "" } }, 409);
    useProject.setState((s) => ({ rows: withRows(s.rows, [boundary]) }));
    await boundaryPoint([5000, 6000]);
    expect(useProject.getState().trouble).toBe("Still being read.");
  });

  it("has its legs in the order in which they are walked", () => {
    const leg = (id: string, order: number, of = "b") => row("leg", id, { boundary: of, order });
    const { rows } = useProject.getState();
    const legs = withRows(rows, [leg("x", 2), leg("z", 1), leg("y", 1), leg("w", 0, "another")]).leg;
    expect(legsOf(legs.values(), "b").map((l) => l.id)).toEqual(["y", "z", "x"]);
  });

  it("takes a leg that was forgotten where it belongs, and one that is corrected stays where it is", async () => {
    const leg = (id: string, order: number) => row("leg", id, { boundary: "b", order, radius: "" });
    useProject.setState((s) => ({ rows: withRows(s.rows, [boundary, leg("x", 0), leg("y", 1), leg("z", 2)]) }));
    const curve = { bearing: "N 45 E", length: "12", radius: "10", turns: "right", gives: "arc", unit: "m" } as const;
    await addLeg("b", curve, "x");
    expect(server.sent.at(-1)?.operations.map((o) => [o.do, o.id, o.values?.order])).toEqual([
      ["set", "y", 2],
      ["set", "z", 3],
      ["add", expect.any(String), 1],
    ]);
    expect(server.sent.at(-1)?.operations.at(-1)?.values).toMatchObject(curve);
    await setLeg("y", { ...NO_LEG, bearing: "90", length: "30" });
    expect(server.sent.at(-1)?.operations).toMatchObject([{ do: "set", id: "y", values: { bearing: "90" } }]);
    expect(legWords(curve)).toBe("N 45 E · along it 12 m · R 10 m right");
  });

  it("is closed by a leg that says it was computed, and is measured once somebody types its figures", async () => {
    useProject.setState((s) => ({ rows: withRows(s.rows, [boundary, row("leg", "x", { boundary: "b", order: 0 })]) }));
    await close("b", { mm: 24_304.6, bearing: "206°09'41\"" });
    const made = server.sent.at(-1)?.operations[0];
    expect(made).toMatchObject({
      do: "add",
      values: { order: 1, bearing: "206°09'41\"", length: "24.305 m", computed: true },
    });
    await close("b", { mm: 24_000, bearing: "206°" }, "x");
    expect(server.sent.at(-1)?.operations).toMatchObject([
      { do: "set", id: "x", values: { length: "24.000 m", computed: true } },
    ]);
    await setLeg("x", { ...NO_LEG, bearing: "206°", length: "24.02" });
    expect(server.sent.at(-1)?.operations[0]?.values).toMatchObject({ computed: false });
  });

  it("is one of several, each with a name of its own, turned as the first one", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("boundary", "b", { storey: STOREY, name: "Boundary", up: "12" })]),
    }));
    useBoundaryAtHand.setState({ another: true });
    await boundaryPoint([9000, 2000]);
    expect(server.sent.at(-1)?.operations[0]).toMatchObject({
      type: "boundary",
      values: { name: "Boundary 2", x: 9000, up: "12" },
    });
    expect(useBoundaryAtHand.getState()).toMatchObject({
      boundary: server.sent.at(-1)?.operations[0]?.id,
      another: false,
    });
  });
});
