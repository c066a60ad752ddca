import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Schemas, settled } from "../../api/client";
import { projectId, useProject } from "../../store/project";
import { area, said } from "../../ui/measures";
import { Plain } from "../../ui/parts";
import { Card } from "./Card";

type Quantity = Schemas["Quantity"];

/** How much there is of what: finishes with their net areas, objects, what is built. */
export function Quantities({ ready }: { ready: boolean }) {
  const [open, setOpen] = useState(false);
  return (
    <Card
      title="Quantities"
      take="table"
      href={`/api/projects/${projectId()}/quantities.csv`}
      inside="Finishes with their net areas by room, objects by kind and size, and what is built by kind with its volume, as CSV."
      outside="Not in it: waste, what overlaps, reveals of openings."
      ready={ready}
    >
      {ready && (
        <div className="mt-2">
          <Plain pressed={open} onClick={() => setOpen(!open)}>
            {open ? "Close the table" : "Look at the table"}
          </Plain>
          {open && <Table />}
        </div>
      )}
    </Card>
  );
}

function Table() {
  const revision = useProject((s) => s.revision);
  const { data } = useQuery({
    queryKey: ["quantities", revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/quantities", { params: { path: { project: projectId() ?? "" } } })),
    placeholderData: (old) => old,
  });
  if (!data) return <p className="mt-1 text-[13px] text-quiet">It is being counted.</p>;
  const byName = new Map<string, Quantity[]>();
  for (const q of data.quantities) byName.set(`${q.of} ${q.name}`, [...(byName.get(`${q.of} ${q.name}`) ?? []), q]);
  if (byName.size === 0) return <p className="mt-1 text-[13px] text-quiet">Nothing stands yet.</p>;
  return (
    <table className="mt-2 w-full text-[13px]">
      <tbody>
        {[...byName.entries()].map(([key, same]) => (
          <Same key={key} same={same} />
        ))}
      </tbody>
    </table>
  );
}

/** One finish, kind of object or kind of body; rooms and sizes under it where there are several. */
function Same({ same }: { same: readonly Quantity[] }) {
  const [first] = same;
  if (!first) return null;
  const total = same.reduce((sum, q) => sum + (q.areaM2 ?? q.volumeM3 ?? q.count), 0);
  return (
    <>
      <tr className="border-t border-line align-baseline">
        <th scope="row" className="py-1 text-left font-semibold">
          {first.name}
        </th>
        <td className="py-1 text-right whitespace-nowrap">{inUnit(first, total)}</td>
      </tr>
      {first.of !== "body" &&
        same.map((q, i) => (
          // biome-ignore lint/suspicious/noArrayIndexKey: two walls may be as long
          <tr key={i} className="text-quiet">
            <td className="pl-3">
              {said(q.where)} · {q.storey}
            </td>
            <td className="text-right whitespace-nowrap">{inUnit(q, q.areaM2 ?? q.count)}</td>
          </tr>
        ))}
    </>
  );
}

function inUnit(of: Quantity, amount: number): string {
  if (of.areaM2 !== null) return area(amount);
  return of.volumeM3 === null ? `${amount}` : `${amount.toFixed(2)} m³`;
}
