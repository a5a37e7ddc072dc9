import { bestOrder } from "@cravix/core/route/best-order";
import { routeProblem } from "@cravix/core/route/route-problem";
import { group } from "@cravix/demo";
import type { CDPSession, Page } from "@playwright/test";
import { newDevice, openDemoSite } from "../app/demo-site";
import { type Figure, plain, quantile, within } from "../figure";
import { so } from "../size";

/** The radial has sixteen stations: the maximum for the exact search. */
const REGISTRATION = "QX-COR";
const TURNS = so(12, 1);
const ANSWERS = so(60, 2);

interface Search {
  ms: number;
  /** Longest time the page was blocked during the search. */
  blockedMs: number;
}

/** One search in the worker, with a timer in the page that detects blocking. */
async function search(page: Page): Promise<Search> {
  await page.getByRole("button", { name: "Route" }).click();
  await page.getByText("All orders compared").waitFor();
  const found = await page.evaluate(() => {
    const entry = performance.getEntriesByName("lap search").at(-1);
    const ticks = (window as unknown as { ticks: number[] }).ticks;
    if (!entry) throw new Error("no search was measured");
    const end = entry.startTime + entry.duration;
    const inside = ticks.filter((at) => at >= entry.startTime && at <= end);
    const gaps = [entry.startTime, ...inside, end].map((at, i, all) => at - (all[i - 1] ?? at));
    return { ms: entry.duration, blockedMs: Math.max(...gaps) };
  });
  await page.getByRole("button", { name: "Back" }).click();
  await page.getByRole("button", { name: "Start preflight" }).waitFor();
  return found;
}

async function heapMiB(client: CDPSession): Promise<number> {
  await client.send("HeapProfiler.collectGarbage");
  const { metrics } = await client.send("Performance.getMetrics");
  return (metrics.find((metric) => metric.name === "JSHeapUsedSize")?.value ?? Number.NaN) / 2 ** 20;
}

/** Exact search in the worker compared with Node's main thread; and memory of a preflight compared with a bare page. */
export async function routeSearch(): Promise<Figure[]> {
  const site = await openDemoSite();
  const context = await newDevice(site, {
    content:
      "globalThis.__name = (f) => f; window.ticks = []; { const c = new MessageChannel(); c.port1.onmessage = () => { const t = performance.now(); if (t - (window.ticks.at(-1) ?? 0) > 1) window.ticks.push(t); setTimeout(() => c.port2.postMessage(0), 1); }; c.port2.postMessage(0); }",
  });
  const page = await context.newPage();
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: new RegExp(`^${REGISTRATION}`) }).click();
  await page.getByRole("button", { name: `Prepare ${REGISTRATION}` }).click();
  await page.getByRole("button", { name: "Start preflight" }).waitFor();
  const searches: Search[] = [];
  for (let i = 0; i < TURNS; i++) searches.push(await search(page));

  const type = group.find((g) => g.aircraft.registration === REGISTRATION)?.type;
  const problem = type && routeProblem(type);
  if (!problem) throw new Error("the radial has no walkaround route");
  const onNode = Array.from({ length: TURNS }, () => {
    const from = performance.now();
    bestOrder(problem);
    return performance.now() - from;
  });

  // Memory after a few dozen answers, compared with an almost empty page of the same build.
  await page.getByRole("button", { name: "Start preflight" }).click();
  for (let i = 0; i < ANSWERS; i++) {
    const later = page.getByRole("button", { name: "Postpone" });
    await later.waitFor();
    await later.click();
  }
  const client = await context.newCDPSession(page);
  await client.send("Performance.enable");
  const walking = await heapMiB(client);
  // The same build with only the first page.
  const first = await context.newPage();
  await first.goto(site.url);
  await first.getByTestId("primary").waitFor();
  const firstClient = await context.newCDPSession(first);
  await firstClient.send("Performance.enable");
  const empty = await heapMiB(firstClient);

  await site.close();
  const ms = searches.map((s) => s.ms);
  return [
    within(
      "exact order of 16 stations in the worker, median",
      quantile(ms, 0.5),
      "ms",
      quantile(onNode, 0.5),
      150,
    ),
    within(
      "longest main-thread block during the search",
      Math.max(...searches.map((s) => s.blockedMs)),
      "ms",
      1000 / 60,
      50,
    ),
    plain(
      `memory of the page after ${ANSWERS} answered items (baseline: the first page)`,
      walking,
      "MiB",
      empty,
    ),
  ];
}
