import type { StepModule } from "../../board/act";
import { select } from "../select";
import { type ActModule, gathered } from "../step";
import { TraceLedger } from "./TraceLedger";

export default {
  Ledger: TraceLedger,
  ...gathered(import.meta.glob<ActModule>("./*/act.tsx", { eager: true })),
  rest: select,
} satisfies StepModule;
