import { listen, migrateDatabase, openDatabase } from "@cravix/server";
import { type Browser, type BrowserContext, type BrowserContextOptions, chromium } from "@playwright/test";
import mysql from "mysql2/promise";
import pino from "pino";
import { WEB_ROOT } from "../../paths";
import { quickBrowser, wholeBrowser } from "../../site/browser";
import { NOTHING_AHEAD } from "../../site/disable-prefetch";
import { loadDemoIfEmpty } from "../../site/load-demo";
import { benchDatabase } from "../bench-database";
import { TINY } from "../size";

export interface DemoSite {
  url: string;
  browser: Browser;
  close(): Promise<void>;
}

/**
 * What every page of a benchmark begins with: the compiler that runs these files names inner functions with a helper that the page does not have;
 * and a page that another is measured beside has not been left by its pilot.
 */
export const PAGE_SCRIPT = {
  content:
    "globalThis.__name = (f) => f; Object.defineProperty(document, 'visibilityState', { get: () => 'visible' })",
};

let shared: Promise<DemoSite> | undefined;

/**
 * The built interface with the demo on a database of the benchmark's own, and a browser to measure it in. Run through once, where nothing is
 * measured, all share one.
 */
export async function openDemoSite(): Promise<DemoSite> {
  if (!TINY) return openOwnSite();
  shared ??= openOwnSite();
  const site = await shared;
  // What is still open goes on drawing for as long as the browser is there.
  const close = async () =>
    void (await Promise.all(site.browser.contexts().map((context) => context.close())));
  return { ...site, close };
}

/** A phone that has not been here before. Run through once, it fetches and keeps nothing ahead: nobody looks at that there. */
export async function newDevice(
  { browser }: DemoSite,
  script?: { content: string },
  more: BrowserContextOptions = {},
): Promise<BrowserContext> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    ...(TINY && { serviceWorkers: "block" }),
    ...more,
  });
  if (TINY) await context.addInitScript(NOTHING_AHEAD);
  if (script) await context.addInitScript(script);
  return context;
}

/** Closes the one that was shared. */
export async function closeSharedSite(): Promise<void> {
  await (await shared)?.close();
}

async function openOwnSite(): Promise<DemoSite> {
  const running = await benchDatabase();
  // A schema of its own: what an earlier version loaded is not measured.
  const name = `cravix_site_${process.pid}`;
  const admin = await mysql.createConnection(running.options);
  await admin.query(`CREATE DATABASE ${name} CHARACTER SET utf8mb4 COLLATE utf8mb4_bin`);
  const database = openDatabase({ ...running.options, database: name });
  await migrateDatabase(database);
  await loadDemoIfEmpty(database, new Date());
  const logger = pino({ level: "silent" });
  const web = await listen({ database, logger, webRoot: WEB_ROOT }, 0, "127.0.0.1");
  const browser = await chromium.launch({
    executablePath: TINY ? quickBrowser() : wholeBrowser(),
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
      "--no-first-run",
    ],
  });
  return {
    url: `http://localhost:${web.port}`,
    browser,
    close: async () => {
      await browser.close();
      await web.close();
      await database.close();
      await admin.query(`DROP DATABASE ${name}`);
      await admin.end();
      await running.stop();
    },
  };
}

/** The least that a tap can cost: a button and a number, without a framework. */
export const BARE = `<button data-testid="bare" onclick="const n = this.firstElementChild; n.textContent = String(Number(n.textContent) + 1)">
  <span data-testid="bare-count">0</span></button>`;
