import { useQuery } from "@tanstack/react-query";
import { api, type Schemas, settled } from "../../api/client";
import { newId } from "../../api/ids";
import { lookAt } from "../../board/views";
import { change, inProject, useProject } from "../../store/project";
import { said } from "../../ui/measures";
import { count } from "../../ui/numbers";
import { Link, Plain } from "../../ui/parts";

type Doubt = Schemas["Doubt"];

/** What there is to doubt on a storey: what is open, what somebody has said to be so, and what the limits rest on. */
export function useDoubts(storey: string | null) {
  const revision = useProject((s) => s.revision);
  const assurances = useProject((s) => s.rows.assurance);
  const { data } = useQuery({
    queryKey: ["plausible", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/plausible", { params: { path: inProject(storey ?? "") } })),
    placeholderData: (old) => old,
    enabled: storey !== null,
  });
  const given = [...assurances.values()].filter((a) => a.storey === storey);
  const isSo = (d: Doubt) => given.some((a) => a.code === d.code && a.thing === d.thing);
  const open = (data?.doubts ?? []).filter((d) => !isSo(d));
  const assured = given.filter((a) => data?.doubts.some((d) => d.code === a.code && d.thing === a.thing));
  return { open, assured, standing: data?.standing };
}

/** What a practitioner would look at twice: each with its limit, until somebody says that it is so. */
export function Doubts({ storey }: { storey: string }) {
  const mayEdit = useProject((s) => s.role !== "read");
  const { open, assured, standing } = useDoubts(storey);
  if (open.length === 0 && assured.length === 0) return null;
  return (
    <section className="border-b border-line px-4 py-3 text-[13px]" aria-label="To look at twice">
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">To look at twice</span>
        <span className="text-quiet">limits: {standing}</span>
      </div>
      {open.map((doubt) => (
        <div
          key={`${doubt.code} ${doubt.thing} ${doubt.at?.join()}`}
          className="border-t border-line py-1.5 first-of-type:mt-1"
        >
          <p>{said(doubt.message)}</p>
          <div className="mt-1 flex gap-2">
            {doubt.at && <Plain onClick={() => lookAt(doubt.at ?? [])}>Show the place</Plain>}
            {mayEdit && doubt.thing !== "" && <Plain onClick={() => void assure(storey, doubt)}>It is so</Plain>}
          </div>
        </div>
      ))}
      {assured.length > 0 && (
        <p className="mt-1 border-t border-line pt-1.5 text-quiet">
          {count(assured.length, "thing")} said to be so.{" "}
          {mayEdit && <Link onClick={() => void ask(assured.map((a) => a.id))}>Ask again</Link>}
        </p>
      )}
    </section>
  );
}

function assure(storey: string, { code, thing }: Doubt): Promise<unknown> {
  return change("It is so", [{ do: "add", type: "assurance", id: newId(), values: { storey, code, thing } }]);
}

function ask(ids: readonly string[]): Promise<unknown> {
  return change("Ask again", [{ do: "removeMany", type: "assurance", ids: [...ids] }]);
}
