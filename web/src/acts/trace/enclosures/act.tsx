import type { Act, Shown } from "../../../board/act";
import { useDesk } from "../../../board/desk";
import { regionUnder, snapAt } from "../../../board/snap";
import { drawTraced } from "../../../board/traced";
import { say } from "../../../store/project";
import { isTracing } from "../../isTracing";
import { removeRow } from "../removing";
import { EnclosureOptions, EnclosureRows, SelectedEnclosure } from "./EnclosurePanel";
import { EnclosureNames, Enclosures } from "./Enclosures";
import {
  alongFaces,
  cornersNow,
  encloseRoom,
  enclosurePoint,
  enclosureSnap,
  endOutline,
  select,
  takeBack,
  useNextEnclosure,
} from "./enclosures";

const tip = () => useDesk.getState().snap?.at ?? useDesk.getState().pointer;

/** Areas with a class of fire resistance: rooms, what runs along faces of walls, or what is drawn freely. */
const act: Act = {
  name: "enclosures",
  click({ pointer, free }) {
    if (useNextEnclosure.getState().by === "rooms") {
      const region = regionUnder(pointer);
      if (region?.id) return void encloseRoom(region.id);
      return say(region ? "Name this room first: an enclosure is of named rooms." : "Nothing closes round this place.");
    }
    const desk = useDesk.getState();
    const snap = desk.snap && desk.pointer === pointer && !free ? desk.snap : snapAt(pointer, free);
    enclosurePoint(snap?.at ?? pointer, snap?.closes === true);
  },
  snap: enclosureSnap,
  key(e) {
    if (e.key === "Backspace") return takeBack();
    if (e.key !== "Enter") return false;
    if (cornersNow().length > 0) void endOutline();
    else if (useDesk.getState().selected?.type === "enclosure") select(null);
    else return false;
    return true;
  },
  draws(pen) {
    const corners = cornersNow();
    const [last, to] = [corners.at(-1), tip()];
    if (!last || !to) return;
    const between = useNextEnclosure.getState().by === "faces" ? alongFaces(last, to, corners.slice(1, -1)) : [];
    drawTraced(pen, [...corners, ...between, to], [...corners]);
  },
  Panel: EnclosureOptions,
  Rows: { of: EnclosureRows, rank: 6 },
  selects: {
    enclosure: { Panel: SelectedEnclosure, remove: (id) => removeRow("enclosure", id, "Remove an enclosure") },
  },
};

export default act;

export const shows: readonly Shown[] = [
  {
    in: (desk) =>
      isTracing(desk) && (desk.act === "enclosures" || desk.selected?.type === "enclosure" || desk.step === "prove"),
    Marks: Enclosures,
    Labels: EnclosureNames,
  },
];
