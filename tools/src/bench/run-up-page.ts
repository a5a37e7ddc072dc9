import type { Page } from "@playwright/test";
import { type DemoSite, openDemoSite } from "./demo-site";
import { type Figure, plain, quantile, within } from "./figure";
import { watchStolenTime } from "./stolen-time";

/** Ten minutes of lines at ten a second as in life, and again sent ten times as fast. */
const FAST = 10;
const MINUTE_MS = 60_000;
/** How long the page has to hold at the speed of life. */
const LIFE_MIN = 10;

/** A frame: when it ended, milliseconds of the clock, and how long it took. */
interface Frame {
  at: number;
  ms: number;
}

/** What a page kept: all its frames, and those in which its own work took more than 50 ms. */
interface Kept {
  frames: Frame[];
  long: Frame[];
}

const EMPTY = "window.kept = { frames: [], long: [] }";
/** Runs in the page. "long-animation-frame" is the browser's own record of a frame whose work on the page's thread took more than 50 ms. */
const KEEP_FRAMES = `
  globalThis.__name = (f) => f;
  ${EMPTY};
  const clock = (t) => performance.timeOrigin + t;
  let last = 0;
  const tick = (t) => { if (last) window.kept.frames.push({ at: clock(t), ms: t - last }); last = t; requestAnimationFrame(tick); };
  requestAnimationFrame(tick);
  new PerformanceObserver((list) => {
    for (const { startTime, duration } of list.getEntries()) window.kept.long.push({ at: clock(startTime + duration), ms: duration });
  }).observe({ type: "long-animation-frame" });`;

/**
 * The live page with every needle drawn: the longest frame, whose work it was, and how the page's memory grows. The engine's trouble is one at which the
 * coach waits for an answer, so that the page goes on drawing; that it still does at the end is looked at. The baseline is a page at rest beside it in the
 * same minutes: what the machine itself holds up.
 */
export async function runUpPage(): Promise<Figure[]> {
  const site = await openDemoSite();
  const machine = watchStolenTime();
  const rest = await begunWalk(site);
  const live = await begunWalk(site);
  const { page } = live;
  const devtools = await page.context().newCDPSession(page);
  const heap = async () => {
    await devtools.send("HeapProfiler.collectGarbage");
    return (await devtools.send("Runtime.getHeapUsage")).usedSize / 2 ** 20;
  };
  /** What both pages keep from now on, for so long. */
  const watch = async (ms: number): Promise<{ live: Kept; rest: Kept }> => {
    await page.waitForTimeout(500);
    for (const one of [rest, live]) await one.page.evaluate(EMPTY);
    await page.waitForTimeout(ms);
    return { live: await keptBy(page), rest: await keptBy(rest.page) };
  };
  const measure = async (speed: number, ms: number) => {
    await page.goto(`${live.url}/run-up?fault=hot%20magneto&side=left&speed=${speed}&seed=3`);
    await page.getByTestId("way-live").click();
    const asked = page.getByTestId("yes-on-it");
    await asked.waitFor({ timeout: 60_000 });
    await page.waitForTimeout(2000);
    const before = await heap();
    const early = await watch(ms / 2);
    const between = await heap();
    const late = await watch(ms / 2);
    const after = await heap();
    if (!(await asked.isVisible())) throw new Error("The live page did not go on to the end.");
    return {
      frames: [...early.live.frames, ...late.live.frames],
      long: [...early.live.long, ...late.live.long],
      still: [...early.rest.frames, ...late.rest.frames],
      first: between - before,
      second: after - between,
    };
  };
  const life = await measure(1, LIFE_MIN * MINUTE_MS);
  const fast = await measure(FAST, MINUTE_MS);
  machine.stop();
  await site.close();
  const longest = (frames: Frame[]) => Math.max(0, ...frames.map(({ ms }) => ms));
  const calm = (frames: Frame[]) => frames.filter(({ at, ms }) => machine.calm(at - ms, at));
  const most = (frames: Frame[]) =>
    quantile(
      frames.map(({ ms }) => ms),
      0.999,
    );
  return [
    plain(
      `live page, 12 needles at 10 Hz for ${LIFE_MIN} minutes: longest frame, whatever the machine did (baseline: the walk's page at rest beside it)`,
      longest(life.frames),
      "ms",
      longest(life.still),
    ),
    plain(
      "the same, share of its frames at which the machine took nothing away (baseline: all of them)",
      calm(life.frames).length,
      "frames",
      life.frames.length,
    ),
    within(
      "the same, longest of those (baseline: those of the page at rest)",
      longest(calm(life.frames)),
      "ms",
      longest(calm(life.still)),
      50,
    ),
    within(
      "the same, those in which the page's own work took over 50 ms (baseline: all those)",
      calm(life.long).length,
      "frames",
      calm(life.frames).length,
      0,
    ),
    within("the same, 99.9th percentile of all frames", most(life.frames), "ms", most(life.still), 50),
    plain(
      "live page, ten times as fast as life: 99.9th percentile of its frames",
      most(fast.frames),
      "ms",
      most(fast.still),
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

/** A walk that was just begun, on a device of its own. */
async function begunWalk({ browser, url }: DemoSite): Promise<{ page: Page; url: string }> {
  const context = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await context.addInitScript({ content: KEEP_FRAMES });
  const page = await context.newPage();
  await page.goto(url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Begin the walk" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await page.waitForTimeout(1000);
  return { page, url: page.url() };
}

/** What a page kept, which is no longer its own memory then. */
function keptBy(page: Page): Promise<Kept> {
  return page.evaluate<Kept>(`(() => { const kept = window.kept; ${EMPTY}; return kept; })()`);
}
