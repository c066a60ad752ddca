import type { Step } from "./desk";

/** The running order. */
export const STEPS: readonly { step: Step; label: string }[] = [
  { step: "bring-in", label: "Bring in" },
  { step: "true-up", label: "True up" },
  { step: "trace", label: "Trace" },
  { step: "prove", label: "Prove" },
  { step: "hand-over", label: "Hand over" },
];
