import createClient from "openapi-fetch";
import type { components, paths } from "./schema";

export type Schemas = components["schemas"];
export type State = Schemas["State"];
export type Row = Schemas["Row"];
export type RowType = Schemas["RowType"];
export type Operation = Schemas["Operation"];
/** Rows of one kind added, set, removed or moved. */
export type RowEdit = Schemas["RowEdit"];

export function isRowEdit(operation: Operation): operation is RowEdit {
  return "type" in operation;
}
export type FitReport = Schemas["FitReport"];
export type Shapes = Schemas["Shapes"];
export type PageMade = Schemas["PageMade"];
export type Progress = Schemas["Progress"];
export type Account = Schemas["Account"];

/** The fixed header is what other origins cannot send; the browser vouches for the rest. */
export const WRITE_HEADERS = { "csrf-token": "csrf-token" };

/** What a request waits for before it goes out. */
export const sending: { after: (request: Request) => Promise<void> } = { after: () => Promise.resolve() };

export const api = createClient<paths>({
  // Outside a browser, as in tests, there is no address to be relative to.
  baseUrl: globalThis.location?.origin ?? "http://desk.test",
  headers: WRITE_HEADERS,
  fetch: (request) => sending.after(request).then(() => globalThis.fetch(request)),
});

/** A refusal in the server's words. */
export class Refused extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly at: string,
    /** what was told beside the error */
    readonly more: Partial<Schemas["ErrorAnswer"]> = {},
  ) {
    super(message);
  }

  /** Worth sending again as it is: nothing was judged yet. */
  get isPassing(): boolean {
    return this.status === 0 || this.status >= 500 || [401, 408, 429].includes(this.status);
  }
}

export function refusal(status: number, body: unknown): Refused {
  const answer = (body ?? {}) as Partial<Schemas["ErrorAnswer"]>;
  const { error } = answer;
  return new Refused(
    status,
    error?.code ?? "failure",
    error?.message ?? "The server gave no answer that can be read.",
    error?.at ?? "",
    answer,
  );
}

/** Unwraps an answer, turning refusals and a lost connection into one kind of error. */
export async function settled<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let answer: { data?: T; error?: unknown; response: Response };
  try {
    answer = await call;
  } catch {
    throw new Refused(0, "offline", "The server cannot be reached.", "");
  }
  if (!answer.response.ok || answer.data === undefined) {
    throw refusal(answer.response.status, answer.error);
  }
  return answer.data;
}
