// @vitest-environment happy-dom
import { act as settled } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { aScreen, press } from "../../testing/screen";
import { Sent } from "../../testing/sent";
import { FromArchive } from "./FromArchive";

const { show } = aScreen();

beforeEach(async () => {
  Sent.all = [];
  vi.stubGlobal("XMLHttpRequest", Sent);
  await show(<FromArchive />);
  const input = document.querySelector<HTMLInputElement>('input[type="file"]');
  Object.defineProperty(input, "files", { value: [new File(["PK"], "fen-house.zip")] });
  await settled(async () => void input?.dispatchEvent(new Event("change", { bubbles: true })));
});
afterEach(() => vi.unstubAllGlobals());

const words = () => document.body.textContent ?? "";
const answered = (status: number, body: unknown) => settled(async () => Sent.all[0]?.answer(status, body));

it("sends the archive, says how much of it has gone out, and opens the project that it has become", async () => {
  expect(Sent.all[0]?.form?.get("file")).toMatchObject({ name: "fen-house.zip" });
  await settled(async () => Sent.all[0]?.upload.onprogress?.({ lengthComputable: true, loaded: 1, total: 4 }));
  expect(words()).toContain("25 % sent");
  await settled(async () => Sent.all[0]?.upload.onprogress?.({ lengthComputable: true, loaded: 4, total: 4 }));
  expect(words()).toContain("Being put together");
  await answered(200, { id: "0190" });
  expect(window.location.hash).toBe("#/project/0190");
});

it("says in words and with the place why it is refused, and takes another one", async () => {
  const error = { code: "unreadable-document", message: "thickness must be positive.", at: "rows/wall/3/thickness" };
  await answered(422, { error });
  expect(words()).toContain("thickness must be positive. (rows/wall/3/thickness)");
  expect(words()).toContain("Choose an archive");
});

it("is stopped while it goes out, and tells where the server is away", async () => {
  await press("Stop");
  expect(Sent.all[0]?.aborted).toBe(true);
  expect(words()).toContain("Choose an archive");
  await settled(async () => Sent.all[0]?.onerror?.());
  expect(words()).toContain("The server cannot be reached.");
});
