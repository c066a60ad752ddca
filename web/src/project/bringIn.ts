import { type Refused, refusal, type State, WRITE_HEADERS } from "../api/client";
import { newId } from "../api/ids";
import { take } from "./store";

export interface Upload {
  name: string;
  /** 0 to 1 of the bytes sent */
  sent: number;
  stop: () => void;
  arrived: Promise<Refused | null>;
}

/** Sends a file with progress; `stop` breaks it off and leaves nothing behind. */
export function bringIn(project: string, storey: string, file: File, onProgress: (sent: number) => void): Upload {
  const request = new XMLHttpRequest();
  const form = new FormData();
  form.set("change", newId());
  form.set("storey", storey);
  form.set("file", file);
  const arrived = new Promise<Refused | null>((done) => {
    request.upload.onprogress = (e) => onProgress(e.lengthComputable ? e.loaded / e.total : 0);
    request.onload = () => {
      const body: unknown = JSON.parse(request.responseText || "null");
      if (request.status === 200) {
        take(body as State);
        done(null);
      } else {
        done(refusal(request.status, body));
      }
    };
    request.onerror = () =>
      done(
        refusal(0, {
          error: { code: "offline", message: "The server cannot be reached. Bring the file in again.", at: "" },
        }),
      );
    request.onabort = () => done(null);
  });
  request.open("POST", `/api/projects/${project}/sources`);
  for (const [name, value] of Object.entries(WRITE_HEADERS)) request.setRequestHeader(name, value);
  request.send(form);
  return { name: file.name, sent: 0, stop: () => request.abort(), arrived };
}
