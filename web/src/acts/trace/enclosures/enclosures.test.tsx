// @vitest-environment happy-dom
import { act as settled } from "react";
import { beforeEach, describe, expect, it, vi } from "vitest";
import { currentAct } from "../../../board/act";
import { drafted, setAct, useDesk } from "../../../board/desk";
import { clickAt } from "../../../board/hand";
import type { XY } from "../../../geometry/plane";
import { useProject } from "../../../store/project";
import { withRows } from "../../../store/rows";
import type { Derived } from "../../../store/shapes";
import { deskWithPlan, row, type Serving, STOREY } from "../../../testing/desk";
import { aScreen } from "../../../testing/screen";
import { EnclosureFindings } from "../../EnclosureFindings";
import { classSpelled, type EnclosureFinding, mendOf, spelledKey, whatItEncloses } from "../../enclosed";
import { EnclosureOptions, SelectedEnclosure } from "./EnclosurePanel";
import {
  allowTogether,
  alongFaces,
  COLOURS,
  cornersNow,
  encloseRoom,
  mergeClasses,
  removeClass,
  takeBack,
  takeClass,
  useNextEnclosure,
} from "./enclosures";

const { show } = aScreen();
let server: Serving;
const UPPER = "00000000-0000-7000-8000-0000000000bb";
const RINGS: Record<string, XY[]> = {
  hall: [[100, 100], [5900, 100], [5900, 3900], [100, 3900]],
  stair: [[6100, 100], [9900, 100], [9900, 3900], [6100, 3900]],
}; // biome-ignore format: one line each
const sent = () => server.sent.at(-1)?.operations ?? [];
const rows = () => useProject.getState().rows;
const there = (...more: ReturnType<typeof row>[]) => useProject.setState((s) => ({ rows: withRows(s.rows, more) }));
const sixty = row("fireClass", "c60", { name: "REI 60", colour: COLOURS[0] ?? "", hatch: "rising" });
const thirty = row("fireClass", "c30", { name: "EI 30", colour: COLOURS[1] ?? "", hatch: "falling" });
const enclosure = (id: string, fireClass: string, line = "", storey = STOREY) =>
  row("enclosure", id, { storey, fireClass, drawing: null, line });

const rooms = [
  row("room", "hall", { storey: STOREY, number: "3", name: "Hall" }),
  row("room", "stair", { storey: STOREY, number: "4", name: "Stair" }),
];

/** Both rooms, as the server tells that walls close round them. */
function closed(): void {
  const regions = new Map(
    Object.entries(RINGS).map(([id, polygon]) => [id, { key: id, id, polygon, holes: [] }] as const),
  );
  useProject.setState((s) => {
    const shapes = s.derived.get(STOREY) ?? { walls: new Map(), regions: new Map() };
    return { derived: new Map([[STOREY, { ...shapes, regions } as unknown as Derived]]) };
  });
}

beforeEach(() => {
  server = deskWithPlan();
  closed();
  there(...rooms);
  useNextEnclosure.setState({ fireClass: null, by: "rooms" });
  setAct("enclosures");
});

describe("a class", () => {
  it("is the same however it is spelled", () => {
    for (const spelled of ["REI 60", "rei60", " Rei – 60", "REI_60", "ＲＥＩ 60", "R\u00adEI\u00a060"]) {
      expect(spelledKey(spelled)).toBe("rei60");
    }
    expect(spelledKey("REI 90")).not.toBe("rei60");
    there(sixty);
    expect(classSpelled(rows(), "rei-60")?.id).toBe("c60");
    expect(classSpelled(rows(), "rei 61")).toBeUndefined();
  });

  it("is typed once, with a colour and a hatch that no other has, and taken up when it is typed again", async () => {
    there(sixty);
    await takeClass("  EI 30 ");
    expect(sent()[0]).toMatchObject({
      type: "fireClass",
      values: { name: "EI 30", colour: COLOURS[1], hatch: "falling" },
    });
    there(sixty);
    const count = server.sent.length;
    await takeClass("rei-60");
    expect(server.sent).toHaveLength(count);
    expect(useNextEnclosure.getState().fireClass).toBe("c60");
  });

  it("goes with what it encloses, or becomes another one with all that may lie over it", async () => {
    const pair = (id: string, one: string, other: string) => row("classesTogether", id, { one, other });
    const ninety = row("fireClass", "c90", { name: "REI 90", colour: "#009e73", hatch: "crossed" });
    there(sixty, thirty, ninety, enclosure("e", "c30"), pair("p", "c30", "c90"), pair("q", "c30", "c60"));
    await mergeClasses("c30", "c60");
    expect(sent()).toEqual([
      { do: "set", type: "enclosure", id: "e", values: { fireClass: "c60" } },
      { do: "set", type: "classesTogether", id: "p", values: { one: "c60", other: "c90" } },
      { do: "remove", type: "fireClass", id: "c30" },
    ]);
    there(sixty, ninety, enclosure("e", "c60"), pair("p", "c60", "c90"));
    await removeClass("c60");
    expect(sent().at(-1)).toEqual({ do: "remove", type: "fireClass", id: "c60" });
    there(sixty, ninety, pair("p", "c60", "c90"));
    await allowTogether("c60", "c90");
    expect(sent()[0]).toMatchObject({ do: "remove", type: "classesTogether", id: "p" });
  });
});

describe("rooms", () => {
  it("begin an enclosure, come into it and out of it", async () => {
    there(sixty);
    clickAt([3000, 2000], false);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    const [made, room] = sent();
    expect(made).toMatchObject({
      do: "add",
      type: "enclosure",
      values: { storey: STOREY, fireClass: "c60", line: "" },
    });
    expect(room?.values).toEqual({ enclosure: made?.id, room: "hall" });
    expect(useDesk.getState().selected).toEqual({ type: "enclosure", id: made?.id });
    // What the server tells of it from then on.
    const id = made?.id ?? "";
    const named = (...of: string[]) =>
      of.map((name) => row("enclosedRoom", `of ${name}`, { enclosure: id, room: name }));
    const told = () => {
      closed();
      there(sixty, enclosure(id, "c60"), ...rooms, ...named("hall"));
    };
    told();
    expect(currentAct()?.snap?.([8000, 2000], 0, false)?.words).toBe("Stair by REI 60");
    expect(currentAct()?.snap?.([3000, 2000], 0, false)?.words).toBe("take Hall out of it");
    await encloseRoom("stair");
    expect(sent()[0]?.values).toEqual({ enclosure: id, room: "stair" });
    told();
    there(...named("stair"));
    const inside = rows().enclosure.get(id);
    expect(inside && whatItEncloses(rows(), inside)).toBe("Hall, Stair");
    await encloseRoom("hall");
    expect(sent()[0]).toEqual({ do: "remove", type: "enclosedRoom", id: "of hall" });
    // Enter puts it down: the next room begins another, one that has its own is taken up.
    expect(currentAct()?.key?.({ key: "Enter" } as KeyboardEvent)).toBe(true);
    told();
    const count = server.sent.length;
    await encloseRoom("hall");
    expect(server.sent).toHaveLength(count);
    expect(useDesk.getState().selected?.id).toBe(id);
  });

  it("are asked for by name, and a class before that", async () => {
    expect(currentAct()?.snap?.([3000, 2000], 0, false)?.words).toBe("type a class first");
    await encloseRoom("hall");
    expect(server.sent).toHaveLength(0);
    there(sixty);
    expect(currentAct()?.snap?.([30_000, 2000], 0, false)?.words).toBe("nothing closes round it");
  });
});

describe("an outline", () => {
  it("runs along faces from click to click, the shorter way round", () => {
    const ring = RINGS.hall ?? [];
    expect(alongFaces([1000, 100], [5900, 1000], [], [ring])).toEqual([[5900, 100]]);
    expect(alongFaces([5900, 1000], [1000, 100], [], [ring])).toEqual([[5900, 100]]);
    expect(alongFaces([1000, 100], [2000, 100], [], [ring])).toEqual([]);
    expect(alongFaces([1000, 100], [8000, 100], [], Object.values(RINGS))).toEqual([]);
    expect(alongFaces([100, 3000], [1000, 100], [], [ring])).toEqual([[100, 100]]);
  });

  it("goes back another way than it came, so that two clicks and Enter enclose the room", async () => {
    there(sixty);
    useNextEnclosure.setState({ by: "faces" });
    useDesk.setState((s) => ({ view: { ...s.view, k: 0.1 } }));
    for (const at of [[100, 100], [5900, 2000]] as XY[]) clickAt(at, false); // biome-ignore format: one line
    currentAct()?.key?.({ key: "Enter" } as KeyboardEvent);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(sent()[0]?.values?.line).toBe("100 100; 5900 100; 5900 2000; 5900 3900; 100 3900");
  });

  it("closes on its first corner, and gives its last one back", async () => {
    there(sixty);
    useNextEnclosure.setState({ by: "free" });
    for (const at of [[1000, 1000], [2000, 1000], [2000, 2000], [1500, 2500]] as XY[]) clickAt(at, true); // biome-ignore format: one line
    expect(cornersNow()).toHaveLength(4);
    expect(takeBack()).toBe(true);
    expect(drafted("enclosed")?.corners).toHaveLength(3);
    expect(currentAct()?.key?.({ key: "Enter" } as KeyboardEvent)).toBe(true);
    await vi.waitFor(() => expect(server.sent).toHaveLength(1));
    expect(sent()[0]?.values).toMatchObject({
      line: "1000 1000; 2000 1000; 2000 2000",
      fireClass: "c60",
      storey: STOREY,
    });
    expect(takeBack()).toBe(false);
  });

  it("holds to corners and faces of walls, and follows them", async () => {
    there(sixty);
    useNextEnclosure.setState({ by: "faces" });
    expect(currentAct()?.snap?.([5890, 110], 40, false)).toMatchObject({
      at: [5900, 100],
      words: "corner of two faces",
    });
    expect(currentAct()?.snap?.([3000, 120], 40, false)).toMatchObject({ at: [3000, 100], words: "on a face" });
    useDesk.setState((s) => ({ view: { ...s.view, k: 0.1 } }));
    for (const at of [[1000, 100], [5900, 2000]] as XY[]) clickAt(at, false); // biome-ignore format: one line
    expect(cornersNow()).toEqual([[1000, 100], [5900, 100], [5900, 2000]]); // biome-ignore format: one line
  });
});

describe("what is wrong", () => {
  const finding = (code: EnclosureFinding["code"], values: Partial<EnclosureFinding> = {}): EnclosureFinding => ({
    ...{ code, enclosures: ["e"], storey: STOREY, at: [0, 0], message: "It is.", room: null, ...values },
  });

  it("is mended by what its words say", async () => {
    const landing = row("room", "landing", { storey: UPPER, number: "", name: "Landing" });
    const drawn = enclosure("drawn", "c60", "0 0; 9 0; 9 9");
    const told = () => there(sixty, thirty, enclosure("e", "c60"), enclosure("f", "c30"), drawn, landing, ...rooms);
    told();
    await mendOf(rows(), finding("overlap", { enclosures: ["e", "f"] }))?.go();
    expect(sent()[0]?.values).toEqual({ one: "c60", other: "c30" });
    told();
    await mendOf(rows(), finding("gap", { room: "stair" }))?.go();
    expect(sent()).toMatchObject([{ type: "enclosedRoom", values: { enclosure: "e", room: "stair" } }]);
    told();
    await mendOf(rows(), finding("gap", { room: "stair", enclosures: ["drawn"] }))?.go();
    expect(sent()).toMatchObject([{ type: "enclosure" }, { type: "enclosedRoom", values: { room: "stair" } }]);
    told();
    const stops = mendOf(rows(), finding("stops", { room: "landing", storey: UPPER }));
    expect(stops?.words).toBe("Enclose Landing as well");
    await stops?.go();
    expect(sent()[0]?.values).toMatchObject({ storey: UPPER, fireClass: "c60" });
    expect(mendOf(rows(), finding("open"))).toBeNull();
    expect(mendOf(rows(), finding("gap", { enclosures: ["gone"], room: "stair" }))).toBeNull();
  });

  it("is told with its place and its mending act", async () => {
    there(sixty, enclosure("e", "c60"));
    await show(<EnclosureFindings findings={[finding("gap", { room: "stair" }), finding("open", { at: [1, 1] })]} />);
    expect([...document.querySelectorAll("button")].map((b) => b.textContent)).toEqual([
      "Show the place",
      "Enclose Stair as well",
      "Show the place",
    ]);
  });
});

it("shows the key with every class once and its total; a name that is there already is offered to be merged", async () => {
  there(sixty, thirty, enclosure("e", "c60"), row("enclosedRoom", "r", { enclosure: "e", room: "hall" }));
  server.answers = {
    enclosures: {
      areas: [{ enclosure: "e", shapes: [], areaM2: 22.04, at: null }],
      totals: [{ fireClass: "c60", storey: STOREY, areaM2: 22.04 }],
      findings: [],
      doors: [{ enclosure: "e", opening: "d", kind: "door", widthMm: 900, rated: "" }],
    },
  };
  useNextEnclosure.setState({ fireClass: "c60" });
  await show(<EnclosureOptions />);
  const pressed = () => [...document.querySelectorAll("[aria-pressed=true]")].map((b) => b.textContent);
  expect(pressed()[0]).toContain("REI 60");
  expect(document.body.textContent).toContain("22.04");
  const name = [...document.querySelectorAll("input")].find((i) => i.value === "REI 60");
  await settled(async () => {
    const set = Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set;
    set?.call(name, "ei-30");
    name?.dispatchEvent(new Event("input", { bubbles: true }));
  });
  await settled(async () => name?.dispatchEvent(new KeyboardEvent("keydown", { key: "Enter", bubbles: true })));
  const merge = [...document.querySelectorAll("button")].find((b) => b.textContent === "Merge REI 60 into it");
  await settled(async () => merge?.click());
  expect(sent().at(-1)).toEqual({ do: "remove", type: "fireClass", id: "c60" });
  await settled(async () => there(sixty, enclosure("e", "c60"), ...rooms));
  await show(<SelectedEnclosure id="e" />);
  expect(document.body.textContent).toContain("not rated");
});
