import type { Browser, BrowserContext, Page } from "@playwright/test";
import { atMost, type Figure, quantile } from "../figure";
import { so, TINY } from "../size";
import { openBarePage } from "./bare-page";
import { openDemoSite } from "./demo-site";

const TURNS = so(9, 1);
/** CPU slowdown to simulate a phone. */
const SLOWER = so(4, 1);

/** In-page script: milliseconds from the request until the element is painted. */
const watch = (selector: string) => `
  const look = () => {
    if (!document.querySelector(${JSON.stringify(selector)})) return requestAnimationFrame(look);
    const painted = new MessageChannel();
    painted.port1.onmessage = () => { window.answersAt = performance.now(); };
    requestAnimationFrame(() => painted.port2.postMessage(0));
  };
  requestAnimationFrame(look);`;

interface Opened {
  url: string;
  /** Element that shows the page is ready. */
  answers: string;
}

async function open(context: BrowserContext, { url, answers }: Opened): Promise<number> {
  const page = await context.newPage();
  await page.addInitScript(watch(answers));
  const client = await context.newCDPSession(page);
  await client.send("Emulation.setCPUThrottlingRate", { rate: SLOWER });
  await page.goto(url, { waitUntil: "commit" });
  const at = await page.waitForFunction(() => (window as unknown as { answersAt?: number }).answersAt, null, {
    polling: 50,
    timeout: 120_000,
  });
  const took = (await at.jsonValue()) as number;
  await page.close();
  return took;
}

/** First visit on this device. */
async function cold(browser: Browser, what: Opened): Promise<number> {
  const context = await browser.newContext({
    viewport: { width: 390, height: 844 },
    serviceWorkers: "block",
  });
  const took = await open(context, what);
  await context.close();
  return took;
}

async function kept(page: Page): Promise<void> {
  await page.evaluate(async () => {
    if (!navigator.serviceWorker.controller && !(await navigator.serviceWorker.getRegistration()))
      await navigator.serviceWorker.register("/sw.js");
    await navigator.serviceWorker.ready;
  });
  await page.waitForFunction(() => navigator.serviceWorker.controller !== null);
}

/** Later visit: everything comes from the service worker. */
async function visited(
  browser: Browser,
  { url }: Opened,
  settle: (page: Page) => Promise<void>,
): Promise<BrowserContext> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  const page = await context.newPage();
  await page.goto(url);
  await settle(page);
  await kept(page);
  await page.close();
  return context;
}

/**
 * Time from the request to a responsive first page with a CPU slowed four times, compared with an almost empty page of the same
 * stack: on a first and a later visit. Alternating, so that machine noise affects both.
 */
export async function opening(): Promise<Figure[]> {
  const site = await openDemoSite();
  const bare = await openBarePage(site.url);
  const button = "[data-testid=primary]";
  // On a new device the first page asks who is flying.
  const ours: Opened = { url: site.url, answers: "[data-testid=who-flies]" };
  const theirs: Opened = { url: bare.url, answers: TINY ? "[data-testid=who-flies]" : button };
  const times: Record<"cold" | "coldBare" | "warm" | "warmBare", number[]> = {
    cold: [],
    coldBare: [],
    warm: [],
    warmBare: [],
  };
  const there = await visited(site.browser, ours, async (page) => {
    await page.getByRole("button", { name: /Inês/ }).click();
    await page.getByRole("button", { name: "Prepare QX-TAR" }).waitFor();
  });
  const thereBare = await visited(site.browser, theirs, async (page) => {
    await page.locator(theirs.answers).first().waitFor();
  });
  const again: Opened = { url: site.url, answers: `${button}:not([aria-disabled])` };
  for (let turn = 0; turn < TURNS; turn++) {
    times.cold.push(await cold(site.browser, ours));
    times.coldBare.push(await cold(site.browser, theirs));
    times.warm.push(await open(there, again));
    times.warmBare.push(await open(thereBare, theirs));
  }
  await bare.close();
  await site.close();
  const median = (values: readonly number[]) => quantile(values, 0.5);
  return [
    atMost(
      "first start-up on a new device, CPU slowed four times, median",
      median(times.cold),
      "ms",
      median(times.coldBare),
      1.3,
    ),
    atMost(
      "start-up from the service worker, CPU slowed four times, median",
      median(times.warm),
      "ms",
      median(times.warmBare),
      1.4,
    ),
  ];
}
