import { useShallow } from "zustand/react/shallow";
import { entriesOf, useActs } from "../../board/act";
import { goTo, setAct, useDeskFields } from "../../board/desk";
import { STEPS } from "../../board/steps";
import { useProject } from "../../store/project";
import { isDone, statusOf } from "./status";

/** The running order: five steps, each with its state; the current one opens to its acts, one line each. */
export function StepRail() {
  const desk = useDeskFields("step", "act", "drawing", "storey", "side");
  const reads = useProject((s) => s.role === "read");
  const entries = useActs((s) => s.entries);
  const said = useProject(useShallow((s) => STEPS.map(({ step }) => statusOf(step, s, desk))));
  const dones = useProject(useShallow((s) => STEPS.map(({ step }) => isDone(step, s, desk))));
  const hints = useProject(
    useShallow((s) => Object.fromEntries(entries.map((e) => [e.act, e.hint?.(s, desk.drawing) ?? null]))),
  );
  return (
    <nav
      className="flex w-[206px] shrink-0 flex-col overflow-y-auto border-r border-line bg-stone-deep py-1 max-[1100px]:w-[150px]"
      aria-label="Steps"
    >
      {STEPS.map(({ step, label }, i) => {
        const current = desk.step === step;
        const done = dones[i];
        return (
          <div
            key={step}
            className={current ? "border-l-4 border-zest bg-sheet pb-1.5" : "border-l-4 border-transparent"}
          >
            <button
              type="button"
              className="flex w-full items-start gap-2 px-3 py-1 text-left"
              aria-current={current ? "step" : undefined}
              onClick={() => goTo(step)}
            >
              <span
                aria-hidden="true"
                className={`mt-0.5 flex size-4 shrink-0 items-center justify-center rounded-full border text-[10px] ${
                  current ? "border-zest-edge bg-zest" : done ? "border-ink bg-ink text-white" : "border-quiet"
                }`}
              >
                {done ? "✓" : ""}
              </span>
              <span className="min-w-0">
                <span className="block text-[15px] leading-5 font-semibold">{label}</span>
                <span className="block text-[13px] leading-4 text-quiet">{said[i]}</span>
              </span>
            </button>
            {/* Who only reads has nothing to do there. */}
            {current &&
              !reads &&
              entriesOf(step, desk.side !== null).map((entry) => {
                const pressed = desk.act === entry.act;
                return (
                  <button
                    key={entry.act}
                    type="button"
                    aria-pressed={pressed}
                    className={`group mr-2 ml-8 block w-[calc(100%-2.6rem)] rounded-md px-2 text-left max-[1100px]:ml-3 max-[1100px]:w-[calc(100%-1.25rem)] ${
                      pressed ? "border border-line bg-white" : "border border-transparent"
                    }`}
                    title={entry.when}
                    onClick={() => setAct(pressed ? null : entry.act)}
                  >
                    <span className="flex h-6 items-center justify-between">
                      <span className="truncate">
                        <span className="font-semibold">{entry.label}</span>{" "}
                        <span className="text-[13px] text-quiet">{hints[entry.act]}</span>
                      </span>
                      <kbd>{entry.key}</kbd>
                    </span>
                    {/* What it is for is said of the one at hand, and of one that the keyboard has come to. */}
                    <span
                      className={`pb-1 text-[13px] leading-4 text-quiet ${pressed ? "block" : "hidden group-focus-visible:block"}`}
                    >
                      {entry.when}
                    </span>
                  </button>
                );
              })}
          </div>
        );
      })}
    </nav>
  );
}
