import { api, type Refused, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import { drafted, type Picked, useDesk } from "../../../board/desk";
import { picksNow } from "../../../board/picking";
import type { XY } from "../../../geometry/plane";
import { lengthOf, projectUnit } from "../../../store/lengths";
import { change, inProject, useProject } from "../../../store/project";
import { useNextLength } from "../../nextLength";
import { addPick, sendStatement } from "../../statements";

/** A joint is this well known along the count, page pixels. */
const JOINT_PX = 0.4;

/** How many picks the next statement needs. */
export function picksWanted(): number {
  const { by, along } = useNextLength.getState();
  return by === "room" ? 4 : by === "length" && along === "across" ? 3 : 2;
}

/** Enter in the slip. */
export function stateWhatIsPicked(text: string): Promise<void> {
  return useNextLength.getState().by === "room" ? stateRoom(text) : stateLength(text);
}

/** Where what is stated now is counted, its joints are looked for as soon as both ends are there. */
export async function whenAllFound(): Promise<void> {
  if (useNextLength.getState().by === "count" && picksNow().length === 2) await proposeCount();
}

/** Counts the joints between the picks and proposes the count with its ticks. */
async function proposeCount(): Promise<void> {
  const { drawing } = useDesk.getState();
  const [a, b] = picksNow();
  const page = drawing === null ? undefined : useProject.getState().rows.drawing.get(drawing)?.page;
  if (!a || !b || page === undefined) return;
  try {
    const query = { ax: a.at[0], ay: a.at[1], bx: b.at[0], by: b.at[1] };
    const { count } = await settled(
      api.GET("/api/projects/{project}/pages/{id}/ticks", { params: { path: inProject(page), query } }),
    );
    const draft = drafted("picks");
    if (!count || draft?.picks[0] !== a) return;
    const unit = Math.abs(b.at[1] - a.at[1]) > Math.abs(b.at[0] - a.at[0]) ? "c" : "u";
    const ticks = count.ticks.map((t): XY => [t[0] ?? 0, t[1] ?? 0]);
    // What is counted runs from joint to joint: there its ends are known best.
    const [first, last] = [ticks[0], ticks.at(-1)];
    const onJoint = (at: XY): Picked => ({ at, sigmaPx: JOINT_PX, words: "joint, on the scan", thicknessPx: null });
    const isWhole = first && last && ticks.length === count.spaces + 1;
    useDesk.setState({
      draft: { ...draft, ticks, picks: isWhole ? [onJoint(first), onJoint(last)] : draft.picks },
      ...(useDesk.getState().slip === "" ? { slip: `${count.spaces}${unit}` } : {}),
    });
  } catch (error) {
    useDesk.setState({ slipError: (error as Refused).message });
  }
}

async function stateLength(text: string): Promise<void> {
  const { drawing } = useDesk.getState();
  const next = useNextLength.getState();
  const picks = picksNow();
  const [a, b, c] = picks;
  if (drawing === null || !a || !b) return;
  const across = next.by === "length" && next.along === "across";
  const ids = picks.map(() => newId());
  const counted = next.by === "count";
  const differs = next.endsAt !== next.pickedAt;
  const wall = differs
    ? await millimetres(
        next.wallText,
        "The figure runs between other lines than were picked: say how thick the wall is.",
      )
    : 0;
  if (wall === null) return;
  const module = counted ? await moduleFor(text) : { course: null, unitLength: null, joint: 0 };
  if (module === null) return;
  const stands = next.standOff.by.trim() !== "" && next.by === "length";
  const standOff = stands
    ? await millimetres(next.standOff.by, "Say how far it stands before the wall: 450 mm.")
    : null;
  const seenFrom = stands
    ? await millimetres(next.standOff.from, "Say also from how far away the photograph was taken: 12 m.")
    : null;
  if (stands && (standOff === null || seenFrom === null)) return;
  await sendStatement(
    next.heldOut ? "Check length" : "Known length",
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
          standing: counted ? "module" : next.standing,
          ends: next.endsAt,
          picked: differs ? next.pickedAt : next.endsAt,
          wall,
          standOff,
          seenFrom,
          along: counted ? "straight" : next.along,
          heldOut: next.heldOut,
          wholePage: next.wholePage,
          ...module,
        },
      },
    ],
    text,
  );
}

type Counted = "course" | "unitLength";

/** What a count stands on that the project does not know yet: one course, or one unit along. */
export function missingOf(text: string): Counted | null {
  const [project] = useProject.getState().rows.project.values();
  if (/\dc/.test(text.replace(/\s/g, "")) && project?.course == null) return "course";
  return /\du/.test(text.replace(/\s/g, "")) && project?.unitLength == null ? "unitLength" : null;
}

/** The project's module, with what was typed beside the count; or what is missing said at the slip. */
async function moduleFor(
  text: string,
): Promise<{ course: number | null; unitLength: number | null; joint: number } | null> {
  const [project] = useProject.getState().rows.project.values();
  const known = {
    course: project?.course ?? null,
    unitLength: project?.unitLength ?? null,
    joint: project?.joint ?? 0,
  };
  const missing = missingOf(text);
  if (missing === null || !project) return known;
  const otherwise =
    missing === "course"
      ? "Say how high one course is, from joint to joint: 75."
      : "Say how long one unit is, from joint to joint: 225.";
  const mm = await millimetres(useNextLength.getState().module[missing], otherwise);
  if (mm === null) return null;
  const refused = await change("Module", [{ do: "set", type: "project", id: project.id, values: { [missing]: mm } }]);
  return refused ? null : { ...known, [missing]: mm };
}

/** A length that an allowance needs, or what is missing said at the slip. */
async function millimetres(text: string, otherwise: string): Promise<number | null> {
  try {
    return await lengthOf(text);
  } catch {
    useDesk.setState({ slipError: otherwise });
    return null;
  }
}

async function stateRoom(text: string): Promise<void> {
  const { drawing } = useDesk.getState();
  const { standing } = useNextLength.getState();
  const picks = picksNow();
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
