import { api, type State, settled } from "../api/client";
import type { Edit } from "./edits";
import type { Line } from "./mirror";

/** No answer after so long is no answer at all: longer than the server gives itself for a change. */
const SEND_MS = 60_000;
const ASK_MS = 20_000;

/** The way to a project over HTTP. */
export function lineTo(project: string, account: string): Line {
  const params = { path: { project } };
  // Of the latest answer: what would be told once more is not.
  let told = { since: -1, tag: "", heard: 0 };
  const heardOf = (state: State, response: Response | undefined): State => {
    told = { since: state.revision, tag: response?.headers.get("ETag") ?? "", heard: state.heard };
    return state;
  };
  return {
    whole: () => settled(api.GET("/api/projects/{project}", { params: { ...params, query: { storey: "first" } } })),
    since: async (since, storey) => {
      const { heard } = told;
      const header = told.since === since && storey === undefined ? { "If-None-Match": told.tag } : {};
      const asked = api.GET("/api/projects/{project}/changes", {
        params: { ...params, query: { since, heard, ...(storey === undefined ? {} : { storey }) }, header },
        signal: AbortSignal.timeout(ASK_MS),
      });
      const { response } = await asked.catch(() => ({ response: null }));
      if (response?.status === 304) return null;
      return heardOf(await settled(asked), response ?? undefined);
    },
    send: async ({ id, kind, base, after, title, operations, carry, target }: Edit, known) => {
      const signal = AbortSignal.timeout(SEND_MS);
      const { heard } = told;
      if (kind === "change") {
        const tracing = carry ? ({ tracing: "carry" } as const) : {};
        const body = {
          id,
          account,
          base,
          known,
          heard,
          title,
          operations,
          ...tracing,
          ...(after.length > 0 ? { after } : {}),
        };
        const made = api.POST("/api/projects/{project}/changes", { params, body, signal });
        return heardOf(await settled(made), (await made).response);
      }
      const body = { id, account, known, heard, ...(target === null ? {} : { target }) };
      const made =
        kind === "undo"
          ? api.POST("/api/projects/{project}/undo", { params, body, signal })
          : api.POST("/api/projects/{project}/redo", { params, body, signal });
      return heardOf(await settled(made), (await made).response);
    },
  };
}
