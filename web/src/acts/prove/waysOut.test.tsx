// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, describe, expect, it } from "vitest";
import { useDesk } from "../../board/desk";
import { useProject } from "../../store/project";
import { withRows } from "../../store/rows";
import type { Derived } from "../../store/shapes";
import { deskWithPlan, row, type Serving, STOREY } from "../../testing/desk";
import { aScreen, press } from "../../testing/screen";
import { EscapeLimits } from "./EscapeLimits";
import { WayOnBoard, WaysOut } from "./WaysOut";
import {
  changedSince,
  enclosedWords,
  farWords,
  leftAfter,
  passedWords,
  type Route,
  renewed,
  secondWords,
  stretchesOn,
  useShownWay,
  type WayOut,
  waysOf,
} from "./waysOut";

const { show } = aScreen();
let server: Serving;
const UPPER = "00000000-0000-7000-8000-0000000000bb";
const door = { wall: "north", kind: "door", offset: 500, width: 900, sill: 0, height: 2100, rated: "" } as const;

const route = (mm: number, values: Partial<Route> = {}): Route => ({
  ...{
    mm,
    places: [
      { storey: STOREY, at: [1000, 1000] },
      { storey: STOREY, at: [4000, 1000] },
    ],
  },
  ...{ doors: ["out"], narrowestMm: 900, against: [], stairs: [], exit: "out", enclosed: [], ...values },
});
const way = (name: string, toFinal: Route | null, toExit = toFinal): WayOut => ({
  ...{
    key: name,
    storey: STOREY,
    room: null,
    name,
    at: [mmOf(name), 0],
    toExit,
    toFinal,
    second: null,
    openAbove: false,
    broken: [],
  },
});
const mmOf = (name: string) => name.length * 100;

beforeEach(() => {
  server = deskWithPlan();
  const rows = [
    row("opening", "out", { ...door, number: "D01", exit: "final" }),
    row("opening", "in", { ...door, number: "D02", exit: "none" }),
  ];
  useProject.setState((s) => ({ rows: withRows(s.rows, rows) }));
  useShownWay.setState({ key: null });
});

/** Spaces within figures break no line. */
const soft = (words: string | null) => words?.replace(/\s/g, " ");

describe("ways out", () => {
  it("are told with what is passed and what is against them, the furthest first", () => {
    const { rows } = useProject.getState();
    const far = route(12_340, { doors: ["in", "out"], narrowestMm: 800, against: ["in"], stairs: ["s"] });
    expect(soft(passedWords(far, rows))).toBe(
      "through D02, D01 and a stair, 800 mm at the narrowest; against it opens D02",
    );
    expect(soft(farWords(way("Hall", far)))).toBe("12 340 mm into the open air");
    expect(soft(farWords(way("Hall", far, route(2000, { exit: "in" }))))).toBe(
      "12 340 mm into the open air, 2 000 mm to a storey exit",
    );
    expect(soft(farWords(way("Hall", null, route(2000))))).toBe("2 000 mm to a storey exit, none into the open air");
    expect(soft(farWords(way("Hall", null)))).toBe("no way out");
    const second = { singleMm: 2500, degrees: 94.6, route: route(15_000) };
    expect(soft(secondWords({ ...way("Hall", far), second }, rows))).toBe(
      "After 2 500 mm another way, 95° apart: 15 000 mm to D01.",
    );
    expect(soft(secondWords({ ...way("Hall", far), second: { ...second, singleMm: 0 } }, rows))).toContain(
      "At once another way",
    );
    expect(secondWords(way("Hall", far), rows)).toBe("");
    const all = [way("Near", route(10)), way("Lost", null), way("Far", far), { ...way("Above", far), storey: UPPER }];
    expect(waysOf(all, STOREY).map((w) => w.name)).toEqual(["Lost", "Far", "Near"]);
  });

  it("are drawn on each storey as far as they run there, in stretches between stairs", () => {
    const places = [UPPER, UPPER, STOREY, STOREY, UPPER, STOREY].map((storey, i) => ({ storey, at: [i, 0] }));
    const stretches = stretchesOn(route(1, { places }), STOREY);
    expect(stretches).toEqual([
      [
        [2, 0],
        [3, 0],
      ],
      [[5, 0]],
    ]);
  });

  it("are asked for once a door is an exit, and one is shown on the board", async () => {
    server.answers = { escape: { seconds: false, rooms: [way("Hall", route(3000)), way("Store", null)], stairs: [] } };
    await show(<WaysOut storey={STOREY} />);
    expect(soft(document.body.textContent)).toContain("Hall 3 000 mm into the open air");
    expect(soft(document.body.textContent)).toContain("Store no way out");
    expect(document.body.textContent).toContain("Second ways are not looked for");
    const [button, none] = [...document.querySelectorAll("button")].filter((b) => b.textContent === "Show the way");
    expect(none).toBeUndefined();
    await settled(async () => button?.click());
    expect(button?.getAttribute("aria-pressed")).toBe("true");
    useDesk.setState({ storey: STOREY });
    await show(
      <svg>
        <title>board</title>
        <WayOnBoard screen={[1, 0, 0, 1, 0, 0]} />
      </svg>,
    );
    expect(document.querySelector("[data-way-out] polyline")?.getAttribute("points")).toContain("1000");
    expect(document.querySelector("[data-way-out]")?.textContent?.replace(/\s/g, " ")).toContain("3 000");
  });

  it("are told of what an edit has touched before all others", () => {
    const regions = (...keys: string[]) => new Map(keys.map((key) => [key, { key }]));
    const derived = new Map([
      [STOREY, { regions: regions("Hall", "Store wider") }],
      ["an alternative", { regions: regions("Hall as proposed") }],
    ]) as unknown as ReadonlyMap<string, Derived>;
    const told = [way("Hall", route(10)), way("Store", route(20)), { ...way("Loft", route(30)), storey: UPPER }];
    expect(changedSince(told, derived)).toEqual(["Store wider"]);
    const part = [way("Store wider", route(25))];
    expect(renewed(told, derived, part).map((w) => w.key)).toEqual(["Hall", "Loft", "Store wider"]);
  });

  it("are nobody's concern where no door is an exit", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("opening", "out", { ...door, number: "D01", exit: "none" })]),
    }));
    await show(<WaysOut storey={STOREY} />);
    expect(document.body.textContent).toBe("");
  });

  it("say what they run in, how far a stair stays enclosed, and which limits are not kept", async () => {
    useProject.setState((s) => ({
      rows: withRows(s.rows, [row("fireClass", "c", { name: "REI 60", colour: "#d55e00", hatch: "rising" })]),
    }));
    const { rows } = useProject.getState();
    const runs = (...mm: (readonly [string | null, number])[]) =>
      route(9000, { enclosed: mm.map(([fireClass, of]) => ({ fireClass, mm: of })), stairs: ["s"] });
    expect(soft(enclosedWords(runs([null, 4000], ["c", 3000], [null, 1000], ["c", 1000]), rows))).toBe(
      "4 000 mm in REI 60",
    );
    expect(enclosedWords(runs(["c", 9000]), rows)).toBe("all of it in REI 60");
    expect(enclosedWords(runs([null, 9000]), rows)).toBe("");
    expect([runs(["c", 9000]), runs(["c", 4000], [null, 5000]), runs([null, 9000])].map(leftAfter)).toEqual([
      null,
      4000,
      0,
    ]);
    const broken = [{ measure: "toFinal", message: "The way into the open air is too long." }];
    const stair = (id: string, of: Route) => ({ stair: id, storey: STOREY, fireClass: null, route: of });
    server.answers = {
      escape: {
        seconds: true,
        rooms: [{ ...way("Hall", route(3000)), openAbove: true, broken }],
        stairs: [
          { ...stair("s", runs(["c", 9000])), fireClass: "c" },
          stair("t", runs(["c", 4000], [null, 5000])),
          stair("u", runs([null, 9000])),
        ],
      },
    };
    await show(<WaysOut storey={STOREY} />);
    const told = soft(document.body.textContent);
    for (const words of [
      "too long",
      "Open to the storey above.",
      "Down the stair, in REI 60 9 000 mm into the open air",
      "Enclosed by REI 60 until the open air.",
      "It leaves REI 60 after 4 000 mm, 5 000 mm before the open air.",
      "Nothing encloses the stair.",
    ]) {
      expect(told).toContain(words);
    }
  });

  it("are held against what the project asks for, and nothing until somebody types it", async () => {
    server.answers = { lengths: { mm: 18_000 } };
    await show(<EscapeLimits />);
    await press("What ways are held against");
    expect(document.body.textContent).toContain("Nothing yet");
    const fields = [...document.querySelectorAll("input")];
    expect(fields.map((f) => f.value)).toEqual(["none", "none", "none", "none", "none"]);
    await typedInto(fields[3], "45");
    expect(server.sent.at(-1)?.operations[0]).toMatchObject({
      do: "add",
      type: "escapeLimit",
      values: { measure: "angle", bound: 45, standing: "the project’s own" },
    });
    const limit = row("escapeLimit", "l", { measure: "angle", bound: 45, standing: "the brief" });
    await settled(async () => useProject.setState((s) => ({ rows: withRows(s.rows, [limit]) })));
    await typedInto(document.querySelectorAll("input")[3], "none");
    expect(server.sent.at(-1)?.operations[0]).toMatchObject({ do: "remove", type: "escapeLimit" });
  });
});

async function typedInto(field: HTMLInputElement | undefined, text: string): Promise<void> {
  await settled(async () => {
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(field, text);
    field?.dispatchEvent(new Event("input", { bubbles: true }));
  });
  await settled(async () => field?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true })));
}
