import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo } from "react";
import { create } from "zustand";
import { api, type Schemas, settled } from "../api/client";
import { useDesk, useDeskFields } from "../board/desk";
import { TEAL } from "../board/marks";
import { showTraced } from "../board/views";
import { apply, type Map2 } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { inProject, useProject } from "../store/project";
import { streetParts } from "../store/street";

const INK = "#1c2a26";

type Line = Schemas["ViewLine"];

/** Lines by what they show: those of what is cut are heavy, what lies behind is fine (ISO 128). */
const LOOKS: Record<Line["role"], { width: number; dash?: string }> = {
  visible: { width: 1 },
  hidden: { width: 0.7, dash: "4 3" },
  cut: { width: 2.2 },
};
const ROLES = ["visible", "hidden", "cut"] as const;

/** What was seen last, how far it reaches, and of which side. */
const useReach = create<{ side: string | null; corners: readonly XY[]; lines: readonly (readonly [XY, XY])[] }>(() => ({
  side: null,
  corners: [],
  lines: [],
}));

/** Whether hidden lines show on sides as well, dashed. */
export const useHidden = create<{ hidden: boolean }>(() => ({ hidden: false }));

const NOTHING: readonly (readonly [XY, XY])[] = [];

/** Ends of all lines that a side shows of what stands; none until it is known. */
export function linesSeen(side: string | null): readonly (readonly [XY, XY])[] {
  const reach = useReach.getState();
  return side !== null && reach.side === side ? reach.lines : NOTHING;
}

/** What a view of a side has to hold of what stands; until that is known, its line and all storeys. */
export function sideCorners(): XY[] {
  const { rows } = useProject.getState();
  const { side } = useDesk.getState();
  const reach = useReach.getState();
  const row = rows.side.get(side ?? "");
  if (!row || row.fromX === null || row.fromY === null || row.toX === null || row.toY === null) return [];
  if (reach.side === side && reach.corners.length > 0) return [...reach.corners];
  const heights = [...rows.storey.values()].flatMap((s) => [s.elevation, s.elevation + s.height]);
  return [
    [0, Math.min(0, ...heights)],
    [Math.hypot(row.toX - row.fromX, row.toY - row.fromY), Math.max(0, ...heights)],
  ];
}

/** Opposite corners of all that a view shows. */
function cornersOf({ lines, faces }: { lines: readonly Line[]; faces: readonly { rings: number[][][] }[] }): XY[] {
  const places = [...lines.flatMap((l) => [l.from, l.to]), ...faces.flatMap((f) => f.rings.flat())];
  const [u, v] = [0, 1].map((k) => places.map((p) => p[k] ?? 0));
  if (!u || !v || u.length === 0) return [];
  const least = (of: readonly number[]) => of.reduce((a, b) => Math.min(a, b));
  const most = (of: readonly number[]) => of.reduce((a, b) => Math.max(a, b));
  return [
    [least(u), least(v)],
    [most(u), most(v)],
  ];
}

/** The building as the side or section on the board shows it, over the drawing that it is held against; as the core draws it. */
export function SideView({ screen }: { screen: Map2 }) {
  const { side, selected } = useDeskFields("side", "selected");
  const row = useProject((s) => (side === null ? undefined : s.rows.side.get(side)));
  const isRow = useProject((s) => streetParts(s.rows, side).length > 0);
  const hidden = useHidden((s) => s.hidden);
  const isThere = row !== undefined && (row.fromX !== null || isRow);
  const revision = useProject((s) => (isThere ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["view", side, revision, hidden],
    queryFn: () =>
      settled(
        api.GET("/api/projects/{project}/sides/{id}/view", {
          params: { path: inProject(side ?? ""), query: hidden ? { hidden } : {} },
        }),
      ),
    enabled: isThere,
    placeholderData: (old, query) => (query?.queryKey[1] === side ? old : undefined),
  });
  const at = ([x = 0, y = 0]: readonly number[]) =>
    apply(screen, [x, y])
      .map((c) => c.toFixed(1))
      .join(" ");
  const byRole = useMemo(() => {
    const lines = new Map<Line["role"], Line[]>();
    for (const line of data?.lines ?? []) lines.set(line.role, [...(lines.get(line.role) ?? []), line]);
    return lines;
  }, [data]);
  useEffect(() => {
    if (!data || side === null) return;
    const isNew = useReach.getState().side !== side;
    const end = ([x = 0, y = 0]: readonly number[]): XY => [x, y];
    useReach.setState({
      side,
      corners: cornersOf(data),
      lines: data.lines.filter((l) => l.role !== "hidden").map((l) => [end(l.from), end(l.to)] as const),
    });
    // Where no drawing lies it is all there is to look at.
    if (isNew && useDesk.getState().drawing === null) showTraced();
  }, [data, side]);
  if (!isThere || !data) return null;
  const path = (lines: readonly Line[]) => lines.map((l) => `M${at(l.from)}L${at(l.to)}`).join("");
  const own = selected === null ? [] : data.lines.filter((l) => l.id === selected.id);
  return (
    <g fill="none" strokeLinecap="round" aria-hidden="true" data-testid="side-view">
      {data.faces.length > 0 && (
        <path
          d={data.faces.map((f) => f.rings.map((r) => `M${r.map(at).join("L")}Z`).join("")).join("")}
          fill={INK}
          fillOpacity={0.18}
          fillRule="evenodd"
        />
      )}
      {ROLES.map((role) => (
        <path
          key={role}
          d={path(byRole.get(role) ?? [])}
          stroke={role === "cut" ? INK : TEAL}
          strokeWidth={LOOKS[role].width}
          strokeDasharray={LOOKS[role].dash}
        />
      ))}
      {own.length > 0 && <path d={path(own)} stroke={TEAL} strokeWidth={2.5} />}
    </g>
  );
}
