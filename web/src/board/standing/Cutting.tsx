import { inWords } from "../../ui/measures";
import type { Place3 } from "./camera";

/** Level at so many mm above the project's zero, or upright at a part of the way through, looking so many degrees from north. */
export type Cut = { way: "none" | "level" | "upright"; level: number; part: number; degrees: number };

/** Corners of the box round all that is seen, metres. */
export type Bounds = { least: Place3; most: Place3 };

/** How the building is cut, and where. */
export function Cutting(props: {
  cut: Cut;
  bounds: Bounds | null;
  /** where a level cut begins, mm */
  level: () => number;
  className: string;
  set: (cut: Cut) => void;
}) {
  const { cut, bounds, level, className, set } = props;
  return (
    <fieldset className={className} aria-label="Cut">
      <select
        aria-label="cut"
        className="bg-transparent underline"
        value={cut.way}
        onChange={(e) => set({ ...cut, way: e.target.value as Cut["way"], level: level() })}
      >
        <option value="none">not cut</option>
        <option value="level">cut level</option>
        <option value="upright">cut upright</option>
      </select>
      {cut.way === "level" && (
        <>
          <input
            type="range"
            aria-label="height of the cut"
            min={Math.floor((bounds?.least[2] ?? 0) * 20) * 50}
            max={Math.ceil((bounds?.most[2] ?? 3) * 20) * 50}
            step={50}
            value={cut.level}
            onChange={(e) => set({ ...cut, level: e.target.valueAsNumber })}
          />
          <span className="w-20 text-right tabular-nums">{inWords(cut.level)}</span>
        </>
      )}
      {cut.way === "upright" && (
        <>
          <input
            type="range"
            aria-label="where it is cut"
            min={0}
            max={1}
            step={0.005}
            value={cut.part}
            onChange={(e) => set({ ...cut, part: e.target.valueAsNumber })}
          />
          <input
            type="range"
            aria-label="direction of the cut"
            min={0}
            max={180}
            step={5}
            value={cut.degrees}
            className="w-20"
            onChange={(e) => set({ ...cut, degrees: e.target.valueAsNumber })}
          />
        </>
      )}
    </fieldset>
  );
}

/** The plane that a cut lies in, metres; null where nothing is cut. */
export function planeOf(cut: Cut, bounds: Bounds | null): { normal: Place3; at: number } | null {
  if (cut.way === "none" || !bounds) return null;
  if (cut.way === "level") return { normal: [0, 0, 1], at: cut.level / 1000 };
  const turn = (cut.degrees * Math.PI) / 180;
  const normal: Place3 = [Math.sin(turn), -Math.cos(turn), 0];
  const reach = [bounds.least, bounds.most].flatMap((p) =>
    [bounds.least, bounds.most].map((q) => p[0] * normal[0] + q[1] * normal[1]),
  );
  const [low, high] = [Math.min(...reach), Math.max(...reach)];
  return { normal, at: low + cut.part * (high - low) };
}
