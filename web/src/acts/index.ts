import { type ActEntry, registerEntries, registerStep, type StepModule, useActs } from "../board/act";
import type { Step } from "../board/desk";

const ENTRIES = import.meta.glob<{ default: ActEntry }>("./*/*/entry.ts", { eager: true });
const STEPS = import.meta.glob<{ default: StepModule }>("./*/step.tsx");

/** How all acts stand in the rail and on the keys; none of their code comes with it. */
export function registerActs(): void {
  registerEntries(Object.values(ENTRIES).map((m) => m.default));
}

/** Loads a step's code, once; null is what serves in all of them. */
export async function loadStep(step: Step | null): Promise<void> {
  if (useActs.getState().steps.has(step)) return;
  const module = await STEPS[`./${step ?? "anywhere"}/step.tsx`]?.();
  if (module) registerStep(step, module.default);
}

/** All of them, the one that is wanted first. */
export async function loadSteps(first: Step): Promise<void> {
  await loadStep(first);
  await Promise.all(
    [null, "bring-in", "true-up", "trace", "prove", "hand-over"].map((s) => loadStep(s as Step | null)),
  );
}
