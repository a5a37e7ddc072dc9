import { readdirSync, readFileSync } from "node:fs";
import { join } from "node:path";
import { gzipSync } from "node:zlib";
import type { Page } from "@playwright/test";
import { WEB_ROOT } from "../../paths";
import { atMost, type Figure, plain } from "../figure";
import { newDevice, openDemoSite } from "./demo-site";

/** An almost empty application with the same libraries, exported the same way, gzipped: measured once, on these versions. */
const FLOOR_BYTES = 319_783;

const packed = (path: string) => gzipSync(readFileSync(path), { level: 9 }).length;

/** Gzipped bytes of all scripts this page has requested. */
async function scriptsFetched(page: Page): Promise<number> {
  const paths = await page.evaluate(() =>
    performance
      .getEntriesByType("resource")
      .map((entry) => new URL(entry.name))
      .filter((url) => url.origin === location.origin && url.pathname.endsWith(".js"))
      .map((url) => url.pathname),
  );
  return [...new Set(paths)].reduce((sum, path) => sum + packed(join(WEB_ROOT, path)), 0);
}

/** Bytes a device downloads for the first page, for a preflight, and in total for offline use. */
export async function firstLoad(): Promise<Figure[]> {
  const site = await openDemoSite();
  // Without prefetching: only what the page waits for.
  const context = await newDevice(
    site,
    { content: "window.requestIdleCallback = () => 0" },
    { serviceWorkers: "block" },
  );
  const page = await context.newPage();
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).waitFor();
  const first = await scriptsFetched(page);
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Start preflight" }).click();
  await page.getByText("Does it sit level?").waitFor();
  const preflight = await scriptsFetched(page);
  await site.close();
  const folder = join(WEB_ROOT, "_expo", "static", "js", "web");
  const all = readdirSync(folder)
    .filter((name) => name.endsWith(".js"))
    .reduce((sum, name) => sum + packed(join(folder, name)), 0);
  return [
    atMost(
      "JavaScript loaded before the first page is interactive, gzipped",
      first,
      "bytes",
      FLOOR_BYTES,
      1.35,
    ),
    plain("JavaScript loaded before a preflight has started, gzipped", preflight, "bytes", FLOOR_BYTES),
    plain("all JavaScript in the build, gzipped", all, "bytes", FLOOR_BYTES),
  ];
}
