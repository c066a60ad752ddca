import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useState } from "react";
import { create } from "zustand";
import { api, settled } from "../../api/client";
import { newId } from "../../api/ids";
import { change, inProject, projectId, useProject } from "../../store/project";
import type { Rows, Thing, Values } from "../../store/rows";
import { type OnSheet, readSheet } from "./onSheet";

export type Sheet = Thing<"printSheet">;
export type View = Thing<"sheetView">;
export type ViewKind = View["kind"];

/** Which sheet is looked at over the board, and what of it is in hand. */
export const useSheets = create<{
  sheet: string | null;
  view: string | null;
  /** key of a dimension of that view */
  figure: string | null;
  paper: Paper;
  upright: boolean;
}>(() => ({ sheet: null, view: null, figure: null, paper: "A3", upright: false }));

export const lookAt = (sheet: string | null) => useSheets.setState({ sheet, view: null, figure: null });
export const takeView = (view: string | null) => useSheets.setState({ view, figure: null });

/** Trimmed sizes of the A series (ISO 216), mm, lying. */
export const PAPERS = { A4: [297, 210], A3: [420, 297], A2: [594, 420], A1: [841, 594], A0: [1189, 841] } as const;
export type Paper = keyof typeof PAPERS;
export const PAPER_NAMES = Object.keys(PAPERS) as Paper[];

/** The paper that a sheet has, where it is one of the A series. */
export function paperOf({ width, height }: Pick<Sheet, "width" | "height">): { paper: Paper | null; upright: boolean } {
  const [long, short] = [Math.max(width, height), Math.min(width, height)];
  return {
    paper: PAPER_NAMES.find((p) => PAPERS[p][0] === long && PAPERS[p][1] === short) ?? null,
    upright: height > width,
  };
}

export function sizeOf(paper: Paper, upright: boolean): { width: number; height: number } {
  const [long, short] = PAPERS[paper];
  return upright ? { width: short, height: long } : { width: long, height: short };
}

export const sheetsInOrder = (rows: Rows): Sheet[] =>
  [...rows.printSheet.values()].sort((a, b) => a.order - b.order || (a.id < b.id ? -1 : 1));

export const viewsOf = (rows: Rows, sheet: string): View[] =>
  [...rows.sheetView.values()].filter((v) => v.sheet === sheet).sort((a, b) => (a.id < b.id ? -1 : 1));

/** What a view is called that has no title of its own. */
export function nameOf(rows: Rows, view: View): string {
  if (view.title !== "") return view.title;
  switch (view.kind) {
    case "plan":
      return rows.storey.get(view.storey ?? "")?.name || "Plan";
    case "side":
      return rows.side.get(view.side ?? "")?.name || "Side";
    case "picture":
      return rows.drawing.get(view.drawing ?? "")?.name || "Picture";
    case "site":
      return "Site plan";
    case "standing":
      return view.tilt > 89.9 ? "Roof" : "The building";
    case "rooms":
      return "Rooms";
    case "openings":
      return "Doors and windows";
    case "enclosures":
      return "Enclosures";
    case "ways":
      return "Ways out";
    case "key":
      return "Key";
    default:
      return "Notes";
  }
}

/** Drawn at a scale, about its zero. */
export const isToScale = (kind: ViewKind) => ["plan", "side", "site", "standing"].includes(kind);

/** What each kind of view may show beside, and how that is said. */
export const SHOWS: Record<string, readonly (readonly [string, string])[]> = {
  plan: [
    ["dimensions", "dimensions round it"],
    ["inside", "dimensions inside"],
    ["stamps", "room stamps"],
    ["numbers", "opening numbers"],
    ["levels", "level"],
    ["axes", "axes"],
    ["sections", "section marks"],
    ["objects", "objects"],
    ["drawn", "what is drawn freely"],
    ["notes", "notes"],
    ["colour", "rooms coloured"],
    ["wear", "walls without evidence dashed"],
    ["hatch", "a hatch for each build-up"],
    ["enclosures", "classes of fire resistance"],
    ["ways", "ways out"],
    ["ink", "the drawing under it, 200 dpi"],
  ],
  side: [
    ["dimensions", "heights"],
    ["levels", "levels"],
    ["drawn", "what is drawn freely"],
    ["notes", "notes"],
    ["hidden", "hidden lines"],
    ["ink", "the picture under it, 200 dpi"],
  ],
  site: [
    ["dimensions", "lengths and distances"],
    ["bearings", "which way legs run"],
  ],
  key: [
    ["hatch", "a hatch for each build-up"],
    ["enclosures", "classes of fire resistance instead"],
  ],
  notes: [["notes", "what was assumed"]],
};

const USUAL: Record<string, string> = {
  plan: "dimensions,inside,stamps,numbers,levels,axes,sections,objects,drawn,notes",
  side: "dimensions,levels,drawn,notes",
  site: "dimensions,bearings",
  notes: "notes",
};

/** What can be put on a sheet, as `kind id`, with its words. */
export function offered(rows: Rows): (readonly [string, string])[] {
  const byLevel = [...rows.storey.values()].sort((a, b) => a.elevation - b.elevation);
  return [
    ...byLevel.map((s) => [`plan ${s.id}`, `${s.name || "Storey"}, plan`] as const),
    ...[...rows.side.values()].map((s) => [`side ${s.id}`, `${s.name}, ${s.cut ? "section" : "elevation"}`] as const),
    ["site ", "Site plan"],
    ["standing roof", "Roof from above"],
    ["standing ", "The building, in 3D"],
    ["rooms ", "Rooms, table"],
    ["openings ", "Doors and windows, table"],
    ["enclosures ", "Enclosures, table"],
    ["ways ", "Ways out, table"],
    ["key ", "Key"],
    ["notes ", "Notes"],
    ...[...rows.drawing.values()].map((d) => [`picture ${d.id}`, `${d.name || "Picture"}, picture`] as const),
  ];
}

/** A view of what was chosen, in the middle of a sheet. */
export function newView(sheet: Sheet, chosen: string): Values["sheetView"] {
  const [kind = "notes", of = ""] = chosen.split(" ") as [ViewKind, string];
  const roof = kind === "standing" && of === "roof";
  return {
    sheet: sheet.id,
    kind,
    storey: kind === "plan" ? of : null,
    side: kind === "side" ? of : null,
    drawing: kind === "picture" ? of : null,
    x: isToScale(kind) ? sheet.width / 3 : 30,
    y: isToScale(kind) ? sheet.height / 2 : 20,
    scale: kind === "site" ? 500 : 100,
    fromX: null,
    fromY: null,
    toX: null,
    toY: null,
    width: null,
    title: "",
    words: kind === "notes" ? "Dimensions are told; do not scale from prints." : "",
    shows: USUAL[kind] ?? "",
    turn: kind === "standing" && !roof ? 35 : 0,
    tilt: roof ? 90 : kind === "standing" ? 30 : 0,
  };
}

/** A planning set of what there is, or fire plans, taken in one change that one undo takes back. */
export async function propose(
  paper: Paper,
  upright: boolean,
  part: "planning" | "fire" = "planning",
): Promise<string | null> {
  const { sheets } = await settled(
    api.GET("/api/projects/{project}/sheets/proposal", {
      params: { path: { project: projectId() }, query: { paper, upright, part } },
    }),
  );
  const after = useProject.getState().rows.printSheet.size;
  await change(
    part === "fire" ? "Propose fire plans" : "Propose a planning set",
    sheets.flatMap(({ id, values, views }) => [
      {
        do: "add" as const,
        type: "printSheet" as const,
        id,
        values: { ...values, order: after + (values.order ?? 0) },
      },
      ...views.map((v) => ({ do: "add" as const, type: "sheetView" as const, id: v.id, values: v.values })),
    ]),
  );
  return sheets[0]?.id ?? null;
}

/** An empty sheet after the others. */
export async function addSheet(paper: Paper, upright: boolean): Promise<string> {
  const sheets = sheetsInOrder(useProject.getState().rows);
  const id = newId();
  const values = {
    order: (sheets.at(-1)?.order ?? -1) + 1,
    ...sizeOf(paper, upright),
    part: "",
    number: `A-${String(sheets.length + 1).padStart(2, "0")}`,
    owner: sheets.at(-1)?.owner ?? "",
    creator: sheets.at(-1)?.creator ?? "",
    approved: "",
    date: new Date().toISOString().slice(0, 10),
  };
  await change("Add a sheet", [{ do: "add", type: "printSheet", id, values }]);
  return id;
}

/** Says of a dimension where it stands or that it is left out; said of it before or not. */
export function mark(view: string, of: string, values: { dx?: number; dy?: number; hidden?: boolean }, title: string) {
  const known = [...useProject.getState().rows.viewMark.values()].find((m) => m.view === view && m.of === of);
  return change(title, [
    known
      ? { do: "set", type: "viewMark", id: known.id, values }
      : { do: "add", type: "viewMark", id: newId(), values: { view, of, dx: 0, dy: 0, hidden: false, ...values } },
  ]);
}

export const marksOf = (rows: Rows, view: string) => [...rows.viewMark.values()].filter((m) => m.view === view);

/** A sheet as it prints, from the core: its picture and what is on it; a refusal says what is wrong. */
export function useSheetPicture(sheet: string): {
  address: string | null;
  on: OnSheet | null;
  refused: string | null;
} {
  const revision = useProject((s) => s.revision);
  const { data, error } = useQuery({
    queryKey: ["sheet", sheet, revision],
    queryFn: () =>
      settled(
        api.GET("/api/projects/{project}/sheets/{id}/sheet.svg", {
          params: { path: inProject(sheet) },
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
  const on = useMemo(() => (data === undefined ? null : readSheet(String(data))), [data]);
  return { address, on: error ? null : on, refused: error?.message ?? null };
}
