import type { Locator, Page } from "@playwright/test";

/** s in which nothing at all goes on; a worker that is alive says so every few */
const STILL_MS = 120_000;

/** Waits for what workers do: as long as anything goes on, however slow the machine is. */
export async function until(page: Page, isSo: () => Promise<boolean>, words: string): Promise<void> {
  let known = "";
  let since = Date.now();
  while (!(await isSo())) {
    const now = await page.evaluate(async () => (await fetch("/api/work")).text());
    if (now !== known) [known, since] = [now, Date.now()];
    if (Date.now() - since > STILL_MS) throw new Error(`${words}, and nothing has gone on for two minutes.`);
    await page.waitForTimeout(150);
  }
}

/** Waits until workers have brought something to the screen, or taken it away. */
export function brought(page: Page, what: Locator, state: "visible" | "hidden" = "visible"): Promise<void> {
  const isSo = async () => (await what.first().isVisible()) === (state === "visible");
  return until(page, isSo, `${what} is not ${state}`);
}

/** Waits until every photograph has its straightened picture. */
export function straightened(page: Page): Promise<void> {
  const isSo = () =>
    page.evaluate(async () => {
      const project = location.href.match(/[0-9a-f-]{36}/)?.[0];
      const asked = await fetch(`/api/projects/${project}`);
      const { rows = [] } = asked.ok ? await asked.json() : {};
      const slanted = rows.filter(
        (r: { type: string; values: { m20?: number; m21?: number } }) => r.values.m20 || r.values.m21,
      );
      const pictures = slanted.map(async ({ id }: { id: string }) => {
        const told = await fetch(`/api/projects/${project}/drawings/${id}/rectified`);
        return told.ok && (await told.json()).picture !== null;
      });
      return slanted.length > 0 && (await Promise.all(pictures)).every(Boolean);
    });
  return until(page, isSo, "The picture is not straightened");
}
