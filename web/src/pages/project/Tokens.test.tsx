// @vitest-environment happy-dom
import { act as settled } from "react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import type { Schemas } from "../../api/client";
import { aScreen, press } from "../../testing/screen";
import { Tokens } from "./Tokens";

const { show } = aScreen();
let tokens: Schemas["Token"][] = [];

beforeEach(async () => {
  tokens = [{ id: "t1", name: "nightly model", madeAt: "2026-05-01T08:00:00+00:00", usedAt: null }];
  vi.stubGlobal("fetch", async (request: Request) => {
    if (request.method === "DELETE") {
      tokens = tokens.filter((t) => !request.url.endsWith(t.id));
      return new Response(null, { status: 204 });
    }
    if (request.method === "GET") return Response.json({ tokens });
    const { name } = (await request.json()) as { name: string };
    if (name.trim() === "") {
      return Response.json({ error: { code: "no-name", message: "Say what it is for.", at: "name" } }, { status: 422 });
    }
    const token = { id: "t2", name, madeAt: "2026-05-02T08:00:00+00:00", usedAt: "2026-05-03T08:00:00+00:00" };
    tokens = [...tokens, token];
    return Response.json({ token, words: "plinth_abc" });
  });
  await show(<Tokens project="0190" />);
});
afterEach(() => vi.unstubAllGlobals());

const words = () => document.body.textContent ?? "";
const write = (text: string) =>
  settled(async () => {
    const input = document.querySelector("input");
    Object.getOwnPropertyDescriptor(HTMLInputElement.prototype, "value")?.set?.call(input, text);
    input?.dispatchEvent(new Event("input", { bubbles: true }));
  });

it("shows the words of a new token once, in the command that takes a file with them", async () => {
  expect(words()).toContain("nightly model not used yet");
  await write("areas");
  await press("Make a token");
  expect(words()).toContain('curl -H "Authorization: Bearer plinth_abc"');
  expect(words()).toContain("/api/projects/0190/building.ifc");
  expect(words()).toContain("areas used 03/05/2026");
});

it("withdraws a token, and says in words what is missing for a new one", async () => {
  await press("withdraw");
  expect(words()).not.toContain("nightly model");
  await press("Make a token");
  expect(document.querySelector('[role="alert"]')?.textContent).toBe("Say what it is for.");
});
