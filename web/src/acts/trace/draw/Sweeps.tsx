import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { create } from "zustand";
import { api, type Schemas, settled } from "../../../api/client";
import { useDesk } from "../../../board/desk";
import { TEAL } from "../../../board/marks";
import { apply, type Map2 } from "../../../geometry/maps";
import type { XY } from "../../../geometry/plane";
import { offLine } from "../../../store/drawn";
import { inProject, useProject } from "../../../store/project";

/** Above the floor, mm: what begins higher lies over the plan's cut and is dashed (ISO 128). */
const CUT_MM = 1200;

type Shown = { id: string; rings: readonly (readonly (readonly number[])[])[]; bottomMm: number };

/** Mouldings as the plan at hand showed them last. */
const useSeen = create<{ storey: string | null; sweeps: readonly Shown[] }>(() => ({ storey: null, sweeps: [] }));

/** Mouldings of a storey as the core lays them along their paths, and those that have no body, with why. */
export function useSweeps(storey: string | null): {
  sweeps: readonly Shown[];
  refused: readonly Schemas["RefusedBody"][];
} {
  const isAny = useProject((s) => [...s.rows.sweep.values()].some((w) => w.storey === storey));
  const revision = useProject((s) => (isAny ? s.revision : 0));
  const { data } = useQuery({
    queryKey: ["sweeps", storey, revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/storeys/{id}/sweeps", { params: { path: inProject(storey ?? "") } })),
    enabled: isAny,
    placeholderData: (old, query) => (query?.queryKey[1] === storey ? old : undefined),
  });
  return isAny && data ? data : NONE;
}

const NONE = { sweeps: [], refused: [] } as const;

/** Mouldings on the plan: round what they cover of it. */
export function Sweeps({ screen }: { screen: Map2 }) {
  const storey = useDesk((s) => s.storey);
  const selected = useDesk((s) => s.selected?.id);
  const { sweeps } = useSweeps(storey);
  useEffect(() => useSeen.setState({ storey, sweeps }), [storey, sweeps]);
  return (
    <g fill="none" stroke={TEAL}>
      {sweeps.map(({ id, rings, bottomMm }, i) => (
        <path
          // biome-ignore lint/suspicious/noArrayIndexKey: a moulding may have several pieces
          key={`${id} ${i}`}
          d={rings
            .map(
              (ring) => `M${ring.map(([x = 0, y = 0]) => apply(screen, [x, y]).map((c) => c.toFixed(1))).join("L")}Z`,
            )
            .join("")}
          strokeWidth={selected === id ? 2.6 : 1.1}
          {...(bottomMm > CUT_MM ? { strokeDasharray: "10 3" } : {})}
        />
      ))}
    </g>
  );
}

/** The moulding of the storey at hand of which an edge lies within the reach of a point. */
export function sweepUnder(pointer: XY, reach: number): string | null {
  const { storey, sweeps } = useSeen.getState();
  if (storey === null || storey !== useDesk.getState().storey) return null;
  const closed = (ring: readonly (readonly number[])[]): XY[] =>
    [...ring, ...ring.slice(0, 1)].map(([x = 0, y = 0]) => [x, y]);
  return sweeps.find(({ rings }) => rings.some((ring) => offLine(pointer, closed(ring)) < reach))?.id ?? null;
}
