import AxeBuilder from "@axe-core/playwright";
import { expect, test } from "@playwright/test";

const PASSWORD = "teal gravel outpaces noon";
const NEXT = "umber kettle drifts twice";

test("where one is signed in is seen and ended, and the password is changed", async ({ browser }) => {
  const [one, other] = [await browser.newContext(), await browser.newContext()];
  const [here, there] = [await one.newPage(), await other.newPage()];
  for (const page of [there, here]) {
    await page.goto("/");
    await page.getByLabel("E-mail").fill(" Editor@plinth.example ");
    await page.getByLabel("Password").fill(PASSWORD);
    await page.keyboard.press("Enter");
    await expect(page.getByRole("heading", { name: "Projects", exact: true })).toBeVisible();
  }
  await here.getByRole("button", { name: /Account of/ }).click();
  await here.getByRole("menuitem", { name: "Your account" }).click();
  const sessions = here.getByRole("region", { name: "Where you are signed in" }).getByRole("listitem");
  await expect(sessions.getByText("here", { exact: true })).toHaveCount(1);
  const before = await sessions.count();
  expect(before).toBeGreaterThanOrEqual(2);
  const { violations } = await new AxeBuilder({ page: here }).analyze();
  expect(violations.filter((v) => v.impact === "serious" || v.impact === "critical")).toEqual([]);

  // The other browser was the one before this: it comes second.
  await sessions.nth(1).getByRole("button", { name: "Sign out there" }).click();
  await expect(sessions).toHaveCount(before - 1);
  await there.reload();
  await expect(there.getByRole("button", { name: "Sign in" })).toBeVisible();

  const form = here.getByRole("form", { name: "Change the password" });
  const change = async (from: string, to: string) => {
    await form.getByLabel("Present password").fill(from);
    await form.getByLabel("New password").fill(to);
    await here.keyboard.press("Enter");
  };
  await change(PASSWORD, "password12345678");
  await expect(form.getByRole("alert")).toContainText("among the first that anybody would try");
  await change(PASSWORD, NEXT);
  await expect(form.getByRole("status")).toContainText("Everywhere else you are signed out");
  await expect(sessions).toHaveCount(1);
  await change(NEXT, PASSWORD); // as the other tests know it
  await expect(form.getByRole("status")).toBeVisible();
  await expect(form.getByLabel("New password")).toHaveValue("");

  await here.getByRole("button", { name: "Sign out everywhere" }).click();
  await expect(here.getByRole("button", { name: "Sign in" })).toBeVisible();
});
