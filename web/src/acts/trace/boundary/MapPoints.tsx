import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, settled } from "../../../api/client";
import { newId } from "../../../api/ids";
import { isClash } from "../../../store/edits";
import { change, projectId, say, useProject } from "../../../store/project";
import { inOrder, type Thing } from "../../../store/rows";
import { fineInWords } from "../../../ui/measures";
import { Choose, Field, Link } from "../../../ui/parts";

/** A coordinate of a map as it is written on it: digits in groups, a point or a comma before its parts; null where it is none. */
export function mapMetres(text: string): number | null {
  const plain = text.replace(/[\s  ’']/g, "").replace(",", ".");
  return /^[-+]?\d+(\.\d+)?$/.test(plain) ? Number(plain) : null;
}

/** Corners of a boundary whose coordinates in a map are known: by two of them the plan lies on the earth. */
export function MapPoints({ boundary, corners }: { boundary: Thing<"boundary">; corners: number }) {
  const rows = useProject((s) => s.rows.mapPoint);
  const points = inOrder(rows.values());
  const reads = useProject((s) => s.role === "read");
  const lies = useLies(points);
  const known = points[0]?.reference;
  const [reference, setReference] = useState("EPSG:");
  const [corner, setCorner] = useState("0");
  const [east, setEast] = useState("");
  const [north, setNorth] = useState("");
  const [error, setError] = useState<string | null>(null);
  const add = async () => {
    const [e, n] = [mapMetres(east), mapMetres(north)];
    if (e === null || n === null) return setError("Write east and north in metres, as in the map: 431 200.50.");
    const values = {
      reference: known ?? reference,
      boundary: corner === "zero" ? null : boundary.id,
      corner: corner === "zero" ? 0 : Number(corner),
      east: e,
      north: n,
      height: null,
    };
    const refused = await change("Map point", [{ do: "add", type: "mapPoint", id: newId(), values }]);
    if (refused && !isClash(refused)) {
      say(null);
      return setError(refused.message);
    }
    setError(null);
    setEast("");
    setNorth("");
  };
  const places = [
    ...Array.from({ length: corners }, (_, i) => [`${i}`, i === 0 ? "where it begins" : `corner ${i + 1}`] as const),
    ["zero", "the plan’s zero"] as const,
  ];
  return (
    <details className="mt-3 border-t border-line pt-2" open={points.length > 0}>
      <summary className="cursor-pointer font-semibold">Where on earth</summary>
      {points.length === 0 && (
        <p className="mt-1 text-quiet">
          Give the map’s coordinates of two corners: IFC and GeoJSON then lie where the site lies.
        </p>
      )}
      <ul>
        {points.map((p) => (
          <li key={p.id} className="flex items-baseline gap-2 border-b border-line py-1">
            <span className="flex-1">
              {p.boundary === null ? "the plan’s zero" : p.corner === 0 ? "where it begins" : `corner ${p.corner + 1}`}
              <span className="block text-quiet">
                {metres(p.east)} E, {metres(p.north)} N{off(lies?.lies?.points, p.id)}
              </span>
            </span>
            {!reads && (
              <Link onClick={() => void change("Remove a map point", [{ do: "remove", type: "mapPoint", id: p.id }])}>
                Remove
              </Link>
            )}
          </li>
        ))}
      </ul>
      {lies?.refusal && <p className="mt-1 text-rust">{lies.refusal}</p>}
      {lies?.lies && (
        <p className="mt-1">
          In <b>{lies.lies.reference}</b>, turned {lies.lies.degrees.toFixed(3)}°
          {points.length > 1
            ? `, ${lies.lies.scale.toFixed(6)} times as large as on the ground.`
            : ": by what is up here. A second point says it better."}
        </p>
      )}
      {!reads && (
        <form
          className="mt-2 space-y-2"
          onSubmit={(e) => {
            e.preventDefault();
            void add();
          }}
        >
          <div className="grid grid-cols-2 gap-2">
            <Choose label="Place" value={corner} of={places} set={setCorner} />
            {known === undefined && <Field label="Reference" value={reference} onChange={setReference} />}
          </div>
          <div className="grid grid-cols-2 gap-2">
            <Field label="East, m" value={east} onChange={setEast} inputMode="decimal" />
            <Field label="North, m" value={north} onChange={setNorth} inputMode="decimal" />
          </div>
          <button type="submit" className="rounded border border-line bg-white px-2 py-1">
            Add the point
          </button>
          {error && (
            <p role="alert" className="text-rust">
              {error}
            </p>
          )}
        </form>
      )}
    </details>
  );
}

/** Where the plan lies by these points, asked anew when one of them, a boundary or a leg has changed. */
function useLies(points: readonly Thing<"mapPoint">[]) {
  const { boundary, leg } = useProject((s) => s.rows);
  let newest = 0;
  for (const rows of [boundary, leg]) for (const { revision } of rows.values()) newest = Math.max(newest, revision);
  const { data } = useQuery({
    queryKey: ["map-reference", projectId(), leg.size, newest, ...points.map((p) => `${p.id}${p.revision}`)],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/map-reference", { params: { path: { project: projectId() ?? "" } } })),
    enabled: points.length > 0,
    placeholderData: (old) => old,
  });
  return points.length > 0 ? data : undefined;
}

const metres = (m: number): string =>
  m.toLocaleString("en-GB", { minimumFractionDigits: 2, maximumFractionDigits: 3 }).replaceAll(",", " ");

function off(points: readonly { id: string; offMm: number }[] | undefined, id: string): string {
  const found = points !== undefined && points.length > 2 ? points.find((p) => p.id === id) : undefined;
  return found ? `, ${fineInWords(found.offMm, 0)} off` : "";
}
