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
 * Script for every benchmark page: the compiler wraps inner functions with a helper the page lacks, and a page in the background
 * must not count as an interruption.
 */
export const PAGE_SCRIPT = {
  content:
    "globalThis.__name = (f) => f; Object.defineProperty(document, 'visibilityState', { get: () => 'visible' })",
};

let shared: Promise<DemoSite> | undefined;

/** The built interface with the demo on its own database, and a browser. In a trial run all parts share one. */
export async function openDemoSite(): Promise<DemoSite> {
  if (!TINY) return openOwnSite();
  shared ??= openOwnSite();
  const site = await shared;
  // Pages still open keep drawing as long as the browser runs.
  const close = async () =>
    void (await Promise.all(site.browser.contexts().map((context) => context.close())));
  return { ...site, close };
}

/** A phone's first visit. In a trial run without prefetching and caching. */
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

/** Closes the shared site. */
export async function closeSharedSite(): Promise<void> {
  await (await shared)?.close();
}

async function openOwnSite(): Promise<DemoSite> {
  const running = await benchDatabase();
  // Its own schema, without data of earlier versions.
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

/** Minimum cost of a tap: a button and a number, without a framework. */
export const BARE = `<button data-testid="bare" onclick="const n = this.firstElementChild; n.textContent = String(Number(n.textContent) + 1)">
  <span data-testid="bare-count">0</span></button>`;
