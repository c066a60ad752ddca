import { useQuery } from "@tanstack/react-query";
import { useEffect, useState } from "react";
import { create } from "zustand";
import { api, settled } from "../../api/client";
import { inProject, projectId, useProject } from "../../store/project";
import { OneOf, Plain } from "../../ui/parts";

const PAPERS = ["A4", "A3", "A2", "A1", "A0"] as const;
const SCALES = [20, 50, 100, 200] as const;

type Paper = (typeof PAPERS)[number];

/** How the plan is put on its sheet. */
export const useSheet = create<{ paper: Paper; upright: boolean; scale: number | null; large: boolean }>(() => ({
  paper: "A3",
  upright: false,
  scale: null,
  large: false,
}));

const queryOf = ({ paper, upright, scale }: ReturnType<typeof useSheet.getState>) => ({
  paper,
  ...(upright ? { upright } : {}),
  ...(scale === null ? {} : { scale }),
});

/** The sheet as it prints, from the core; a refusal says what does not fit. */
export function useSheetPicture(storey: string): { address: string | null; refused: string | null } {
  const sheet = useSheet();
  const revision = useProject((s) => s.revision);
  const { data, error } = useQuery({
    queryKey: ["sheet", storey, revision, sheet.paper, sheet.upright, sheet.scale],
    queryFn: () =>
      settled(
        api.GET("/api/projects/{project}/storeys/{id}/sheet.svg", {
          params: { path: inProject(storey), query: queryOf(sheet) },
          parseAs: "text",
        }),
      ),
    retry: false,
    placeholderData: (old) => old,
  });
  const [address, setAddress] = useState<string | null>(null);
  useEffect(() => {
    if (data === undefined || error) return setAddress(null);
    const made = URL.createObjectURL(new Blob([String(data)], { type: "image/svg+xml" }));
    setAddress(made);
    return () => URL.revokeObjectURL(made);
  }, [data, error]);
  return { address, refused: error?.message ?? null };
}

/** The plan on paper: its size, its scale, as it prints, and to be taken. */
export function SheetCard({ storey, ready }: { storey: string; ready: boolean }) {
  const sheet = useSheet();
  const { address, refused } = useSheetPicture(storey);
  const query = new URLSearchParams(Object.entries(queryOf(sheet)).map(([k, v]) => [k, v === true ? "1" : String(v)]));
  const href = (format: string) => `/api/projects/${projectId()}/storeys/${storey}/sheet.${format}?${query}`;
  const set = useSheet.setState;
  if (!ready) return null;
  return (
    <section className="border-b border-line p-4" aria-label="Print sheet">
      <h3 className="text-lg font-bold">Print sheet</h3>
      <p className="mt-1 text-[14px]">
        The plan at its scale with chains of dimensions that add up, room stamps, stairs, objects, notes, frame and
        title.
      </p>
      <div className="mt-2 text-[13px]">
        <OneOf
          label="Paper"
          value={sheet.paper}
          of={PAPERS.map((p) => [p, p] as const)}
          set={(paper) => set({ paper })}
        />
        <div className="mt-1">
          <OneOf
            label="Scale"
            value={String(sheet.scale ?? "fits")}
            of={[["fits", "fits"], ...SCALES.map((s) => [String(s), `1:${s}`] as const)]}
            set={(scale) => set({ scale: scale === "fits" ? null : Number(scale) })}
          />
        </div>
        <div className="mt-1.5 flex gap-1.5">
          <Plain pressed={sheet.upright} onClick={() => set({ upright: !sheet.upright })}>
            Upright
          </Plain>
          <Plain pressed={sheet.large} onClick={() => set({ large: !sheet.large })}>
            Look at it closely
          </Plain>
        </div>
      </div>
      {refused && <p className="mt-2 text-[13px] text-rust">{refused}</p>}
      {address && !refused && (
        <button
          type="button"
          className="mt-2 block w-full border border-line bg-white"
          onClick={() => set({ large: true })}
        >
          <img src={address} alt="The sheet as it prints" className="w-full" />
        </button>
      )}
      {!refused && (
        <div className="mt-2 flex gap-1.5">
          {(["pdf", "svg", "png"] as const).map((format) => (
            <a
              key={format}
              className="rounded-lg border border-ink bg-white px-3 py-1.5 font-semibold"
              href={href(format)}
              download={`sheet.${format}`}
            >
              {format === "pdf" ? "Take the PDF" : format.toUpperCase()}
            </a>
          ))}
        </div>
      )}
    </section>
  );
}
