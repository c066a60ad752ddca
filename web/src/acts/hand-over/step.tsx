import type { StepModule } from "../../board/act";
import { HandOverLedger } from "./HandOverLedger";

export default { Ledger: HandOverLedger, acts: [] } satisfies StepModule;
