import { join } from "node:path";
import { listen, migrateDatabase, openDatabase } from "@cravix/server";
import { chromium, type Page } from "@playwright/test";
import pino from "pino";
import { loadDemoIfEmpty } from "../load-demo";
import { startDatabase } from "../mariadb";
import { ROOT, WEB_ROOT } from "../paths";
import { atMost, type Figure, quantile } from "./figure";

const TAPS = 200;

/** Milliseconds from a tap to the frame after which the watched text is on the screen. */
function tap(page: Page, target: string, watched: string): Promise<number> {
  return page.evaluate(
    ([targetSelector, watchedSelector]) =>
      new Promise<number>((resolve, reject) => {
        const button = document.querySelector<HTMLElement>(targetSelector);
        const text = () => document.querySelector(watchedSelector)?.textContent;
        const before = text();
        if (!button || before === undefined)
          return reject(new Error(`nothing at ${targetSelector} or ${watchedSelector}`));
        // Both are tapped at the same place between two frames.
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

/** An answer in the walk, from the tap to the painted next item, against a bare pressable in the same build. */
export async function tapToPaint(): Promise<Figure[]> {
  const running = await startDatabase(join(ROOT, ".cravix", "bench"));
  const database = openDatabase(running.options);
  await migrateDatabase(database);
  await loadDemoIfEmpty(database, new Date());
  const web = await listen(
    { database, logger: pino({ level: "silent" }), webRoot: WEB_ROOT },
    0,
    "127.0.0.1",
  );
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? "/usr/bin/chromium",
    args: [
      "--no-sandbox",
      "--disable-gpu",
      "--disable-background-networking",
      "--disable-component-update",
      "--disable-sync",
      "--no-first-run",
    ],
  });
  const page = await browser.newPage({ viewport: { width: 390, height: 844 } });
  // The compiler that runs this file names inner functions with a helper that the page does not have.
  await page.addInitScript({ content: "globalThis.__name = (f) => f" });
  const url = `http://localhost:${web.port}`;
  await page.goto(url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Begin the walk" }).click();
  await page.getByText("Does it sit level?").waitFor();
  const walk: number[] = [];
  const undo = async () => {
    const before = await page.getByRole("heading", { level: 1 }).innerText();
    await page.getByRole("button", { name: "Undo" }).click();
    await page.waitForFunction(
      (title) => document.querySelector("[role=heading][aria-level='1'], h1")?.textContent !== title,
      before,
    );
  };
  for (let i = 0; i < TAPS; i++) {
    walk.push(await tap(page, "[data-testid=primary]", "h1"));
    await undo();
  }
  await page.goto(`${url}/bare`);
  await page.getByTestId("bare").waitFor();
  const bare: number[] = [];
  for (let i = 0; i < TAPS; i++) bare.push(await tap(page, "[data-testid=bare]", "[data-testid=bare-count]"));
  await browser.close();
  await web.close();
  await database.close();
  await running.stop();
  return [0.5, 0.99].map((q) =>
    atMost(
      `tap to painted next item, ${q === 0.5 ? "median" : "99th percentile"}`,
      quantile(walk, q),
      "ms",
      quantile(bare, q),
      2,
    ),
  );
}
