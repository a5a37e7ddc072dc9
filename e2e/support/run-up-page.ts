import { expect, type Page } from "@playwright/test";
import type { Cravix } from "./cravix";
import { eventsOnDevice } from "./device";
import { Walker } from "./walker";

/**
 * Starts a preflight and opens its run-up page with a simulated engine of this kind, forty times faster than real time; it waits
 * for a slower page. Slower for tests that wait for a single step.
 */
export async function toTheRunUp(
  page: Page,
  cravix: Cravix,
  query = "",
  registration = "QX-TAR",
): Promise<{ walker: Walker; id: string }> {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/, { registration });
  await expect.poll(async () => (await eventsOnDevice(page, id)).length).toBeGreaterThan(0);
  await page.goto(
    `${cravix.url}/preflight/${id}/run-up?${query.includes("speed=") ? "" : "speed=40&"}${query}`,
  );
  await page.getByTestId("way-live").waitFor();
  return { walker, id };
}

/** Waits until everything recorded is stored on the device, and returns it. */
export async function settled(page: Page, id: string) {
  let events = await eventsOnDevice(page, id);
  await expect
    .poll(async () => {
      const before = events.length;
      await page.waitForTimeout(300);
      events = await eventsOnDevice(page, id);
      return events.length - before;
    })
    .toBe(0);
  return events;
}

/** Readings of this preflight's run-up, by key. */
export const readings = async (page: Page, id: string) =>
  Object.fromEntries(
    (await settled(page, id)).flatMap(({ event }) =>
      event.type === "reading.taken" ? [[event.data.key, event.data.value] as const] : [],
    ),
  );

/** Records every coach step shown, however briefly; returns a function that lists them. */
export async function watchSteps(page: Page): Promise<() => Promise<string[]>> {
  await page.evaluate(() => {
    const seen: string[] = [];
    Object.assign(window, { seen });
    const look = () => {
      const step = document.querySelector('[data-testid^="coach-"]')?.getAttribute("data-testid")?.slice(6);
      if (step && seen.at(-1) !== step) seen.push(step);
    };
    look();
    new MutationObserver(look).observe(document.body, { subtree: true, childList: true, attributes: true });
  });
  return () => page.evaluate(() => (window as unknown as { seen: string[] }).seen);
}
