import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { PLUM } from "../../../board/marks";
import { pick, picksNow } from "../../../board/picking";
import { exactSnap } from "../../../board/snap";
import { apply } from "../../../geometry/maps";
import { middle, type XY } from "../../../geometry/plane";
import { fitMap } from "../../../store/drawings";
import { useProject } from "../../../store/project";
import { isTracing } from "../../isTracing";
import { Stairs } from "../../Stairs";
import { PlacePanel } from "./PlacePanel";
import { ontoHere, placeOnto, statePlace, usePlacing } from "./placing";
import { SettingOut } from "./SettingOut";
import { Sides } from "./Sides";
import { sideWithoutLine, stateSide } from "./sides";

const isSide = () => ["side", "section"].includes(usePlacing.getState().placing);
/** Whether a click says what the point that is picked belongs onto. */
const isOnto = () =>
  usePlacing.getState().placing === "point" && picksNow().length === 1 && useDesk.getState().slip === "";
const wanted = () => (isSide() ? 2 : 1);

const WORDS = {
  point: { label: "lies at", hint: "0 0, 12 m 3.5 m, a crossing B/2; or click what it belongs onto." },
  axis: { label: "axis", hint: "Its label: 1, 2 or A, B. Enter sets it." },
  section: { label: "section", hint: "From its left end to its right as you look at what lies behind. Enter sets it." },
  side: { label: "side", hint: "From its left end to its right as you look at it. Enter sets it." },
};

/** A point of the drawing goes where it belongs; axes of the grid and lines of sides are picked. */
const act: Act = {
  name: "place",
  wanted,
  click(click) {
    if (isOnto()) return void placeOnto(click.pointer, click.free);
    const next =
      usePlacing.getState().placing === "side"
        ? sideWithoutLine(useProject.getState().rows.side.values())?.name
        : undefined;
    pick(click, { wanted: wanted(), text: next ?? "" });
  },
  snap(pointer, reach, free) {
    const onto = isOnto() && !free ? ontoHere(pointer) : null;
    return onto ? { at: onto.at, words: `onto the ${onto.words}` } : exactSnap(pointer, reach, free);
  },
  // What the point goes onto is not in its own ink.
  takesInk: (found) => (isOnto() ? null : found),
  slip() {
    const { placing } = usePlacing.getState();
    const picks = picksNow();
    const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
    const [a, b = a] = picks;
    if (!map || !a || !b || picks.length < wanted()) return null;
    const words = WORDS[placing === "axis x" || placing === "axis y" ? "axis" : placing];
    const about = [apply(map, a.at), apply(map, b.at)];
    const at = middle(apply(map, a.at), apply(map, b.at));
    return {
      at,
      about,
      ...words,
      passes: isOnto(),
      send: isSide() ? (text) => stateSide(text, placing === "section") : statePlace,
    };
  },
  draws(pen) {
    const map = fitMap(useProject.getState().rows, useDesk.getState().drawing);
    for (const pick of map ? picksNow() : []) {
      const [x, y] = pen.at(apply(map ?? [1, 0, 0, 0, 1, 0], pick.at));
      const look = { colour: PLUM, width: 1.8 };
      const square: XY[] = [
        [x - 5, y - 5],
        [x + 5, y - 5],
        [x + 5, y + 5],
        [x - 5, y + 5],
        [x - 5, y - 5],
      ];
      pen.path(square, look);
      pen.path([[x - 8, y], [x + 8, y]], look); // biome-ignore format: one stroke a line
      pen.path([[x, y - 8], [x, y + 8]], look); // biome-ignore format: one stroke a line
    }
  },
  Panel: PlacePanel,
};

export default act;

export const shows: readonly Shown[] = [
  { in: () => true, Marks: SettingOut },
  { in: () => true, Marks: Sides },
  { in: (desk) => desk.act === "place" && !isTracing(desk), Marks: Stairs },
];
