import { typedPitch, typedPlace } from "../../../store/lengths";
import { change } from "../../../store/project";
import type { Thing } from "../../../store/rows";
import { area, inWords, pitchWords, typedAs } from "../../../ui/measures";
import { Typed } from "../../../ui/Typed";
import { useRoof } from "./useRoof";

const KINDS = ["ridge", "hip", "valley", "verge"] as const;

/** What a roof comes to, and what holds for all of its edges. */
export function RoofTold({
  outline,
  corners,
}: {
  outline: Thing<"outline">;
  corners: readonly Thing<"outlineCorner">[];
}) {
  const { roof, refusal } = useRoof(outline);
  const all = (title: string, values: Record<string, unknown>) =>
    void change(title, [{ do: "setMany", type: "outlineCorner", ids: corners.map((c) => c.id), values }]);
  const same = <T,>(values: readonly T[]): T | undefined => (new Set(values).size === 1 ? values[0] : undefined);
  const pitch = same(corners.map((c) => c.pitch));
  const overhang = same(corners.map((c) => c.overhang));
  const slopes = roof?.facets.reduce((sum, f) => sum + f.areaM2, 0) ?? 0;
  return (
    <div className="mt-1.5">
      {refusal && <p className="text-rust">{refusal}</p>}
      {roof && (
        <p className="text-quiet">
          slopes {area(slopes)}
          {KINDS.map((kind) => {
            const lengths = roof.lines.filter((l) => l.kind === kind && l.lengthMm > 1).map((l) => l.lengthMm);
            const sum = lengths.reduce((a, b) => a + b, 0);
            return (
              lengths.length > 0 && ` · ${kind} ${inWords(sum)}${lengths.length > 1 ? ` in ${lengths.length}` : ""}`
            );
          })}
        </p>
      )}
      <div className="mt-1 grid grid-cols-2 gap-2">
        <Typed
          label="pitch all round"
          value={pitch === undefined ? "differs" : pitchWords(pitch)}
          set={(text) => void typedPitch(text, (to) => all("Pitch of a roof", { pitch: to }))}
        />
        <Typed
          label="overhang all round"
          value={overhang === undefined ? "differs" : typedAs(overhang)}
          set={(text) => void typedPlace(text, (to) => all("Overhang of a roof", { overhang: to }))}
        />
      </div>
    </div>
  );
}
