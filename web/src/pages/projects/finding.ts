import type { Schemas } from "../../api/client";

type ProjectCard = Schemas["ProjectCard"];

export type Order = "newest first" | "by name" | "by what it is for";
export const ORDERS: readonly Order[] = ["newest first", "by name", "by what it is for"];

/** The projects in whose name or purpose all words stand, in an order; the server tells the newest first. */
export function found(projects: readonly ProjectCard[], words: string, order: Order): readonly ProjectCard[] {
  const asked = words.toLowerCase().split(/\s+/).filter(Boolean);
  const kept = projects.filter((p) => asked.every((word) => `${p.name} ${p.purpose}`.toLowerCase().includes(word)));
  if (order === "newest first") return kept;
  const byName = (a: ProjectCard, b: ProjectCard) => a.name.localeCompare(b.name, undefined, { numeric: true });
  return order === "by name"
    ? kept.toSorted(byName)
    : kept.toSorted((a, b) => a.purpose.localeCompare(b.purpose) || byName(a, b));
}
