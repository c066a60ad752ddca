import type { DeskState } from "../board/desk";

/** Whether what is traced speaks: not while drawings are brought in and trued up. */
export function isTracing({ step }: Pick<DeskState, "step">): boolean {
  return step === "trace" || step === "prove" || step === "hand-over";
}
