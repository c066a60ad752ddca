import { goTo, setAct, useDeskFields } from "../desk/desk";
import { useProject } from "../store/project";
import { foundInInk, isDone, statusOf } from "./status";
import { STEPS } from "./steps";

/** The running order: five steps, each with its state; the current one opens to its acts. */
export function StepRail() {
  const desk = useDeskFields("step", "act", "drawing", "storey", "side");
  const project = useProject();
  return (
    <nav
      className="flex w-[206px] shrink-0 flex-col overflow-y-auto border-r border-line bg-stone-deep py-2 max-[1100px]:w-[150px]"
      aria-label="Steps"
    >
      {STEPS.map(({ step, label, acts }) => {
        const current = desk.step === step;
        const done = isDone(step, project, desk);
        return (
          <div
            key={step}
            className={current ? "border-l-4 border-zest bg-sheet pb-2" : "border-l-4 border-transparent"}
          >
            <button
              type="button"
              className="flex w-full items-start gap-2 px-3 py-2 text-left"
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
              <span>
                <span className="block text-[15px] leading-5 font-semibold">{label}</span>
                <span className="block text-[13px] leading-4.5 text-quiet">{statusOf(step, project, desk)}</span>
              </span>
            </button>
            {current &&
              acts
                .filter((entry) => entry.on === undefined || (entry.on === "side") === (desk.side !== null))
                .map((entry) => (
                  <button
                    key={entry.act}
                    type="button"
                    aria-pressed={desk.act === entry.act}
                    className={`mr-2 ml-8 block w-[calc(100%-2.6rem)] rounded-lg px-2 py-1.5 text-left max-[1100px]:ml-3 ${
                      desk.act === entry.act ? "border border-line bg-white" : "border border-transparent"
                    }`}
                    onClick={() => setAct(desk.act === entry.act ? null : entry.act)}
                  >
                    <span className="flex justify-between">
                      <span className="font-semibold">{entry.label}</span>
                      <kbd>{entry.key}</kbd>
                    </span>
                    <span className="block text-[13px] leading-4.5 text-quiet">
                      {entry.act === "square" ? (foundInInk(project, desk.drawing) ?? entry.when) : entry.when}
                    </span>
                  </button>
                ))}
          </div>
        );
      })}
    </nav>
  );
}
