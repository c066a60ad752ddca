// @vitest-environment happy-dom
import { QueryClient, QueryClientProvider } from "@tanstack/react-query";
import { act as settled } from "react";
import { createRoot } from "react-dom/client";
import { expect, it } from "vitest";
import { deskWithPlan, STOREY } from "../../../testing/desk";
import { useHeights } from "./heights";

let told: unknown[] = [];

function Rooms({ storey, isWanted }: { storey: string; isWanted: boolean }) {
  const heights = useHeights(storey, isWanted);
  told.push(heights.size);
  return null;
}

it("a storey whose rooms are as high as it says nothing, and comes to rest, after one that is open to above", async () => {
  (globalThis as { IS_REACT_ACT_ENVIRONMENT?: boolean }).IS_REACT_ACT_ENVIRONMENT = true;
  const server = deskWithPlan();
  const height = { region: "k", leastMm: 2450, mostMm: 5200, openM2: 2, typed: false };
  server.answers = { ...server.answers, heights: { heights: [height] } };
  const root = createRoot(document.createElement("div"));
  const client = new QueryClient({ defaultOptions: { queries: { retry: false } } });
  const show = (storey: string, isWanted: boolean) =>
    settled(async () =>
      root.render(
        <QueryClientProvider client={client}>
          <Rooms storey={storey} isWanted={isWanted} />
        </QueryClientProvider>,
      ),
    );
  await show(STOREY, true);
  await settled(async () => {
    await new Promise((done) => setTimeout(done, 50));
  });
  expect(told.at(-1)).toBe(1);
  told = [];
  await show("another", false);
  expect(told.at(-1)).toBe(0);
  expect(told.length).toBeLessThan(5);
  await settled(async () => root.unmount());
});
