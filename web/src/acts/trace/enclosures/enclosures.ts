import { create } from "zustand";
import type { Operation } from "../../../api/client";
import { newId } from "../../../api/ids";
import { clearDraft, drafted, type Snap, useDesk } from "../../../board/desk";
import { sendDraft } from "../../../board/slip";
import { regionUnder, SNAP_PX } from "../../../board/snap";
import { distance, nearestOn, type XY } from "../../../geometry/plane";
import { lineOf } from "../../../store/drawn";
import { change, say, useProject } from "../../../store/project";
import { inOrder, type Rows } from "../../../store/rows";
import { drawnSnap } from "../../drawnSnap";
import { classSpelled, type Enclosure, enclosed, enclosing, type FireClass, type Hatch, roomsOf } from "../../enclosed";

declare module "../../../board/desk" {
  interface Drafts {
    /** corners of the outline of an enclosure that is being drawn */
    enclosed: { corners: readonly XY[] };
  }
}

export type EnclosesBy = "rooms" | "faces" | "free";

/** What the next click encloses, and by which class. */
export const useNextEnclosure = create<{ fireClass: string | null; by: EnclosesBy }>(() => ({
  fireClass: null,
  by: "rooms",
}));

/** Colours that are told apart with any kind of colour vision, as the core has them, and hatches that are told apart without. */
export const COLOURS = ["#d55e00", "#0072b2", "#009e73", "#cc79a7", "#e69f00", "#56b4e9", "#4400aa", "#222222"];
export const HATCHES: readonly Hatch[] = [
  "rising",
  "falling",
  "crossed",
  "upright",
  "level",
  "squared",
  "dense",
  "wide",
];

/** The class that was chosen, or the first there is. */
export function nextClass(rows: Rows): FireClass | undefined {
  return rows.fireClass.get(useNextEnclosure.getState().fireClass ?? "") ?? inOrder(rows.fireClass.values())[0];
}

/** A class as somebody types it is the one that is there, however that is spelled; otherwise a new one, unlike all others. */
export async function takeClass(name: string): Promise<void> {
  const { rows } = useProject.getState();
  const there = classSpelled(rows, name);
  if (there) return useNextEnclosure.setState({ fireClass: there.id });
  const all = [...rows.fireClass.values()];
  const unused = <T>(of: readonly T[], used: readonly T[]) => of.find((one) => !used.includes(one)) ?? of[0];
  const id = newId();
  const colour = unused(
    COLOURS,
    all.map((c) => c.colour),
  );
  const hatch = unused(
    HATCHES,
    all.map((c) => c.hatch),
  );
  useNextEnclosure.setState({ fireClass: id });
  await change("A new class", [
    {
      do: "add",
      type: "fireClass",
      id,
      values: { name: name.trim(), colour: colour ?? "#d55e00", hatch: hatch ?? "rising" },
    },
  ]);
}

/** A class goes, and with it all that it encloses. */
export async function removeClass(id: string): Promise<void> {
  const ids = [...useProject.getState().rows.enclosure.values()].filter((e) => e.fireClass === id).map((e) => e.id);
  useNextEnclosure.setState({ fireClass: null });
  await change("Remove a class", [
    ...ids.map((enclosure): Operation => ({ do: "remove", type: "enclosure", id: enclosure })),
    { do: "remove", type: "fireClass", id },
  ]);
}

/** What one class encloses becomes another's, with what may lie over it. */
export async function mergeClasses(from: string, into: string): Promise<void> {
  const { rows } = useProject.getState();
  const ids = [...rows.enclosure.values()].filter((e) => e.fireClass === from).map((e) => e.id);
  const others = new Set(partners(rows, into).map((p) => p.other));
  const kept = partners(rows, from).filter((p) => p.other !== into && !others.has(p.other));
  useNextEnclosure.setState({ fireClass: into });
  await change("Merge two classes", [
    ...ids.map((id): Operation => ({ do: "set", type: "enclosure", id, values: { fireClass: into } })),
    ...kept.map(
      ({ id, other }): Operation => ({ do: "set", type: "classesTogether", id, values: { one: into, other } }),
    ),
    { do: "remove", type: "fireClass", id: from },
  ]);
}

/** Classes that may lie over one, with the row that says so. */
export function partners(rows: Rows, fireClass: string): { id: string; other: string }[] {
  return [...rows.classesTogether.values()].flatMap(({ id, one, other }) =>
    one === fireClass ? [{ id, other }] : other === fireClass ? [{ id, other: one }] : [],
  );
}

export async function allowTogether(fireClass: string, other: string): Promise<void> {
  const there = partners(useProject.getState().rows, fireClass).find((p) => p.other === other);
  await change(
    there ? "Two classes no longer together" : "Allow two classes together",
    there
      ? [{ do: "remove", type: "classesTogether", id: there.id }]
      : [{ do: "add", type: "classesTogether", id: newId(), values: { one: fireClass, other } }],
  );
}

/** The enclosure that rooms are added to: the selected one, while its class is the one at hand. */
export function enclosureAtHand(rows: Rows): Enclosure | undefined {
  const { selected, storey } = useDesk.getState();
  const enclosure = selected?.type === "enclosure" ? rows.enclosure.get(selected.id) : undefined;
  const isMeant = enclosure && enclosure.storey === storey && enclosure.line === "";
  return isMeant && enclosure.fireClass === nextClass(rows)?.id ? enclosure : undefined;
}

/** A room comes into the enclosure at hand, or out of it; without one at hand it begins one, or the one that has it is taken up. */
export async function encloseRoom(room: string): Promise<void> {
  const { rows } = useProject.getState();
  const { storey } = useDesk.getState();
  const fireClass = nextClass(rows);
  if (!fireClass || storey === null) return say("Type a class first, as REI 60.");
  const atHand = enclosureAtHand(rows);
  const name = rows.room.get(room)?.name ?? "";
  if (!atHand) {
    const there = [...rows.enclosedRoom.values()].find(
      (e) => e.room === room && rows.enclosure.get(e.enclosure)?.fireClass === fireClass.id,
    );
    const id = there?.enclosure ?? newId();
    select(id);
    if (!there) await change(`Enclose ${name}`, enclosing(id, storey, fireClass.id, [room]));
    return;
  }
  const row = [...rows.enclosedRoom.values()].find((e) => e.enclosure === atHand.id && e.room === room);
  if (!row) return void (await change(`Enclose ${name}`, [enclosed(atHand.id, room)]));
  if (roomsOf(rows, atHand.id).length === 1) select(null);
  await change(`Take ${name} out of its enclosure`, [{ do: "remove", type: "enclosedRoom", id: row.id }]);
}

export function select(id: string | null): void {
  useDesk.setState({ selected: id === null ? null : { type: "enclosure", id }, group: [], things: [] });
}

export const cornersNow = (): readonly XY[] => drafted("enclosed")?.corners ?? [];

const put = (corners: readonly XY[]) =>
  useDesk.setState({ draft: { of: "enclosed", corners }, slip: null, slipError: null, snap: null });

/** What a click would do, in words; a corner holds to the faces of walls. */
export function enclosureSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  const { rows } = useProject.getState();
  const fireClass = nextClass(rows);
  if (!fireClass) return { at: pointer, words: "type a class first" };
  const { by } = useNextEnclosure.getState();
  if (by === "rooms") {
    const region = regionUnder(pointer);
    if (!region) return { at: pointer, words: "nothing closes round it" };
    const name = rows.room.get(region.id ?? "")?.name;
    if (region.id === null || name === undefined) return { at: pointer, words: "name this room first" };
    const atHand = enclosureAtHand(rows);
    const isIn = atHand && roomsOf(rows, atHand.id).includes(region.id);
    return { at: pointer, words: isIn ? `take ${name} out of it` : `${name} by ${fireClass.name}` };
  }
  const [first] = cornersNow();
  if (first && cornersNow().length > 2 && distance(first, pointer) < reach) {
    return { at: first, words: "closes", closes: true, sigmaPx: 0 };
  }
  return faceSnap(pointer, reach, free) ?? drawnSnap(pointer, reach, free);
}

/** The face of a wall under the pointer, and its corners before that. */
function faceSnap(pointer: XY, reach: number, free: boolean): Snap | null {
  if (free) return null;
  let best: (Snap & { off: number }) | null = null;
  for (const ring of faceRings()) {
    for (const [i, b] of ring.entries()) {
      const a = ring.at(i - 1) ?? b;
      const corner = distance(b, pointer);
      if (corner < Math.min(reach, best?.off ?? reach)) {
        best = { at: b, words: "corner of two faces", off: corner - reach, sigmaPx: 0 };
      }
      if (distance(a, b) === 0) continue;
      const { at, off } = nearestOn(pointer, a, b);
      if (off < Math.min(reach, best?.off ?? reach)) best = { at, words: "on a face", off, sigmaPx: 0 };
    }
  }
  return best;
}

/** Faces that close round something, on the storey at hand. */
function faceRings(): XY[][] {
  const { storey } = useDesk.getState();
  const shapes = useProject.getState().derived.get(storey ?? "");
  return [...(shapes?.regions.values() ?? [])].flatMap(({ polygon, holes }) =>
    [polygon, ...holes].map((ring) => ring.map(([x = 0, y = 0]): XY => [x, y])),
  );
}

/** How far two places may lie off a ring and be on it, mm. */
const ON_RING_MM = 0.5;

/**
 * Corners between two places along the faces on which both lie, the shorter way round that has not been gone already; none where no
 * faces lead from one to the other.
 */
export function alongFaces(
  from: XY,
  to: XY,
  gone: readonly XY[] = [],
  rings: readonly (readonly XY[])[] = faceRings(),
): XY[] {
  let best: { length: number; corners: XY[] } | null = null;
  for (const ring of rings) {
    const [a, b] = [placeOn(ring, from), placeOn(ring, to)];
    if (a === null || b === null) continue;
    for (const corners of [walk(ring, a, b), walk(ring, b, a).reverse()]) {
      if (corners.some((c) => gone.some((g) => distance(c, g) < ON_RING_MM))) continue;
      const line = [from, ...corners, to];
      const length = line.slice(1).reduce((sum, p, i) => sum + distance(line[i] ?? p, p), 0);
      if (best === null || length < best.length) best = { length, corners };
    }
  }
  return best?.corners ?? [];
}

/** Number of the edge of a ring on which a place lies, with how far along it, as one number. */
function placeOn(ring: readonly XY[], p: XY): number | null {
  for (const [i, a] of ring.entries()) {
    const b = ring[(i + 1) % ring.length] ?? a;
    const length = distance(a, b);
    if (length > 0 && nearestOn(p, a, b).off < ON_RING_MM) return i + Math.min(1, distance(a, p) / length);
  }
  return null;
}

/** Corners of a ring that are passed going forward from one place of it to another. */
function walk(ring: readonly XY[], from: number, to: number): XY[] {
  const n = ring.length;
  const end = to < from ? to + n : to;
  const corners: XY[] = [];
  for (let i = Math.floor(from) + 1; i < end; i++) {
    const corner = ring[i % n];
    if (corner && i > from) corners.push(corner);
  }
  return corners;
}

/** A click sets a corner; along faces, those on the way to it are set as well. */
export function enclosurePoint(at: XY, closes: boolean): void {
  const corners = cornersNow();
  const last = corners.at(-1);
  const { by } = useNextEnclosure.getState();
  if (!nextClass(useProject.getState().rows)) return say("Type a class first, as REI 60.");
  if (!last) return put([at]);
  const between = by === "faces" ? alongFaces(last, at, corners.slice(1, -1)) : [];
  if (closes) return void endOutline([...corners, ...between]);
  if (distance(last, at) < SNAP_PX / 2 / useDesk.getState().view.k) return void endOutline();
  put([...corners, ...between, at]);
}

/** What has been drawn closes and is enclosed. */
export async function endOutline(corners = cornersNow()): Promise<void> {
  const { storey, drawing } = useDesk.getState();
  const fireClass = nextClass(useProject.getState().rows);
  if (corners.length < 3 || storey === null || !fireClass) return;
  const [first, last] = [corners[0], corners.at(-1)];
  const back =
    useNextEnclosure.getState().by === "faces" && first && last && corners === cornersNow()
      ? alongFaces(last, first, corners.slice(1, -1))
      : [];
  const line = lineOf([...corners, ...back].map((at) => ({ at, rise: 0 })));
  const id = newId();
  await sendDraft("Draw an enclosure", [
    { do: "add", type: "enclosure", id, values: { storey, fireClass: fireClass.id, drawing, line } },
  ]);
  select(id);
}

/** The last corner is taken back; with none left nothing is drawn any more. */
export function takeBack(): boolean {
  const corners = cornersNow();
  if (corners.length === 0) return false;
  if (corners.length > 1) put(corners.slice(0, -1));
  else clearDraft();
  return true;
}
