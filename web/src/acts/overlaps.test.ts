import { beforeEach, expect, it } from "vitest";
import { useProject } from "../store/project";
import type { Finding, Leak } from "../store/shapes";
import { deskWithPlan, type Serving, STOREY } from "../testing/desk";
import { MENDS, mendOverlap, mendOverlaps, overlapWords } from "./overlaps";

let server: Serving;

beforeEach(() => {
  server = deskWithPlan();
});

const finding = (mend: Finding["mend"], things = ["south", "east"]): Finding => ({
  code: "walls-overlap",
  things,
  at: [0, 0],
  message: "",
  mend,
});

it("is mended by the act that the core has said, under the name that the button has", async () => {
  await mendOverlap(finding("merge"));
  expect(server.sent[0]).toMatchObject({
    title: MENDS.merge,
    operations: [{ do: "rework", rework: { kind: "mend", wall: "south", other: "east" } }],
  });
});

it("is mended with all others in one change, each wall once", async () => {
  const all = [finding("trim", ["b", "c"]), finding("merge", ["a", "b"]), finding("remove", ["c", "d"])];
  expect(overlapWords(all)).toBe("3 pairs of walls lie on each other: mend them");
  expect(overlapWords([finding("trim")])).toBe("Two walls lie on each other: end one at the other");
  await mendOverlaps(all);
  expect(server.sent.map((s) => s.operations.map((o) => [o.rework?.wall, o.rework?.other]))).toEqual([
    [
      ["c", "d"],
      ["a", "b"],
    ],
  ]);
});

it("is left alone where there is nothing to be done about it", async () => {
  await mendOverlap(finding(null));
  await mendOverlap(finding("beside", ["south"]));
  expect(server.sent).toHaveLength(0);
});

it("is taken back, and said, where a room would be open afterwards", async () => {
  const stop = useProject.subscribe((now) => {
    const shapes = now.derived.get(STOREY);
    if (server.sent.length === 0 || !shapes || shapes.leaks.length > 0) return;
    const leak = { room: "r", gapMm: 5, neck: [], walls: [], end: null } as unknown as Leak;
    useProject.setState({ derived: new Map([[STOREY, { ...shapes, leaks: [leak] }]]) });
  });
  await mendOverlap(finding("trim"));
  stop();
  expect(server.asked.some((url) => url.pathname.endsWith("/undo"))).toBe(true);
  expect(useProject.getState().trouble).toContain("a room would be open");
});

it("is done one by one where all at once would lose a room, and what would lose it is left", async () => {
  const { derived } = useProject.getState();
  const shapes = derived.get(STOREY);
  if (!shapes) throw new Error("the plan has no shapes");
  const rooms = shapes.regions.size;
  expect(rooms).toBeGreaterThan(0);
  // What takes one back has no operations of its own.
  const mends = () => server.sent.filter((s) => "operations" in s);
  const stop = useProject.subscribe((now) => {
    const last = server.sent.at(-1);
    const mended = last && "operations" in last && last.operations.some((o) => o.rework?.wall === "c");
    const here = now.derived.get(STOREY);
    if (mended && here && here.regions.size > 0)
      useProject.setState({ derived: new Map([[STOREY, { ...here, regions: new Map() }]]) });
    if (!mended && here && here.regions.size < rooms) useProject.setState({ derived });
  });
  await mendOverlaps([finding("merge", ["a", "b"]), finding("remove", ["c", "d"])]);
  stop();
  expect(mends().map((s) => s.operations.map((o) => o.rework?.wall))).toEqual([["c", "a"], ["c"], ["a"]]);
  expect(useProject.getState().trouble).toContain("a room would be open");
});
