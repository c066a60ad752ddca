import { OneOf, Plain } from "../../../ui/parts";
import { useDrawOptions } from "./draw";
import { FillOf, KindOf } from "./LineFields";

const HINTS = {
  line: "Click from corner to corner; on the first one it closes. Enter ends it, Shift and Enter closes it, Backspace takes the last corner back.",
  rectangle: "Click two opposite corners, or one and type both sides.",
  circle: "Click its middle and a place on it, or type its radius.",
  dimension: "Click two places, then where its line stands.",
} as const;

/** How the next line, shape or dimension is drawn. */
export function DrawOptions() {
  const { shape, stretch, kind, fill, measures, ink } = useDrawOptions();
  const set = useDrawOptions.setState;
  return (
    <section className="border-b border-line bg-white px-4 py-3 text-[13px]" aria-label="Lines">
      <OneOf
        label="Shape"
        value={shape}
        of={[
          ["line", "line"],
          ["rectangle", "rectangle"],
          ["circle", "circle"],
          ["dimension", "dimension"],
        ]}
        set={(to) => set({ shape: to })}
      />
      {shape === "line" && (
        <div className="mt-1">
          <OneOf
            label="Next stretch"
            value={stretch}
            of={[
              ["straight", "straight on"],
              ["arc", "an arc"],
            ]}
            set={(to) => set({ stretch: to })}
          />
        </div>
      )}
      {shape === "dimension" ? (
        <div className="mt-1">
          <OneOf
            label="Measured"
            value={measures}
            of={[
              ["straight", "straight"],
              ["level", "level"],
              ["upright", "upright"],
            ]}
            set={(to) => set({ measures: to })}
          />
        </div>
      ) : (
        <div className="mt-2 grid grid-cols-2 gap-2">
          <KindOf value={kind} set={(to) => set({ kind: to })} />
          <FillOf value={fill} set={(to) => set({ fill: to })} />
        </div>
      )}
      <div className="mt-2 flex gap-1.5">
        <Plain pressed={ink} onClick={() => set({ ink: !ink })}>
          Hold to the ink
        </Plain>
      </div>
      <p className="mt-2 text-quiet">{HINTS[shape]}</p>
    </section>
  );
}
