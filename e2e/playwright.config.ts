import { defineConfig } from "@playwright/test";

export default defineConfig({
  testDir: ".",
  testIgnore: process.env.PLINTH_SHOTS ? [] : ["screenshots.spec.ts"],
  workers: 1,
  // What fails once and passes then is told as flaky at the end, to be looked into: a loaded machine alone stops nobody.
  retries: 1,
  // A slow machine is no fault: what waits for workers ends when nothing goes on any more.
  timeout: 900_000,
  expect: { timeout: 15_000 },
  reporter: [["list"]],
  outputDir: process.env.PLINTH_VAR ? `${process.env.PLINTH_VAR}/test-results` : "test-results",
  use: {
    actionTimeout: 30_000,
    baseURL: process.env.PLINTH_ADDRESS ?? "http://127.0.0.1:18081",
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      executablePath: "/usr/bin/chromium",
      args: [
        "--no-sandbox",
        "--disable-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
      ],
    },
  },
});
