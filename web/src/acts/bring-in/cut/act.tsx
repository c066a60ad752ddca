import type { Act } from "../../../board/act";
import { drafted } from "../../../board/desk";
import { CutLedger } from "./CutLedger";
import { CutOverlay } from "./CutOverlay";

/** A page is cut into the drawings that are on it. */
const act: Act = {
  name: "cut",
  click: () => undefined,
  onPage: () => drafted("cut") !== null,
  Over: CutOverlay,
  Panel: CutLedger,
};

export default act;
