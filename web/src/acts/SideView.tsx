import { useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api, type Schemas, settled } from "../api/client";
import { useDesk, useDeskFields } from "../board/desk";
import { TEAL } from "../board/marks";
import { apply, type Map2 } from "../geometry/maps";
import type { XY } from "../geometry/plane";
import { inProject, useProject } from "../store/project";

const INK = "#1c2a26";

type Line = Schemas["ViewLine"];

/** Lines by what they show: those of what is cut are heavy, what lies behind is fine (ISO 128). */
const LOOKS: Record<Line["role"], { width: number; dash?: string }> = {
  visible: { width: 1 },
  hidden: { width: 0.7, dash: "4 3" },
  cut: { width: 2.2 },
};
const ROLES = ["visible", "hidden", "cut"] as const;

/** What a view of a side without anything traced on it has to hold: as long as its line, from the lowest floor to over the highest. */
export function sideCorners(): XY[] {
  const { rows } = useProject.getState();
  const row = rows.side.get(useDesk.getState().side ?? "");
  const storeys = [...rows.storey.values()];
  if (!row || row.fromX === null || row.fromY === null || row.toX === null || row.toY === null) return [];
  const heights = storeys.flatMap((s) => [s.elevation, s.elevation + s.height]);
  return [
    [0, Math.min(0, ...heights)],
    [Math.hypot(row.toX - row.fromX, row.toY - row.fromY), Math.max(0, ...heights)],
  ];
}

/** The building as the side or section on the board shows it, over the drawing that it is held against; as the core draws it. */
export function SideView({ screen }: { screen: Map2 }) {
  const { side, selected } = useDeskFields("side", "selected");
  const row = useProject((s) => (side === null ? undefined : s.rows.side.get(side)));
  const isThere = row !== undefined && row.fromX !== null;
  const revision = useProject((s) => (isThere ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["view", side, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/sides/{id}/view", { params: { path: inProject(side ?? "") } })),
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
