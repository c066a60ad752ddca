import type { Locator, Page } from "@playwright/test";

/** s in which nothing at all goes on; a worker that is alive says so every few */
const STILL_MS = 120_000;

/** Waits until workers have brought something to the screen, or taken it away: as long as anything goes on, however slow the machine is. */
export async function brought(page: Page, what: Locator, state: "visible" | "hidden" = "visible"): Promise<void> {
  let known = "";
  let since = Date.now();
  while ((await what.first().isVisible()) !== (state === "visible")) {
    const now = await page.evaluate(async () => (await fetch("/api/work")).text());
    if (now !== known) [known, since] = [now, Date.now()];
    if (Date.now() - since > STILL_MS)
      throw new Error(`${what} is not ${state}, and nothing has gone on for two minutes.`);
    await page.waitForTimeout(150);
  }
}
