import { api } from "../api/client";
import { newId } from "../api/ids";
import { useProject } from "./project";
import type { Told } from "./told";

/** What this page is called, among all that have a project open. */
export const OWN_PAGE = newId();

const of = (project: string) => ({ params: { path: { project, page: OWN_PAGE } } });

/** Says where one is; that it could not be said is nothing to tell of. */
export async function sayWhere(place: string | null): Promise<void> {
  const { id } = useProject.getState();
  if (id !== null)
    await api.PUT("/api/projects/{project}/presence/{page}", { ...of(id), body: { place } }).catch(() => null);
}

export async function sayGone(project: string): Promise<void> {
  // It goes out also while the page is being closed.
  await api.DELETE("/api/projects/{project}/presence/{page}", { ...of(project), keepalive: true }).catch(() => null);
}

/** Who else is there. */
export function others(present: Told["present"]): Told["present"] {
  return present.filter((p) => p.page !== OWN_PAGE);
}
