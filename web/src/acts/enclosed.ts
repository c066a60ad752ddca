import { useQuery } from "@tanstack/react-query";
import { api, type Operation, type Schemas, settled } from "../api/client";
import { newId } from "../api/ids";
import { change, projectId, useProject } from "../store/project";
import { inOrder, type Rows, type Thing } from "../store/rows";

export type FireClass = Thing<"fireClass">;
export type Enclosure = Thing<"enclosure">;
export type Hatch = Schemas["Hatch"];

/** What the server tells of all enclosures. */
export interface Enclosed {
  areas: readonly { enclosure: string; shapes: readonly Shape[]; areaM2: number; at: readonly number[] | null }[];
  totals: readonly { fireClass: string; storey: string; areaM2: number }[];
  findings: readonly EnclosureFinding[];
  doors: readonly { enclosure: string; opening: string; kind: string; widthMm: number; rated: string }[];
}
export interface Shape {
  outer: readonly (readonly number[])[];
  holes: readonly (readonly (readonly number[])[])[];
}
export interface EnclosureFinding {
  code: "overlap" | "stops" | "gap" | "open";
  enclosures: readonly string[];
  storey: string;
  at: readonly number[];
  message: string;
  room: string | null;
}

const NONE: Enclosed = { areas: [], totals: [], findings: [], doors: [] };

/** What is enclosed, asked anew after every change; nothing is asked where nothing is. */
export function useEnclosed(): Enclosed {
  const isThere = useProject((s) => s.rows.enclosure.size > 0);
  const revision = useProject((s) => s.revision);
  const { data } = useQuery({
    queryKey: ["enclosures", revision],
    queryFn: () =>
      settled(api.GET("/api/projects/{project}/enclosures", { params: { path: { project: projectId() } } })),
    enabled: isThere,
    placeholderData: (old) => old,
  });
  return isThere ? (data ?? NONE) : NONE;
}

/** The same for every spelling of one class, as the core has it: case, spaces and dashes do not count. */
export function spelledKey(name: string): string {
  return name
    .normalize("NFKC")
    .replace(/[\s\p{Z}\p{Pd}_\p{Cf}]+/gu, "")
    .toLowerCase();
}

export function classSpelled(rows: Rows, name: string): FireClass | undefined {
  const key = spelledKey(name);
  return inOrder(rows.fireClass.values()).find((c) => spelledKey(c.name) === key);
}

export function roomsOf(rows: Rows, enclosure: string): string[] {
  return [...rows.enclosedRoom.values()].filter((e) => e.enclosure === enclosure).map((e) => e.room);
}

/** Its rooms by name, or how it was drawn. */
export function whatItEncloses(rows: Rows, { id, line }: Enclosure): string {
  if (line !== "") return "what an outline goes round";
  const names = roomsOf(rows, id).flatMap((room) => rows.room.get(room)?.name ?? []);
  return names.length === 0 ? "no room" : names.join(", ");
}

/** A new enclosure of some rooms, all of one storey. */
export function enclosing(id: string, storey: string, fireClass: string, rooms: readonly string[]): Operation[] {
  return [
    { do: "add", type: "enclosure", id, values: { storey, fireClass, drawing: null, line: "" } },
    ...rooms.map((room) => enclosed(id, room)),
  ];
}

export function enclosed(enclosure: string, room: string): Operation {
  return { do: "add", type: "enclosedRoom", id: newId(), values: { enclosure, room } };
}

/** What mends a finding, in words, and how; null where only the hand can. */
export function mendOf(rows: Rows, finding: EnclosureFinding): { words: string; go: () => Promise<unknown> } | null {
  const [one, other] = finding.enclosures.map((id) => rows.enclosure.get(id));
  if (!one) return null;
  if (finding.code === "overlap") {
    if (!other) return null;
    const values = { one: one.fireClass, other: other.fireClass };
    return {
      words: "Allow the two together",
      go: () => change("Allow two classes together", [{ do: "add", type: "classesTogether", id: newId(), values }]),
    };
  }
  const room = rows.room.get(finding.room ?? "");
  if (!room) return null;
  const isIts = finding.code === "gap" && one.line === "";
  return {
    words: `Enclose ${room.name} as well`,
    go: () =>
      change(
        `Enclose ${room.name}`,
        isIts ? [enclosed(one.id, room.id)] : enclosing(newId(), room.storey, one.fireClass, [room.id]),
      ),
  };
}
