import { useInfiniteQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { api, settled } from "../../api/client";
import { setView, useDesk, useDeskFields } from "../../board/desk";
import { drawingsOn } from "../../store/drawings";
import { inProject, useProject } from "../../store/project";
import { storeysInOrder } from "../../store/storeys";
import { wallLines } from "../../store/walls";
import { fineInWords, inWords, plusMinus } from "../../ui/measures";
import { Link, Plain } from "../../ui/parts";

/** What a drawing is held against: the tracing of its storey unless another storey or a drawing is said. */
export interface Against {
  storey: string | null;
  drawing: string | null;
}

/** The tracing of its own storey. */
export const ITS_TRACING: Against = { storey: null, drawing: null };

/** How walls and columns lie beside what a drawing shows, asked for bit by bit. */
export function useMisfit(held: string | undefined, against: Against, isWanted: boolean) {
  const revision = useProject((s) => s.revision);
  const { data, error, hasNextPage, isFetching, fetchNextPage } = useInfiniteQuery({
    queryKey: ["misfit", held, against, revision],
    queryFn: ({ pageParam }) =>
      settled(
        api.GET("/api/projects/{project}/drawings/{id}/misfit", {
          params: {
            path: inProject(held ?? ""),
            query: {
              from: pageParam,
              ...(against.drawing === null ? {} : { against: against.drawing }),
              ...(against.storey === null ? {} : { storey: against.storey }),
            },
          },
        }),
      ),
    initialPageParam: 0,
    getNextPageParam: (last) => last.next,
    enabled: held !== undefined && isWanted,
  });
  useEffect(() => {
    if (hasNextPage && !isFetching) void fetchNextPage();
  }, [hasNextPage, isFetching, fetchNextPage]);
  const things = (data?.pages ?? []).flatMap((p) => p.things).sort((a, b) => (b.mm ?? -1) - (a.mm ?? -1));
  const off = things.filter((t) => t.mm !== null && t.mm > t.plusMinusMm);
  return { things, off, all: data?.pages[0]?.of ?? 0, error, isFetching };
}

/** Two drawings, one building: what a drawing shows elsewhere than a tracing, or than another drawing, worst first. */
export function MisfitPanel() {
  const { storey, drawing } = useDeskFields("storey", "drawing");
  const rows = useProject((s) => s.rows);
  const [of, setOf] = useState<string | null>(null);
  const [against, setAgainst] = useState<Against>(ITS_TRACING);
  const [every, setEvery] = useState(false);
  const drawings = drawingsOn(rows, { storey, side: null });
  const held = drawings.find((d) => d.id === (of ?? drawing));
  // On another storey's walls, or on those of this one.
  const lines = wallLines(rows, against.storey ?? storey);
  const own = wallLines(rows, storey).length;
  const { things, off, all, error, isFetching } = useMisfit(held?.id, against, lines.length > 0);
  const others = storeysInOrder().filter((s) => s.id !== storey && wallLines(rows, s.id).length > 0);
  if (storey === null || (own === 0 && others.length === 0) || !held) return null;
  const unseen = things.filter((t) => t.mm === null).length;
  const listed = every ? things : things.filter((t) => off.includes(t) || t.mm === null);
  const select = "max-w-40 rounded border border-line bg-white px-1 py-0.5";
  const show = (type: "wall" | "column", id: string) => {
    const line = lines.find((l) => l.wall.id === id);
    const column = rows.column.get(id);
    const [x, y] = line
      ? [(line.from[0] + line.to[0]) / 2, (line.from[1] + line.to[1]) / 2]
      : [column?.x ?? 0, column?.y ?? 0];
    setView({ x, y, k: Math.max(useDesk.getState().view.k, 0.12) });
    if (type === "wall") useDesk.setState({ selected: { type, id } });
  };
  return (
    <section className="border-b border-line px-4 py-3 text-[13px]" aria-label="Two drawings, one building">
      <div className="flex flex-wrap items-center gap-1.5">
        <select className={select} aria-label="Drawing held" value={held.id} onChange={(e) => setOf(e.target.value)}>
          {drawings.map((d) => (
            <option key={d.id} value={d.id}>
              {d.name}
            </option>
          ))}
        </select>
        against
        <select
          className={select}
          aria-label="Held against"
          value={against.drawing ?? against.storey ?? ""}
          onChange={(e) => {
            const id = e.target.value;
            setAgainst({ storey: rows.storey.has(id) ? id : null, drawing: rows.drawing.has(id) ? id : null });
          }}
        >
          <option value="">{own > 0 ? "the tracing" : "nothing traced here yet"}</option>
          {others.map((s) => (
            <option key={s.id} value={s.id}>
              the tracing of {s.name}
            </option>
          ))}
          {[storey, ...others.map((s) => s.id)].flatMap((on) =>
            drawingsOn(rows, { storey: on, side: null })
              .filter((d) => d.id !== held.id)
              .map((d) => (
                <option key={d.id} value={d.id}>
                  {on === storey ? d.name : `${d.name}, ${rows.storey.get(on)?.name}`}
                </option>
              )),
          )}
        </select>
      </div>
      <p className={`mt-1.5 ${error ? "text-rust" : "text-quiet"}`}>
        {error
          ? error.message
          : isFetching
            ? `Looking at its ink: ${things.length} of ${all === 0 ? "all" : all}`
            : `${off.length} of ${things.length} lie further apart than ± explains${unseen > 0 ? `; ${unseen} are not to be seen on it` : ""}.`}{" "}
        {things.length > listed.length && <Link onClick={() => setEvery(true)}>List all</Link>}
      </p>
      <ol data-testid="misfit">
        {listed.slice(0, every ? 60 : 12).map((thing) => {
          const isOff = thing.mm !== null && thing.mm > thing.plusMinusMm;
          return (
            <li key={thing.id} className="flex items-baseline justify-between gap-2 py-0.5">
              <span className={isOff ? "font-semibold text-rust" : ""}>
                {thing.type === "wall" ? wallName(lines, thing.id) : "column"}{" "}
                {thing.mm === null
                  ? "not found"
                  : `${fineInWords(thing.mm)} ${way(thing.x, thing.y)} (${plusMinus(thing.plusMinusMm)})`}
              </span>
              <Plain onClick={() => show(thing.type, thing.id)}>Show</Plain>
            </li>
          );
        })}
      </ol>
    </section>
  );
}

function wallName(lines: ReturnType<typeof wallLines>, id: string): string {
  const line = lines.find((l) => l.wall.id === id);
  return line ? `wall of ${inWords(line.length)}` : "wall";
}

/** Which way the drawing has it, as seen on the board. */
export function way(x: number, y: number): string {
  return Math.abs(x) > Math.abs(y) ? (x > 0 ? "to the right" : "to the left") : y > 0 ? "up" : "down";
}
