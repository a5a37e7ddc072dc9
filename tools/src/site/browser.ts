import { existsSync } from "node:fs";

/** Debian's Chromium without a window, where it is installed: the same engine at a fifth less work. */
const HEADLESS_SHELL = "/usr/bin/chromium-headless-shell";
const CHROMIUM = "/usr/bin/chromium";

/** The browser that figures and pictures are made with. */
export const wholeBrowser = (): string => process.env.CHROMIUM ?? CHROMIUM;

/** The browser in which it is only seen that something works. */
export const quickBrowser = (): string =>
  process.env.CHROMIUM ?? (existsSync(HEADLESS_SHELL) ? HEADLESS_SHELL : CHROMIUM);
