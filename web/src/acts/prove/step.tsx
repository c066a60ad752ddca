import type { StepModule } from "../../board/act";
import { select } from "../select";
import { ProveLedger } from "./ProveLedger";
import { WayOnBoard } from "./WaysOut";

export default {
  Ledger: ProveLedger,
  acts: [],
  rest: select,
  shows: [{ in: (desk) => desk.step === "prove", Marks: WayOnBoard }],
} satisfies StepModule;
