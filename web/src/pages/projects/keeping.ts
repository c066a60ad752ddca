import { api, type Refused, type Schemas, settled } from "../../api/client";
import { newId } from "../../api/ids";

/** What is done to whole projects; each answers in words why it could not be, or null. */
async function done(what: Promise<unknown>): Promise<string | null> {
  return what.then(
    () => null,
    (refused: Refused) => refused.message,
  );
}

const of = (project: string) => ({ params: { path: { project } } });

export function copy({ id, name }: Schemas["ProjectCard"]): Promise<string | null> {
  const body = { id: newId(), name: `${name.slice(0, 110)}, copy` };
  return done(settled(api.POST("/api/projects/{project}/copies", { ...of(id), body })));
}

export function bin(id: string): Promise<string | null> {
  return done(settled(api.PUT("/api/projects/{project}/bin", of(id))));
}

export function putBack(id: string): Promise<string | null> {
  return done(settled(api.DELETE("/api/projects/{project}/bin", of(id))));
}

export function removeForGood(id: string): Promise<string | null> {
  return done(settled(api.DELETE("/api/projects/{project}", of(id))));
}

/** ms; the server keeps it: what has lain in the bin for so long goes for good */
const KEPT = 30 * 86_400_000;

/** How many days a project still lies in the bin. */
export function daysLeft(binned: string, now: number): number {
  return Math.max(0, Math.ceil((Date.parse(binned) + KEPT - now) / 86_400_000));
}
