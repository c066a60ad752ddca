import type { StepModule } from "../../board/act";
import { HandOverLedger } from "./HandOverLedger";
import { SheetOver } from "./SheetOver";
import { lookAt, takeView, useSheets } from "./sheets";

export default {
  Ledger: HandOverLedger,
  acts: [],
  Over: SheetOver,
  back() {
    const { sheet, view, figure } = useSheets.getState();
    if (figure !== null) useSheets.setState({ figure: null });
    else if (view !== null) takeView(null);
    else if (sheet !== null) lookAt(null);
    return sheet !== null;
  },
} satisfies StepModule;
