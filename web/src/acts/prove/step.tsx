import type { StepModule } from "../../board/act";
import { select } from "../select";
import { ProveLedger } from "./ProveLedger";

export default { Ledger: ProveLedger, acts: [], rest: select } satisfies StepModule;
