import { openDemoSite } from "./demo-site";
import { type Figure, plain, within } from "./figure";

const FRAME_MS = 1000 / 60;
/** Ten minutes of lines at ten a second, sent ten times as fast; and a minute as it is in life. */
const FAST = 10;
const MINUTE_MS = 60_000;

/**
 * The live page with every needle drawn: the longest frame, and how the page's memory grows. The engine's trouble is one at which the coach waits for an
 * answer, so that the page goes on drawing.
 */
export async function runUpPage(): Promise<Figure[]> {
  const site = await openDemoSite();
  const context = await site.browser.newContext({ viewport: { width: 390, height: 844 } });
  await context.addInitScript({
    content:
      "globalThis.__name = (f) => f; window.worst = 0; let last = 0; const tick = (t) => { if (last && t - last > window.worst) window.worst = t - last; last = t; requestAnimationFrame(tick); }; requestAnimationFrame(tick);",
  });
  const page = await context.newPage();
  const devtools = await context.newCDPSession(page);
  const heap = async () => {
    await devtools.send("HeapProfiler.collectGarbage");
    return (await devtools.send("Runtime.getHeapUsage")).usedSize / 2 ** 20;
  };
  const worst = () => page.evaluate(() => (window as unknown as { worst: number }).worst);
  const anew = () =>
    page.evaluate(() => {
      (window as unknown as { worst: number }).worst = 0;
    });
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Begin the walk" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await page.waitForTimeout(1000);
  const walk = page.url();
  await anew();
  await page.waitForTimeout(3000);
  const still = await worst();
  const measure = async (speed: number, ms: number) => {
    await page.goto(`${walk}/run-up?fault=hot%20magneto&side=left&speed=${speed}&seed=3`);
    await page.getByTestId("way-live").click();
    await page.getByTestId("yes-on-it").waitFor({ timeout: 60_000 });
    await page.waitForTimeout(2000);
    const before = await heap();
    await anew();
    await page.waitForTimeout(ms / 2);
    const frames = await worst();
    const between = await heap();
    await anew();
    await page.waitForTimeout(ms / 2);
    return {
      frame: Math.max(frames, await worst()),
      first: between - before,
      second: (await heap()) - between,
    };
  };
  const life = await measure(1, MINUTE_MS);
  const fast = await measure(FAST, MINUTE_MS);
  await site.close();
  return [
    within(
      "live page, 12 needles at 10 Hz for a minute: longest frame (baseline: the walk's page at rest)",
      life.frame,
      "ms",
      still,
      50,
    ),
    within(
      "live page, ten minutes of lines in one: longest frame (baseline: one frame)",
      fast.frame,
      "ms",
      FRAME_MS,
      50,
    ),
    plain(
      "live page, memory that the second five minutes of lines added (baseline: the first five)",
      fast.second,
      "MiB",
      Math.max(0.01, fast.first),
    ),
  ];
}
