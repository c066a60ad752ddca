import type { Refused } from "../api/client";
import { api, settled } from "../api/client";
import { newId } from "../api/ids";
import { apply, inverse, type XY } from "../board/geometry";
import { inProject, towardsChange, useProject } from "../store/project";
import type { Thing } from "../store/rows";
import { type Picked, useDesk } from "./desk";
import { projectUnit, sendDraft } from "./draft";
import { sideWithoutLine, stateLevel, stateSide } from "./elevation";
import { inkAt, inkIsReady } from "./found";
import { placeOnto } from "./placing";
import { fitMap, mmPerPixel } from "./selectors";
import { snapAt } from "./snap";
import { addPick, sendStatement } from "./statements";

/** Refinements under way, by the place of the pick in the draft: what is stated waits for them. */
let refining: Promise<void>[] = [];

/** How many picks the present act needs. */
export function picksWanted(): number {
  const { act, calibrateBy, along, placing } = useDesk.getState();
  if (act === "levels" || act === "outline") return 1;
  if (act === "place") return placing === "side" ? 2 : 1;
  if (act !== "calibrate") return 2;
  return calibrateBy === "room" ? 4 : calibrateBy === "length" && along === "across" ? 3 : 2;
}

/** A click where a point is wanted: it is put on what the ink or the file shows there, unless held off. */
export function pick(pointer: XY, free: boolean, corners: boolean): void {
  const desk = useDesk.getState();
  const map = fitMap(useProject.getState().rows, desk.drawing);
  if (!map) return;
  const wanted = picksWanted();
  let picks = desk.picks;
  if (desk.act === "place" && desk.placing === "point" && picks.length === 1 && desk.slip === "") {
    void placeOnto(pointer, free);
    return;
  }
  if (picks.length >= wanted) {
    // A click elsewhere begins again; a figure half typed is not thrown away by it.
    if (desk.act !== "square" && desk.slip !== "" && desk.slip !== null) return;
    picks = [];
  }
  if (picks.length === 0) refining = [];
  const known = !free && desk.pointer === pointer ? desk.snap : null;
  const exact = snapAt(pointer, free);
  const held = exact ?? known;
  const index = picks.length;
  const next: Picked = {
    at: apply(inverse(map), held?.at ?? pointer),
    sigmaPx: held?.sigmaPx ?? handSigma(),
    words: held?.words ?? (free ? "by hand" : "…"),
    thicknessPx: held?.thicknessPx ?? null,
  };
  const all = [...picks, next];
  const complete = all.length === wanted;
  useDesk.setState({
    picks: all,
    slip: complete && desk.act !== "square" ? firstText() : null,
    slipError: null,
    caution: null,
    ticks: [],
    focusedEnd: complete ? wanted - 1 : 0,
    snap: null,
  });
  if (!free && held?.sigmaPx === undefined) refining.push(refine(index, next, pointer, corners));
  if (complete && desk.act === "calibrate") void whenAllFound();
}

/** What stands in the slip when all is picked. */
function firstText(): string {
  const { act, calibrateBy, ghost, placing } = useDesk.getState();
  if (act === "place" && placing === "side")
    return sideWithoutLine(useProject.getState().rows.side.values())?.name ?? "";
  return act === "calibrate" && calibrateBy === "room" && ghost.mm ? `${ghost.width} x ${ghost.depth}` : "";
}

async function refine(index: number, raw: Picked, pointer: XY, corners: boolean): Promise<void> {
  // Asked and answered under the fit there was at the click: a newer one may come in between.
  const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
  const found = await inkAt(pointer, corners);
  const { picks } = useDesk.getState();
  // Nudged, taken back or begun anew meanwhile: the hand's own word counts.
  if (picks[index] !== raw || !map) return;
  const put: Picked = found
    ? {
        at: apply(inverse(map), found.at),
        sigmaPx: found.sigmaPx ?? raw.sigmaPx,
        words: found.words,
        thicknessPx: found.thicknessPx ?? null,
      }
    : { ...raw, words: inkIsReady() ? "nothing found, by hand" : "by hand, the page is still being read" };
  useDesk.setState({ picks: picks.map((p, i) => (i === index ? put : p)) });
}

async function whenAllFound(): Promise<void> {
  await Promise.all(refining);
  const { calibrateBy, picks } = useDesk.getState();
  if (calibrateBy === "count" && picks.length === 2) await proposeCount();
}

/** Counts the joints between the picks and proposes the count with its ticks. */
async function proposeCount(): Promise<void> {
  const { picks, drawing } = useDesk.getState();
  const [a, b] = picks;
  const page = drawing === null ? undefined : useProject.getState().rows.drawing.get(drawing)?.page;
  if (!a || !b || page === undefined) return;
  try {
    const query = { ax: a.at[0], ay: a.at[1], bx: b.at[0], by: b.at[1] };
    const { count } = await settled(
      api.GET("/api/projects/{project}/pages/{id}/ticks", { params: { path: inProject(page), query } }),
    );
    const now = useDesk.getState();
    if (!count || now.picks[0] !== a) return;
    const unit = Math.abs(b.at[1] - a.at[1]) > Math.abs(b.at[0] - a.at[0]) ? "c" : "u";
    const ticks = count.ticks.map((t): XY => [t[0] ?? 0, t[1] ?? 0]);
    // What is counted runs from joint to joint: there its ends are known best.
    const [first, last] = [ticks[0], ticks.at(-1)];
    const onJoint = (at: XY): Picked => ({ at, sigmaPx: JOINT_PX, words: "joint, on the scan", thicknessPx: null });
    useDesk.setState({
      ticks,
      ...(first && last && ticks.length === count.spaces + 1 ? { picks: [onJoint(first), onJoint(last)] } : {}),
      ...(now.slip === "" ? { slip: `${count.spaces}${unit}` } : {}),
    });
  } catch (error) {
    useDesk.setState({ slipError: (error as Refused).message });
  }
}

/** Moves the focused pick of the draft, page pixels. */
export function nudgeEnd(dx: number, dy: number): void {
  const { picks, focusedEnd } = useDesk.getState();
  const moved = Math.min(focusedEnd, picks.length - 1);
  useDesk.setState({
    picks: picks.map((p, i) =>
      i === moved
        ? { at: [p.at[0] + dx, p.at[1] + dy], sigmaPx: NUDGED_PX, words: "nudged", thicknessPx: p.thicknessPx }
        : p,
    ),
  });
}

/** A joint is this well known along the count, page pixels. */
const JOINT_PX = 0.4;

/** Looked at eight times as large, an end is held this well, page pixels. */
export const NUDGED_PX = 0.35;

/** How well a hand points without the ink's help, at the present zoom. */
function handSigma(): number {
  const { drawing, view } = useDesk.getState();
  const zoom = view.k * mmPerPixel(useProject.getState().rows, drawing);
  return Math.max(0.35, Math.min(4, 0.5 / zoom));
}

/** Waits until the ink has answered for every pick of the draft. */
export async function allFound(): Promise<void> {
  await Promise.all(refining);
}

/** Enter in the slip of Calibrate or Place. */
export function stateWhatIsPicked(text: string): Promise<void> {
  return towardsChange(async () => {
    await Promise.all(refining);
    const { act, calibrateBy } = useDesk.getState();
    if (act === "levels") return stateLevel(text);
    if (act === "place") return useDesk.getState().placing === "side" ? stateSide(text) : statePlace(text);
    if (calibrateBy === "room") return stateRoom(text);
    return stateLength(text);
  });
}

async function stateLength(text: string): Promise<void> {
  const desk = useDesk.getState();
  const { drawing, picks, calibrateBy } = desk;
  const [a, b, c] = picks;
  if (drawing === null || !a || !b) return;
  const [project] = useProject.getState().rows.project.values();
  const across = calibrateBy === "length" && desk.along === "across";
  const ids = picks.map(() => newId());
  const counted = calibrateBy === "count";
  const differs = desk.endsAt !== desk.pickedAt;
  const wall = differs
    ? await millimetres(
        desk.wallText,
        "The figure runs between other lines than were picked: say how thick the wall is.",
      )
    : 0;
  if (wall === null) return;
  const stands = desk.standOff.by.trim() !== "" && calibrateBy === "length";
  const standOff = stands
    ? await millimetres(desk.standOff.by, "Say how far it stands before the wall: 450 mm.")
    : null;
  const seenFrom = stands
    ? await millimetres(desk.standOff.from, "Say also from how far away the photograph was taken: 12 m.")
    : null;
  if (stands && (standOff === null || seenFrom === null)) return;
  await sendStatement(
    desk.heldOut ? "Check length" : "Known length",
    [
      ...picks.map((p, i) => addPick(ids[i] ?? "", drawing, p)),
      {
        do: "add",
        type: "knownLength",
        id: newId(),
        values: {
          drawing,
          a: ids[0] ?? "",
          // Across, the third pick lies off the line of the first two.
          b: (across && c ? ids[2] : ids[1]) ?? "",
          c: across ? (ids[1] ?? null) : null,
          text,
          unit: projectUnit(),
          standing: counted ? "module" : desk.standing,
          ends: desk.endsAt,
          picked: differs ? desk.pickedAt : desk.endsAt,
          wall,
          standOff,
          seenFrom,
          along: counted ? "straight" : desk.along,
          heldOut: desk.heldOut,
          wholePage: desk.wholePage,
          course: counted ? (project?.course ?? null) : null,
          unitLength: counted ? (project?.unitLength ?? null) : null,
          joint: counted ? (project?.joint ?? 0) : 0,
        },
      },
    ],
    text,
  );
}

/** A length that an allowance needs, or what is missing said at the slip. */
async function millimetres(text: string, otherwise: string): Promise<number | null> {
  try {
    const { mm } = await settled(api.GET("/api/length", { params: { query: { text, unit: projectUnit() } } }));
    return mm;
  } catch {
    useDesk.setState({ slipError: otherwise });
    return null;
  }
}

async function stateRoom(text: string): Promise<void> {
  const { drawing, picks, standing } = useDesk.getState();
  const sides = /^(.+?)\s*[x×*]\s*(.+)$/u.exec(text.trim());
  if (!sides) return useDesk.setState({ slipError: "Type width and depth: 3.6 m x 4.2 m." });
  if (drawing === null || picks.length !== 4) return;
  const ids = picks.map(() => newId());
  const [a = "", b = "", c = "", d = ""] = ids;
  await sendStatement(
    "Room of known size",
    [
      ...picks.map((p, i) => addPick(ids[i] ?? "", drawing, p)),
      {
        do: "add",
        type: "rectangle",
        id: newId(),
        values: { drawing, a, b, c, d, width: sides[1] ?? "", depth: sides[2] ?? "", unit: projectUnit(), standing },
      },
    ],
    text,
  );
}

/** A place as typed: a crossing of the setting-out grid, `origin`, or two coordinates. */
async function statePlace(text: string): Promise<void> {
  const { drawing, picks, placing } = useDesk.getState();
  const { rows } = useProject.getState();
  const map = fitMap(rows, drawing);
  const [p] = picks;
  if (drawing === null || !p || !map) return;
  const label = text.trim();
  if (placing !== "point") {
    if (label === "") return useDesk.setState({ slipError: "An axis needs a label: 1, A." });
    const along = placing === "axis x" ? "x" : "y";
    const at = apply(map, p.at)[along === "x" ? 0 : 1];
    return sendDraft("Axis of the grid", [{ do: "add", type: "gridAxis", id: newId(), values: { along, at, label } }]);
  }
  const at = crossingNamed(label, [...rows.gridAxis.values()]) ?? (await coordinates(label));
  if (!at) {
    return useDesk.setState({
      slipError: "Say where this point lies: 0 0, 12 m 3.5 m, or a crossing of the grid such as B/2.",
    });
  }
  const id = newId();
  await sendStatement(
    "Place a point",
    [
      addPick(id, drawing, p),
      {
        do: "add",
        type: "controlPoint",
        id: newId(),
        values: { drawing, pick: id, x: at[0], y: at[1], text: label === "" ? "origin" : label },
      },
    ],
    text,
  );
}

/** `B/2`, `2 B`: one axis along x and one along y, in either order. */
export function crossingNamed(text: string, axes: readonly Thing<"gridAxis">[]): XY | null {
  const names = text.split(/[\s/,·-]+/).filter((n) => n !== "");
  if (names.length !== 2) return null;
  const find = (along: "x" | "y", name: string) =>
    axes.find((a) => a.along === along && a.label.toLowerCase() === name.toLowerCase());
  const [one = "", two = ""] = names;
  const x = find("x", one) ?? find("x", two);
  const y = find("y", two) ?? find("y", one);
  return x && y ? [x.at, y.at] : null;
}

async function coordinates(text: string): Promise<XY | null> {
  if (text === "" || text.toLowerCase() === "origin") return [0, 0];
  const parts = text.includes(";")
    ? text.split(";")
    : text.split(/,\s+|\s{2,}/).length === 2
      ? text.split(/,\s+|\s{2,}/)
      : text.split(/\s+/);
  if (parts.length !== 2) return null;
  const places: number[] = [];
  for (const part of parts) {
    try {
      const query = { text: part.trim(), unit: projectUnit() };
      places.push((await settled(api.GET("/api/length", { params: { query } }))).mm);
    } catch {
      return null;
    }
  }
  return [places[0] ?? 0, places[1] ?? 0];
}
