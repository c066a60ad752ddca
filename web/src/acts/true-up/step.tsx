import type { StepModule } from "../../board/act";
import { BrokenLineLens } from "../../board/Lens";
import { usePending } from "../statements";
import { type ActModule, gathered } from "../step";
import { useAudit } from "./audit";
import { useTruthPlot } from "./plot";
import { NextBest, Statements } from "./Statements";
import { TrueUpLedger } from "./TrueUpLedger";
import { TruthPlot } from "./TruthPlot";

const { acts, shows } = gathered(import.meta.glob<ActModule>("./*/act.tsx", { eager: true }));

const isTruingUp = ({ step }: { step: string }) => step === "true-up";

function Plotted({ screen }: Parameters<typeof TruthPlot>[0]) {
  return useTruthPlot((s) => s.shown) ? <TruthPlot screen={screen} /> : null;
}

function Audited() {
  const ends = useAudit();
  return ends && <BrokenLineLens ends={ends} />;
}

export default {
  Ledger: TrueUpLedger,
  acts,
  shows: [
    ...shows,
    { in: isTruingUp, Marks: Plotted },
    { in: isTruingUp, Marks: Statements },
    { in: isTruingUp, Marks: NextBest },
  ],
  Over: Audited,
  key(key) {
    if (key !== "v") return false;
    useTruthPlot.setState((s) => ({ shown: !s.shown }));
    return true;
  },
  back() {
    const { slip, fit } = usePending.getState();
    if (!slip && !fit) return false;
    usePending.setState(slip ? { slip: null } : { fit: null });
    return true;
  },
} satisfies StepModule;
