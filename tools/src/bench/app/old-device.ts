import { newId } from "@cravix/contract";
import type { BrowserContext, Page } from "@playwright/test";
import { atMost, type Figure, quantile } from "../figure";
import { so } from "../size";
import { newDevice, openDemoSite, PAGE_SCRIPT } from "./demo-site";

const EVENTS = so(10_000, 400);
const EVENTS_PER_PREFLIGHT = 200;
const STARTS = so(7, 1);
const ANSWERS = so(60, 2);

/** A year of sent events, dated yesterday so that they are not deleted. */
function sentEvents(): object[] {
  const now = Date.now() - 86_400_000;
  return Array.from({ length: EVENTS / EVENTS_PER_PREFLIGHT }, (_, preflight) => {
    const at = now - preflight * 3_600_000;
    const streamId = newId(at);
    return Array.from({ length: EVENTS_PER_PREFLIGHT }, (_, i) => {
      const id = newId(at + i * 1000);
      const type = i === 0 ? "preflight.started" : "item.answered";
      const data =
        i === 0
          ? { registration: "QX-TAR", listHash: `sha256:${"0".repeat(64)}`, conditions: [] }
          : { itemId: `i${i}`, outcome: "checked" };
      const event = {
        id,
        type,
        streamId,
        deviceId: newId(0),
        crewId: "ines",
        at: new Date(at).toISOString(),
        data,
      };
      return { id, streamId, sync: "sent", sentAt: now, event };
    });
  }).flat();
}

const fill = (page: Page, kept: object[]) =>
  page.evaluate(
    (all) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onsuccess = () => {
          const tx = open.result.transaction("events", "readwrite");
          for (const one of all) tx.objectStore("events").put(one);
          tx.oncomplete = () => {
            open.result.close();
            resolve();
          };
          tx.onerror = () => reject(tx.error);
        };
      }),
    kept,
  );

/** Time from navigation until the first page shows this aircraft. */
async function startUp(page: Page, url: string): Promise<number> {
  await page.goto("about:blank");
  const from = performance.now();
  await page.goto(url);
  await page
    .getByRole("button", { name: /QX-TAR$/ })
    .first()
    .waitFor();
  return performance.now() - from;
}

async function oneAnswer(page: Page): Promise<number> {
  return page.evaluate(
    () =>
      new Promise<number>((resolve) => {
        const title = () => document.querySelector("h1")?.textContent;
        const before = title();
        const from = performance.now();
        document.querySelector<HTMLElement>("[data-testid=primary]")?.click();
        const look = () =>
          title() === before ? requestAnimationFrame(look) : resolve(performance.now() - from);
        requestAnimationFrame(look);
      }),
  );
}

/** A device with ten thousand sent events compared with an empty one: opening, and one answer. */
export async function oldDevice(): Promise<Figure[]> {
  const site = await openDemoSite();
  const device = async (events: object[]): Promise<{ context: BrowserContext; page: Page }> => {
    const context = await newDevice(site, PAGE_SCRIPT);
    const page = await context.newPage();
    await page.goto(site.url);
    await page.getByRole("button", { name: /Inês/ }).click();
    await page.getByRole("button", { name: "Prepare QX-TAR" }).waitFor();
    if (events.length > 0) await fill(page, events);
    return { context, page };
  };
  const [old, young] = [await device(sentEvents()), await device([])];
  const figures = {
    old: { start: [] as number[], answer: [] as number[] },
    young: { start: [] as number[], answer: [] as number[] },
  };
  for (let i = 0; i < STARTS; i++) {
    figures.old.start.push(await startUp(old.page, site.url));
    figures.young.start.push(await startUp(young.page, site.url));
  }
  for (const { page } of [old, young]) {
    await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
    await page.getByRole("button", { name: "Start preflight" }).click();
    await page.getByText("Does it sit level?").waitFor();
  }
  for (let i = 0; i < ANSWERS; i++)
    for (const [name, { page }] of [
      ["old", old],
      ["young", young],
    ] as const) {
      await page.bringToFront();
      figures[name].answer.push(await oneAnswer(page));
      const before = await page.locator("h1").innerText();
      await page.getByRole("button", { name: "Undo" }).click();
      await page.waitForFunction((title) => document.querySelector("h1")?.textContent !== title, before);
    }
  await site.close();
  const middle = (values: number[]) => quantile(values, 0.5);
  return [
    atMost(
      "start-up on a device with 10,000 sent events, median",
      middle(figures.old.start),
      "ms",
      middle(figures.young.start),
      1.3,
    ),
    atMost(
      "tap to saved answer on a device with 10,000 sent events, median",
      middle(figures.old.answer),
      "ms",
      middle(figures.young.answer),
      1.3,
    ),
  ];
}
