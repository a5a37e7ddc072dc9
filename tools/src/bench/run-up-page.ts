import { openDemoSite } from "./demo-site";
import { type Figure, plain, quantile, within } from "./figure";

/** Ten minutes of lines at ten a second as in life, and again sent ten times as fast. */
const FAST = 10;
const MINUTE_MS = 60_000;
/** How long the page has to hold at the speed of life. */
const LIFE_MIN = 10;

/**
 * The live page with every needle drawn: the longest frame, and how the page's memory grows. The engine's trouble is one at which the coach waits for an
 * answer, so that the page goes on drawing.
 */
export async function runUpPage(): Promise<Figure[]> {
  const site = await openDemoSite();
  const context = await site.browser.newContext({ viewport: { width: 390, height: 844 } });
  await context.addInitScript({
    content:
      "globalThis.__name = (f) => f; window.frames = []; let last = 0; const tick = (t) => { if (last) window.frames.push(t - last); last = t; requestAnimationFrame(tick); }; requestAnimationFrame(tick);",
  });
  const page = await context.newPage();
  const devtools = await context.newCDPSession(page);
  const heap = async () => {
    await devtools.send("HeapProfiler.collectGarbage");
    return (await devtools.send("Runtime.getHeapUsage")).usedSize / 2 ** 20;
  };
  const frames = () => page.evaluate(() => (window as unknown as { frames: number[] }).frames);
  const anew = () =>
    page.evaluate(() => {
      (window as unknown as { frames: number[] }).frames = [];
    });
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Begin the walk" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await page.waitForTimeout(1000);
  const walk = page.url();
  // A page at rest, just as long: what the machine itself holds up.
  await anew();
  await page.waitForTimeout(MINUTE_MS);
  const still = await frames();
  const measure = async (speed: number, ms: number) => {
    await page.goto(`${walk}/run-up?fault=hot%20magneto&side=left&speed=${speed}&seed=3`);
    await page.getByTestId("way-live").click();
    await page.getByTestId("yes-on-it").waitFor({ timeout: 60_000 });
    await page.waitForTimeout(2000);
    const before = await heap();
    await page.waitForTimeout(500);
    await anew();
    await page.waitForTimeout(ms / 2);
    const early = await frames();
    const between = await heap();
    await page.waitForTimeout(500);
    await anew();
    await page.waitForTimeout(ms / 2);
    const all = [...early, ...(await frames())];
    return { all, first: between - before, second: (await heap()) - between };
  };
  const life = await measure(1, LIFE_MIN * MINUTE_MS);
  const fast = await measure(FAST, MINUTE_MS);
  await site.close();
  const longest = (all: number[]) => Math.max(...all);
  return [
    within(
      `live page, 12 needles at 10 Hz for ${LIFE_MIN} minutes: longest frame (baseline: the walk's page at rest for a minute)`,
      longest(life.all),
      "ms",
      longest(still),
      50,
    ),
    within(
      "the same, 99.9th percentile of its frames",
      quantile(life.all, 0.999),
      "ms",
      quantile(still, 0.999),
      50,
    ),
    plain(
      "live page, ten times as fast as life: 99.9th percentile of its frames",
      quantile(fast.all, 0.999),
      "ms",
      quantile(still, 0.999),
    ),
    plain(
      `live page, memory that the second ${LIFE_MIN / 2} of these minutes added (baseline: the first)`,
      life.second,
      "MiB",
      Math.max(0.01, life.first),
    ),
    plain(
      "live page, ten times as fast, memory that the second five minutes of lines added (baseline: the first five)",
      fast.second,
      "MiB",
      Math.max(0.01, fast.first),
    ),
  ];
}
