import { useDeskFields } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import { useProject } from "../../../store/project";
import { objectsHere, onObject } from "./objects";
import { formKey, useForms } from "./useObjects";

/** Objects of the storey at hand from above; the side that they are used from is marked by a short line. */
export function Objects({ screen }: { screen: Map2 }) {
  const { storey, selected } = useDeskFields("storey", "selected");
  const rows = useProject((s) => s.rows.object);
  const objects = objectsHere(rows.values(), storey);
  const forms = useForms(objects);
  return (
    <>
      {objects.map((o) => {
        const at = (p: readonly [number, number]) => apply(screen, onObject(o, p)).join(",");
        const [w, d] = [o.width / 2, o.depth / 2];
        return (
          <g key={o.id} stroke={TEAL} strokeWidth={selected?.id === o.id ? 2.4 : 1} fill="#fdfcfa" fillOpacity={0.82}>
            {(forms.get(formKey(o))?.plan ?? []).map((ring, i) => (
              // biome-ignore lint/suspicious/noArrayIndexKey: its parts have no other name
              <polygon key={i} points={ring.map(at).join(" ")} />
            ))}
            <polyline points={`${at([-w / 4, -d])} ${at([w / 4, -d])}`} strokeWidth={2.4} />
          </g>
        );
      })}
    </>
  );
}
