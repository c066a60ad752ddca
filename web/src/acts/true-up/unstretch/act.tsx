import type { Act, Shown } from "../../../board/act";
import { HeldSides } from "./HeldSides";

/** A copy wider or narrower than true: what it says of that stands in the ledger of the step. */
const act: Act = { name: "unstretch", click: () => undefined };

export default act;

export const shows: readonly Shown[] = [{ in: (desk) => desk.act === "unstretch", Marks: HeldSides }];
