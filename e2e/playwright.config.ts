import { defineConfig } from "@playwright/test";
import { quickBrowser } from "../tools/src/site/browser";

/** Debian's own Chromium, with everything off that would ask the network for something. */
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
  // A machine that does other things beside is slow, not wrong.
  timeout: 900_000,
  expect: { timeout: 60_000 },
  fullyParallel: false,
  // Six kept two processors as busy and took a fifth longer: each has a browser and a server of its own that grow warm.
  workers: 3,
  forbidOnly: Boolean(process.env.CI),
  reporter: [["line"], ["json", { outputFile: "../.cravix/e2e.json" }]],
  use: {
    viewport: PHONE,
    // What keeps the interface on the device is fetched once for every page: only where it is wanted.
    serviceWorkers: "block",
    actionTimeout: 120_000,
    timezoneId: "UTC",
    locale: "en-GB",
    launchOptions: { executablePath: quickBrowser(), args: CHROMIUM_ARGS },
  },
});
