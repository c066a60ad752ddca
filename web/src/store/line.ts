import { api, settled } from "../api/client";
import type { Edit } from "./edits";
import type { Line } from "./mirror";

/** No answer after so long is no answer at all: longer than the server gives itself for a change. */
const SEND_MS = 60_000;
const ASK_MS = 20_000;

/** The way to a project over HTTP. */
export function lineTo(project: string, account: string): Line {
  const params = { path: { project } };
  return {
    whole: () => settled(api.GET("/api/projects/{project}", { params })),
    since: (since) => {
      const asked = { params: { ...params, query: { since } }, signal: AbortSignal.timeout(ASK_MS) };
      return settled(api.GET("/api/projects/{project}/changes", asked));
    },
    send: ({ id, kind, base, after, title, operations, carry, target }: Edit, known) => {
      const signal = AbortSignal.timeout(SEND_MS);
      if (kind === "change") {
        const tracing = carry ? ({ tracing: "carry" } as const) : {};
        const body = {
          id,
          account,
          base,
          known,
          title,
          operations,
          ...tracing,
          ...(after.length > 0 ? { after } : {}),
        };
        return settled(api.POST("/api/projects/{project}/changes", { params, body, signal }));
      }
      const body = { id, account, known, ...(target === null ? {} : { target }) };
      return settled(
        kind === "undo"
          ? api.POST("/api/projects/{project}/undo", { params, body, signal })
          : api.POST("/api/projects/{project}/redo", { params, body, signal }),
      );
    },
  };
}
