import type { StepModule } from "../../board/act";
import { HandOverLedger } from "./HandOverLedger";
import { useSheet } from "./SheetCard";
import { SheetView } from "./SheetView";

export default {
  Ledger: HandOverLedger,
  acts: [],
  Over: SheetView,
  back() {
    const { large } = useSheet.getState();
    if (large) useSheet.setState({ large: false });
    return large;
  },
} satisfies StepModule;
