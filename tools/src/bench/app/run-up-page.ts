import type { Page } from "@playwright/test";
import { type Figure, plain, quantile, within } from "../figure";
import { so, TINY } from "../size";
import { type DemoSite, newDevice, openDemoSite } from "./demo-site";
import { ownWork, type WorkOfFrame } from "./own-work";
import { watchStolenTime } from "./stolen-cpu-time";

/** Ten minutes of samples at ten per second, and twenty-five at ten times the rate: more than are kept. */
const LIFE = { speed: so(1, 10), minutes: so(10, 0.1) };
const FAST = { speed: 10, minutes: so(2.5, 0.1) };
/** Number of memory readings. */
const READINGS = so(10, 2);
/** Maximum growth between the medians of both halves. A page that kept every sample grew by twice that in five minutes. */
const FLAT_MIB = 1;

/** A frame: end time and duration, milliseconds. */
interface Frame {
  at: number;
  ms: number;
}

/** All frames of a page, and those with more than 50 ms of its own work. */
interface Kept {
  frames: Frame[];
  long: Frame[];
}

const EMPTY = "window.kept = { frames: [], long: [] }";
/** Runs in the page. "long-animation-frame" is the browser's record of frames with more than 50 ms of main-thread work. */
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
 * The live page with every channel drawn: longest frame, own work in it, and memory growth. The simulated fault keeps the coach
 * waiting, so that drawing continues, which is checked at the end. Baseline: an idle page at the same time, which shows the
 * machine's own delays.
 */
export async function runUpPage(): Promise<Figure[]> {
  const site = await openDemoSite();
  const machine = watchStolenTime();
  const rest = await startedPreflight(site);
  const live = await startedPreflight(site);
  const { page } = live;
  const pages = [page, rest.page];
  const devtools = await page.context().newCDPSession(page);
  const heap = async () => {
    await devtools.send("HeapProfiler.collectGarbage");
    // Typed arrays are outside the heap and count too.
    const { usedSize, backingStorageSize } = await devtools.send("Runtime.getHeapUsage");
    return (usedSize + backingStorageSize) / 2 ** 20;
  };
  const measure = async ({ speed, minutes }: { speed: number; minutes: number }) => {
    await page.goto(`${live.url}/run-up?fault=hot%20magneto&side=left&speed=${speed}&seed=3`);
    await page.getByTestId("way-live").click();
    const asked = page.getByTestId("coach-confirm-side");
    await asked.waitFor({ timeout: 120_000 });
    await page.waitForTimeout(2000);
    const kept: Kept[] = pages.map(() => ({ frames: [], long: [] }));
    const works: WorkOfFrame[][] = pages.map(() => []);
    const heaps: number[] = [];
    for (let i = 0; i < READINGS; i++) {
      heaps.push(await heap());
      await page.waitForTimeout(500);
      for (const one of pages) await one.evaluate(EMPTY);
      const work = await ownWork(site.browser, pages, (minutes * 60_000) / READINGS);
      const only = (frames: Frame[]) =>
        frames.filter((frame) => work.undisturbed(frame.at - frame.ms, frame.at));
      for (const [at, one] of pages.entries()) {
        const { frames, long } = await savedBy(one);
        kept[at]?.frames.push(...only(frames));
        kept[at]?.long.push(...only(long));
        works[at]?.push(...(work.frames[at] ?? []));
      }
    }
    heaps.push(await heap());
    if (!(await asked.isVisible())) throw new Error("The live run-up page did not reach the end.");
    const [moving, still] = kept as [Kept, Kept];
    const [work, idle] = works as [WorkOfFrame[], WorkOfFrame[]];
    return { ...moving, still: still.frames, work, idle, heaps };
  };
  const life = await measure(LIFE);
  // Once is enough in a trial run.
  const fast = TINY ? life : await measure(FAST);
  machine.stop();
  await site.close();
  const longest = (frames: readonly { ms: number }[]) => Math.max(0, ...frames.map(({ ms }) => ms));
  const calm = (frames: Frame[]) => frames.filter(({ at, ms }) => machine.calm(at - ms, at));
  const calmWork = (frames: WorkOfFrame[]) => frames.filter(({ from, to }) => machine.calm(from, to));
  const at = (part: number, frames: readonly { ms: number }[]) =>
    quantile(
      frames.map(({ ms }) => ms),
      part,
    );
  const named = (words: string) =>
    `live run-up page, 12 gauges at 10 Hz for ${LIFE.minutes} minutes, ${words}`;
  const REST = "(baseline: an idle preflight page in the same run)";
  const TAKEN = "without CPU time stolen by the host:";
  return [
    within(
      named(`${TAKEN} longest frame, wall clock ${REST}`),
      longest(calm(life.frames)),
      "ms",
      longest(calm(life.still)),
      50,
    ),
    within(
      named(`${TAKEN} frames with a main-thread block over 50 ms (baseline: all frames)`),
      calm(life.long).length,
      "frames",
      calm(life.frames).length,
      0,
    ),
    within(
      named(`${TAKEN} CPU time of the page in its slowest frame ${REST}`),
      longest(calmWork(life.work)),
      "ms",
      longest(calmWork(life.idle)),
      50,
    ),
    plain(
      named("frames without stolen CPU time (baseline: all frames)"),
      calm(life.frames).length,
      "frames",
      life.frames.length,
    ),
    plain(
      named(`including stolen CPU time: longest frame, wall clock ${REST}`),
      longest(life.frames),
      "ms",
      longest(life.still),
    ),
    plain(
      named(`including stolen CPU time: 99.9th percentile, wall clock ${REST}`),
      at(0.999, life.frames),
      "ms",
      at(0.999, life.still),
    ),
    plain(
      named(`including stolen CPU time: CPU time of the page in its slowest frame ${REST}`),
      longest(life.work),
      "ms",
      longest(life.idle),
    ),
    plain(
      named(`including stolen CPU time: CPU time of the page, 99.9th percentile ${REST}`),
      at(0.999, life.work),
      "ms",
      at(0.999, life.idle),
    ),
    within(
      `live run-up page at ${FAST.speed} times real time, ${TAKEN} CPU time of the page in its slowest frame ${REST}`,
      longest(calmWork(fast.work)),
      "ms",
      longest(calmWork(fast.idle)),
      50,
    ),
    growth(named("memory growth, second half against first (baseline: spread of the samples)"), life.heaps),
    growth(
      `live run-up page, ${FAST.speed * FAST.minutes} minutes of data in ${FAST.minutes}: memory growth, second half against first (baseline: spread of the samples)`,
      fast.heaps,
    ),
  ];
}

/** Growth between the medians of both halves of readings, without the first, at page start. */
function growth(name: string, [, ...heaps]: number[]): Figure {
  const half = Math.floor(heaps.length / 2);
  const middle = (some: number[]) => quantile(some, 0.5);
  const apart = Math.max(...heaps) - Math.min(...heaps);
  return within(name, middle(heaps.slice(-half)) - middle(heaps.slice(0, half)), "MiB", apart, FLAT_MIB);
}

/** A preflight just started, on a new device. */
async function startedPreflight(site: DemoSite): Promise<{ page: Page; url: string }> {
  const context = await newDevice(site, { content: KEEP_FRAMES });
  const page = await context.newPage();
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Start preflight" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await page.waitForTimeout(1000);
  return { page, url: page.url() };
}

/** Frames recorded by a page, copied out of it. */
function savedBy(page: Page): Promise<Kept> {
  return page.evaluate<Kept>(`(() => { const kept = window.kept; ${EMPTY}; return kept; })()`);
}
