import type { Act } from "../../../board/act";

/** A copy wider or narrower than true: what it says of that stands in the ledger of the step. */
const act: Act = { name: "unstretch", click: () => undefined };

export default act;
