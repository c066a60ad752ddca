import type { StepModule } from "../../board/act";
import { type ActModule, gathered } from "../step";
import { BringInLedger } from "./BringInLedger";
import { MatchPoints } from "./MatchPoints";

export default {
  Ledger: BringInLedger,
  ...gathered(import.meta.glob<ActModule>("./*/act.tsx", { eager: true })),
  Over: MatchPoints,
} satisfies StepModule;
