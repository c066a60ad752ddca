import type { StepModule } from "../../board/act";
import { type ActModule, gathered } from "../step";

/** Acts that serve in every step. */
export default {
  Ledger: () => null,
  ...gathered(import.meta.glob<ActModule>("./*/act.tsx", { eager: true })),
} satisfies StepModule;
