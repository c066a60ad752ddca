import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { type ReactNode, act as settled } from "react";
import { createRoot, type Root } from "react-dom/client";
import { afterEach, beforeEach, expect } from "vitest";

/** Long enough for an answer of the stand-in server to be shown, ms. */
const ANSWERED_MS = 50;

export const soon = () => settled(async () => void (await new Promise((done) => setTimeout(done, ANSWERED_MS))));

/** Shows components as the page would, and takes them off after each test. Call it at the head of a test file. */
export function aScreen(): { show: (what: ReactNode) => Promise<void> } {
  let root: Root;
  beforeEach(() => {
    (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
    root = createRoot(document.body.appendChild(document.createElement("div")));
  });
  afterEach(async () => {
    await settled(async () => root.unmount());
    document.body.replaceChildren();
  });
  return {
    show: async (what) => {
      const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
      await settled(async () => root.render(<QueryClientProvider client={client}>{what}</QueryClientProvider>));
      await soon();
    },
  };
}

/** Presses the button whose words are these. */
export async function press(text: string): Promise<void> {
  const button = [...document.querySelectorAll("button")].find((b) => b.textContent === text);
  expect(button, text).toBeDefined();
  await settled(async () => button?.click());
  await soon();
}
