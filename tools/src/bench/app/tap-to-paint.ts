import type { Page } from "@playwright/test";
import { atMost, type Figure, quantile } from "../figure";
import { so } from "../size";
import { BARE, newDevice, openDemoSite, PAGE_SCRIPT } from "./demo-site";

const TURNS = so(8, 1);
const TAPS_A_TURN = so(40, 3);
/** Warm-up taps after navigation. */
const WARM_UP = so(5, 1);

/** Milliseconds from a tap to the frame after the watched text appears. */
function tap(page: Page, target: string, watched: string): Promise<number> {
  return page.evaluate(
    ([targetSelector, watchedSelector]) =>
      new Promise<number>((resolve, reject) => {
        const button = document.querySelector<HTMLElement>(targetSelector);
        const text = () => document.querySelector(watchedSelector)?.textContent;
        const before = text();
        if (!button || before === undefined)
          return reject(new Error(`no element matches ${targetSelector} or ${watchedSelector}`));
        // Both are tapped at the same point between frames.
        requestAnimationFrame(() =>
          setTimeout(() => {
            const from = performance.now();
            button.click();
            const look = () => {
              if (text() === before) requestAnimationFrame(look);
              else {
                const painted = new MessageChannel();
                painted.port1.onmessage = () => resolve(performance.now() - from);
                painted.port2.postMessage(0);
              }
            };
            requestAnimationFrame(look);
          }, 2),
        );
      }),
    [target, watched] as const,
  );
}

/** Time from an answer to the painted next item, compared with a bare button in the same browser. */
export async function tapToPaint(): Promise<Figure[]> {
  const site = await openDemoSite();
  const context = await newDevice(site, PAGE_SCRIPT);
  const page = await context.newPage();
  const { url } = site;
  await page.goto(url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Start preflight" }).click();
  await page.getByText("Does it sit level?").waitFor();
  const preflight: number[] = [];
  const undo = async () => {
    const before = await page.getByRole("heading", { level: 1 }).innerText();
    await page.getByRole("button", { name: "Undo" }).click();
    await page.waitForFunction(
      (title) => document.querySelector("[role=heading][aria-level='1'], h1")?.textContent !== title,
      before,
    );
  };
  const barePage = await context.newPage();
  await barePage.setContent(BARE);
  await barePage.getByTestId("bare").waitFor();
  const bare: number[] = [];
  // Alternating, so that machine noise affects both; only the page in front is painted.
  for (let turn = 0; turn < TURNS; turn++) {
    await page.bringToFront();
    for (let i = 0; i < WARM_UP + TAPS_A_TURN; i++) {
      const took = await tap(page, "[data-testid=primary]", "h1");
      if (i >= WARM_UP) preflight.push(took);
      await undo();
    }
    await barePage.bringToFront();
    for (let i = 0; i < WARM_UP + TAPS_A_TURN; i++) {
      const took = await tap(barePage, "[data-testid=bare]", "[data-testid=bare-count]");
      if (i >= WARM_UP) bare.push(took);
    }
  }
  await site.close();
  return [0.5, 0.99].map((q) =>
    atMost(
      `tap to next item painted, ${q === 0.5 ? "median" : "99th percentile"}`,
      quantile(preflight, q),
      "ms",
      quantile(bare, q),
      2,
    ),
  );
}
