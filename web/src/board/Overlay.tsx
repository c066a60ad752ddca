import { toScreen } from "../geometry/view";
import { type OnBoard, useActs, useCurrentAct } from "./act";
import { useDesk, useDeskFields } from "./desk";
import { FigureSlip } from "./FigureSlip";
import { PointerWords } from "./PointerWords";

/** What floats above the canvas: what is there, what is being drawn, and the figure slip. */
export function Overlay() {
  const { view, size } = useDeskFields("view", "size");
  const act = useCurrentAct();
  const steps = useActs((s) => s.steps);
  const shown = [...steps.values()].flatMap((module) => module.shows ?? []);
  const screen = toScreen(view, size);
  if (act?.onPage?.()) return act.Over ? <act.Over screen={screen} /> : null;
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true" data-testid="marks">
        <title>Marks on the board</title>
        {shown.map((each, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: what is registered keeps its place
          <Layer key={i} isIn={each.in} of={each.Marks} screen={screen} />
        ))}
      </svg>
      {shown.map((each, i) => (
        // biome-ignore lint/suspicious/noArrayIndexKey: what is registered keeps its place
        <Layer key={i} isIn={each.in} of={each.Labels} screen={screen} />
      ))}
      <PointerWords />
      <FigureSlip />
      {act?.Over && <act.Over screen={screen} />}
    </>
  );
}

type Screen = Parameters<OnBoard>[0];

function Layer(props: Screen & { isIn: NonNullable<Parameters<typeof useDesk>[0]>; of: React.FC<Screen> | undefined }) {
  const isIn = useDesk(props.isIn);
  return isIn && props.of ? <props.of screen={props.screen} /> : null;
}
