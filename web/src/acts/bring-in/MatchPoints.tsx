import { useRef, useState } from "react";
import { api, type Refused, settled } from "../../api/client";
import type { XY } from "../../geometry/plane";
import { inProject, projectId, useProject } from "../../store/project";
import { Plain } from "../../ui/parts";
import { addPoint, useMatching, wholePairs } from "./matching";

/** Both versions of a page side by side, for picking the same points; near enough is enough, the ink does the rest. */
export function MatchPoints() {
  const { page, pairs } = useMatching();
  const row = useProject((s) => (page === null ? undefined : s.rows.page.get(page)));
  const [error, setError] = useState<string | null>(null);
  if (page === null || !row?.replaces) return null;
  const whole = wholePairs(pairs);
  const close = () => useMatching.setState({ page: null, pairs: [] });
  const send = () => {
    settled(
      api.POST("/api/projects/{project}/pages/{id}/match", {
        params: { path: inProject(page) },
        body: { pairs: whole },
      }),
    ).then(close, (refused: Refused) => setError(refused.message));
  };
  return (
    <section
      className="absolute inset-0 z-20 flex flex-col bg-stone p-3"
      aria-label="Pick the same points"
      onPointerDown={(e) => e.stopPropagation()}
    >
      <div className="flex items-center gap-3 pb-2">
        <h2 className="text-lg font-bold">Pick the same points on both</h2>
        <span className="flex-1 text-[13px] text-quiet">
          two far apart are enough, three are better · {whole.length} so far
        </span>
        {pairs.length > 0 && (
          <Plain onClick={() => useMatching.setState({ pairs: pairs.slice(0, -1) })}>Take the last back</Plain>
        )}
        <Plain onClick={close}>Leave</Plain>
        {whole.length >= 2 && (
          <button
            type="button"
            className="rounded border border-zest-edge bg-zest px-3 py-0.5 font-semibold"
            onClick={send}
          >
            Look again
          </button>
        )}
      </div>
      {error && (
        <p role="alert" className="text-[13px] text-rust">
          {error}
        </p>
      )}
      <div className={`flex min-h-0 flex-1 gap-3 ${row.width > row.height ? "flex-col" : ""}`}>
        <Pane page={row.replaces} side="old" title="older" />
        <Pane page={page} side="new" title="newer" />
      </div>
    </section>
  );
}

function Pane({ page, side, title }: { page: string; side: "old" | "new"; title: string }) {
  const row = useProject((s) => s.rows.page.get(page));
  const pairs = useMatching((s) => s.pairs);
  const [cross, setCross] = useState<XY>([0.5, 0.5]);
  const picture = useRef<HTMLButtonElement>(null);
  if (!row) return null;
  const part = (e: { clientX: number; clientY: number }): XY => {
    const box = picture.current?.getBoundingClientRect();
    return box ? [(e.clientX - box.left) / box.width, (e.clientY - box.top) / box.height] : [0, 0];
  };
  const put = ([u, v]: XY) => addPoint(side, [u * row.width, v * row.height]);
  return (
    <div className="flex min-h-0 min-w-0 flex-1 flex-col items-center">
      <div className="w-full text-[13px] font-semibold">{title}</div>
      <div className="flex min-h-0 w-full flex-1 items-center justify-center">
        <button
          ref={picture}
          type="button"
          aria-label={`The ${title} page: arrow keys move the cross, Space picks`}
          className="relative block max-w-full p-0 cursor-crosshair border border-line bg-white"
          style={{
            aspectRatio: `${row.width} / ${row.height}`,
            height: "100%",
          }}
          onClick={(e) => e.detail > 0 && put(part(e))}
          onKeyDown={(e) => {
            const step = e.shiftKey ? 0.002 : 0.02;
            const by = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] }[
              e.key
            ];
            if (by) setCross([cross[0] + (by[0] ?? 0), cross[1] + (by[1] ?? 0)]);
            else if (e.key === " ") put(cross);
            else return;
            e.preventDefault();
            e.stopPropagation();
          }}
        >
          <img
            src={`/api/projects/${projectId()}/pages/${page}/preview`}
            alt=""
            className="block max-w-full"
            style={{ maxHeight: row.width > row.height ? "calc((100vh - 190px) / 2)" : "calc(100vh - 170px)" }}
            draggable={false}
          />
          <svg className="pointer-events-none absolute inset-0 h-full w-full overflow-visible" aria-hidden="true">
            <title>Picked points</title>
            {pairs.map((pair, i) => {
              const at = pair[side];
              if (!at) return null;
              const [x, y] = [`${(at[0] / row.width) * 100}%`, `${(at[1] / row.height) * 100}%`];
              return (
                // biome-ignore lint/suspicious/noArrayIndexKey: the number is the name
                <g key={i}>
                  <circle cx={x} cy={y} r={7} fill="none" stroke="#6d2a63" strokeWidth={2} />
                  <text x={x} y={y} dx={10} dy={-6} fontSize="13" fontWeight="700" fill="#6d2a63">
                    {i + 1}
                  </text>
                </g>
              );
            })}
            <circle cx={`${cross[0] * 100}%`} cy={`${cross[1] * 100}%`} r={2} fill="#6d2a63" />
          </svg>
        </button>
      </div>
    </div>
  );
}
