import type { Act, Shown } from "../../../board/act";
import { select } from "../../select";
import { Moves } from "./Moves";
import { SettlePanel } from "./SettlePanel";

/** A storey is made level, plumb and true to its figures, as far as was measured. */
const act: Act = { ...select, name: "settle", Panel: SettlePanel };

export default act;

export const shows: readonly Shown[] = [{ in: (desk) => desk.act === "settle", Marks: Moves }];
