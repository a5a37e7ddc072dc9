import { defineConfig } from "@playwright/test";
import { quickBrowser } from "../tools/src/site/browser";

/** Debian's Chromium, without background network requests. */
export const CHROMIUM_ARGS = [
  "--no-sandbox",
  "--disable-gpu",
  "--disable-background-networking",
  "--disable-component-update",
  "--disable-sync",
  "--no-first-run",
];
export const PHONE = { width: 390, height: 844 };
export const WIDE = { width: 1280, height: 800 };

export default defineConfig({
  testDir: "./tests",
  globalSetup: "./support/prepared.ts",
  outputDir: "../test-results",
  // A slow machine must not fail tests.
  timeout: 900_000,
  expect: { timeout: 60_000 },
  fullyParallel: false,
  // Six workers took a fifth longer on two processors, because each starts a browser and a server.
  workers: 3,
  forbidOnly: Boolean(process.env.CI),
  reporter: [["line"], ["json", { outputFile: "../.cravix/e2e.json" }]],
  use: {
    viewport: PHONE,
    // Service workers would cache the interface for every page: enabled only in tests that need them.
    serviceWorkers: "block",
    actionTimeout: 120_000,
    timezoneId: "UTC",
    locale: "en-GB",
    launchOptions: { executablePath: quickBrowser(), args: CHROMIUM_ARGS },
  },
});
