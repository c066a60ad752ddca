import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, type Operation, type Refused, settled } from "../api/client";
import { newId } from "../api/ids";
import { setView, useDesk } from "../board/desk";
import { projectUnit } from "../store/lengths";
import { change, inProject, useProject } from "../store/project";
import { area, difference } from "../ui/measures";
import { Link, Plain } from "../ui/parts";

/** Areas that differ by less than this part agree as well as a table is rounded. */
const SAME_PART = 0.01;

/** The drawing's own rooms table, held against the rooms as they are traced. */
export function RoomsTable() {
  const storey = useDesk((s) => s.storey);
  return storey === null ? null : <Of storey={storey} />;
}

function Of({ storey }: { storey: string }) {
  const [open, setOpen] = useState(false);
  const rows = useProject((s) => s.rows);
  const revision = useProject((s) => s.revision);
  const listed = [...rows.listedRoom.values()].filter((r) => r.storey === storey);
  const { data } = useQuery({
    queryKey: ["rooms-table", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/rooms-table", { params: { path: inProject(storey) } })),
    enabled: listed.length > 0,
    placeholderData: (old) => old,
  });
  return (
    <section className="border-b border-line px-4 py-2.5 text-[13px]" aria-label="Rooms table">
      <div className="flex items-baseline justify-between">
        <span className="font-semibold">Rooms table of the drawing</span>
        <span className="flex gap-2">
          {listed.length > 0 && (
            <Link
              onClick={() =>
                void change(
                  "Remove the rooms table",
                  listed.map((r): Operation => ({ do: "remove", type: "listedRoom", id: r.id })),
                )
              }
            >
              remove
            </Link>
          )}
          <Link onClick={() => setOpen(!open)}>{open ? "close" : listed.length === 0 ? "bring it in" : "add"}</Link>
        </span>
      </div>
      {open && <Paste storey={storey} done={() => setOpen(false)} />}
      {listed.length > 0 && data && (
        <table className="mt-1.5 w-full">
          <tbody>
            {data.rows.map((row) => {
              const room = rows.listedRoom.get(row.listed ?? "");
              const traced = rows.room.get(row.room ?? "");
              const part = room?.areaM2 && row.areaOffM2 !== null ? Math.abs(row.areaOffM2) / room.areaM2 : 0;
              return (
                <tr key={`${row.listed} ${row.region}`} className="border-t border-line align-top">
                  <td className="py-1">
                    {room ? (
                      <>
                        <span className="text-quiet">{room.number} </span>
                        {room.name}
                      </>
                    ) : (
                      <>
                        <span className="text-quiet">not listed: </span>
                        {traced?.name ?? "a room without a name"}
                      </>
                    )}
                    {row.by === "area" && <span className="block text-quiet">by its area alone</span>}
                  </td>
                  <td className="py-1 text-right text-quiet">{room?.areaM2 ? area(room.areaM2) : ""}</td>
                  <td
                    className={`py-1 text-right ${part > SAME_PART || row.region === null ? "text-ochre" : "text-quiet"}`}
                  >
                    {room && row.region === null ? (
                      "not traced"
                    ) : (
                      <Differences area={row.areaOffM2} width={row.widthOffMm} depth={row.depthOffMm} />
                    )}
                    {row.region !== null && <Show storey={storey} region={row.region} />}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </table>
      )}
    </section>
  );
}

function Differences(props: { area: number | null; width: number | null; depth: number | null }) {
  return (
    <>
      {props.area !== null && <div>{`${props.area > 0 ? "+" : ""}${area(props.area)}`}</div>}
      {props.width !== null && (
        <div>
          {difference(props.width)} × {props.depth === null ? "" : difference(props.depth)}
        </div>
      )}
    </>
  );
}

function Show({ storey, region }: { storey: string; region: string }) {
  const at = useProject((s) => s.derived.get(storey)?.regions.get(region)?.label);
  if (!at) return null;
  const k = () => Math.max(useDesk.getState().view.k, 0.08);
  return <Link onClick={() => setView({ x: at[0] ?? 0, y: at[1] ?? 0, k: k() })}>show</Link>;
}

function Paste({ storey, done }: { storey: string; done: () => void }) {
  const [text, setText] = useState("");
  const [error, setError] = useState<string | null>(null);
  const take = async () => {
    try {
      const { rooms } = await settled(api.POST("/api/rooms-table", { body: { text, unit: projectUnit() } }));
      if (rooms.length === 0)
        return setError("No room is named in it: one to a line, 3 Tank room 4.80 x 3.54 17.0 m².");
      await change(
        "Bring in a rooms table",
        rooms.map((r): Operation => ({ do: "add", type: "listedRoom", id: newId(), values: { storey, ...r } })),
      );
      done();
    } catch (refused) {
      setError((refused as Refused).message);
    }
  };
  return (
    <div className="mt-1.5">
      <textarea
        className="h-24 w-full rounded border border-line bg-white p-1.5"
        aria-label="Rooms table"
        placeholder="e.g. 3 Tank room 4.80 x 3.54 17.0 m²"
        value={text}
        onChange={(e) => setText(e.target.value)}
      />
      <div className="flex items-center gap-2">
        <Plain onClick={() => void take()}>Take it</Plain>
        <label className="cursor-pointer underline">
          or a CSV file
          <input
            type="file"
            className="sr-only"
            accept=".csv,.txt,text/csv,text/plain"
            onChange={(e) => void e.target.files?.[0]?.text().then(setText)}
          />
        </label>
      </div>
      {error && (
        <p role="alert" className="text-rust">
          {error}
        </p>
      )}
    </div>
  );
}
