import { openDemoSite } from "./demo-site";
import { type Figure, plain, quantile, within } from "./figure";

/** Ten minutes of lines at ten a second as in life, and again sent ten times as fast. */
const FAST = 10;
const MINUTE_MS = 60_000;
/** How long the page has to hold at the speed of life. */
const LIFE_MIN = 10;

/** What a page kept of its own frames: how long each took, and those in which its own work took more than 50 ms. */
interface Kept {
  frames: number[];
  long: { at: number; ms: number; scripts: string[] }[];
}

/** Runs in the page. "long-animation-frame" is the browser's own record of a frame whose work on the page's thread took more than 50 ms. */
const KEEP_FRAMES = `
  globalThis.__name = (f) => f;
  window.kept = { frames: [], long: [] };
  let last = 0;
  const tick = (t) => { if (last) window.kept.frames.push(t - last); last = t; requestAnimationFrame(tick); };
  requestAnimationFrame(tick);
  new PerformanceObserver((list) => {
    for (const { startTime, duration, scripts } of list.getEntries())
      window.kept.long.push({ at: startTime, ms: duration, scripts: scripts.map((s) => s.invoker + " " + Math.round(s.duration)) });
  }).observe({ type: "long-animation-frame" });`;

/**
 * The live page with every needle drawn: the longest frame, whose work it was, and how the page's memory grows. The engine's trouble is one at which the
 * coach waits for an answer, so that the page goes on drawing. The baseline is a page at rest, watched just as long: what the machine itself holds up.
 */
export async function runUpPage(): Promise<Figure[]> {
  const site = await openDemoSite();
  const context = await site.browser.newContext({ viewport: { width: 390, height: 844 } });
  await context.addInitScript({ content: KEEP_FRAMES });
  const page = await context.newPage();
  const devtools = await context.newCDPSession(page);
  const heap = async () => {
    await devtools.send("HeapProfiler.collectGarbage");
    return (await devtools.send("Runtime.getHeapUsage")).usedSize / 2 ** 20;
  };
  /** What the page keeps from now on, for so long. */
  const watch = async (ms: number): Promise<Kept> => {
    await page.waitForTimeout(500);
    await page.evaluate(() => {
      (window as unknown as { kept: Kept }).kept = { frames: [], long: [] };
    });
    await page.waitForTimeout(ms);
    const kept = await page.evaluate(() => (window as unknown as { kept: Kept }).kept);
    console.error(
      "DBG",
      kept.frames.filter((f) => f > 40),
      JSON.stringify(kept.long),
    );
    return kept;
  };
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Begin the walk" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await page.waitForTimeout(1000);
  const walk = page.url();
  const still = await watch(LIFE_MIN * MINUTE_MS);
  const measure = async (speed: number, ms: number) => {
    await page.goto(`${walk}/run-up?fault=hot%20magneto&side=left&speed=${speed}&seed=3`);
    await page.getByTestId("way-live").click();
    await page.getByTestId("yes-on-it").waitFor({ timeout: 60_000 });
    await page.waitForTimeout(2000);
    const before = await heap();
    const early = await watch(ms / 2);
    const between = await heap();
    const late = await watch(ms / 2);
    return {
      frames: [...early.frames, ...late.frames],
      long: [...early.long, ...late.long],
      first: between - before,
      second: (await heap()) - between,
    };
  };
  const life = await measure(1, LIFE_MIN * MINUTE_MS);
  const fast = await measure(FAST, MINUTE_MS);
  await site.close();
  const longest = ({ frames }: Pick<Kept, "frames">) => Math.max(...frames);
  return [
    within(
      `live page, 12 needles at 10 Hz for ${LIFE_MIN} minutes: longest frame (baseline: the walk's page at rest, as long)`,
      longest(life),
      "ms",
      longest(still),
      50,
    ),
    within(
      "the same, frames in which the page's own work took over 50 ms (baseline: all its frames)",
      life.long.length,
      "frames",
      life.frames.length,
      0,
    ),
    within(
      "the same, 99.9th percentile of its frames",
      quantile(life.frames, 0.999),
      "ms",
      quantile(still.frames, 0.999),
      50,
    ),
    plain(
      "live page, ten times as fast as life: 99.9th percentile of its frames",
      quantile(fast.frames, 0.999),
      "ms",
      quantile(still.frames, 0.999),
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
