import { existsSync } from "node:fs";

/** Debian's headless shell, if installed: the same engine with a fifth less CPU time. */
const HEADLESS_SHELL = "/usr/bin/chromium-headless-shell";
const CHROMIUM = "/usr/bin/chromium";

/** Browser for figures and pictures. */
export const wholeBrowser = (): string => process.env.CHROMIUM ?? CHROMIUM;

/** Browser for tests. */
export const quickBrowser = (): string =>
  process.env.CHROMIUM ?? (existsSync(HEADLESS_SHELL) ? HEADLESS_SHELL : CHROMIUM);
