import { fluidCsv } from "@cravix/contract/logs";
import type { Page } from "@playwright/test";
import { tenYearsOfOil } from "../core/fluid-figures";
import { type Figure, plain, quantile, within } from "../figure";
import { so } from "../size";
import { newDevice, openDemoSite } from "./demo-site";

const REGISTRATION = "QX-HLD";
const TURNS = so(12, 1);
const FRAME_MS = 1000 / 60;

/** Duration of a worker's answer, as seen by the page. */
const measured = (page: Page, name: string) =>
  page.evaluate((wanted) => performance.getEntriesByName(wanted).map((entry) => entry.duration), name);

/** Longest time between two frames. */
const longestFrame = (page: Page) =>
  page.evaluate(() => {
    const frames = (window as unknown as { frames: number[] }).frames;
    return Math.max(...frames.slice(1).map((at, i) => at - (frames[i] ?? at)));
  });
const countAnew = (page: Page) =>
  page.evaluate(() => {
    (window as unknown as { frames: number[] }).frames = [performance.now()];
  });

/** Worker calculations and the ten-year plot in the built interface. */
export async function fluidPages(): Promise<Figure[]> {
  const site = await openDemoSite();
  const context = await newDevice(site, {
    content:
      "globalThis.__name = (f) => f; window.frames = []; const tick = (t) => { window.frames.push(t); requestAnimationFrame(tick); }; requestAnimationFrame(tick);",
  });
  const rows = tenYearsOfOil().map(({ at, entry, qt, hours }) => ({
    registration: REGISTRATION,
    fluid: "oil" as const,
    entry,
    amount: qt,
    unit: "US qt" as const,
    at,
    ...(hours !== undefined && { hours }),
  }));
  const sent = await fetch(`${site.url}/api/v1/oil-log`, {
    method: "POST",
    headers: { "content-type": "text/csv", "cravix-crew": "ines" },
    body: fluidCsv("oil", rows),
  });
  if (!sent.ok) throw new Error(`the log was rejected: ${sent.status}`);

  const page = await context.newPage();
  await page.goto(site.url);
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: new RegExp(`^${REGISTRATION}`) }).click();
  await page.getByRole("link", { name: `Details of ${REGISTRATION}` }).click();
  await page.getByRole("link", { name: "Fuel and oil log" }).waitFor();
  await countAnew(page);
  await page.getByRole("link", { name: "Fuel and oil log" }).click();
  await page
    .getByText(/readings/)
    .first()
    .waitFor();
  await page.waitForTimeout(1500);
  const trends = await measured(page, "oil trend");
  const opened = await longestFrame(page);
  const plotFrames: number[] = [];
  for (let i = 0; i < TURNS; i++) {
    await countAnew(page);
    await page.getByRole("button", { name: i % 2 === 0 ? "All" : "Last 200 h" }).click();
    await page.waitForTimeout(400);
    plotFrames.push(await longestFrame(page));
  }
  await page.getByRole("button", { name: "Back" }).click();

  // A preflight, straight to the tanks: on a wide screen every item can be selected.
  await page.setViewportSize({ width: 1280, height: 800 });
  await page.getByRole("button", { name: `Prepare ${REGISTRATION}` }).click();
  await page.getByRole("button", { name: "Start preflight" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await page.getByRole("button", { name: /^Fuel, oil/ }).click();
  for (const [title, number] of [
    ["Left main: dip it", "16"],
    ["Left tip tank: read its sight glass", "50"],
    ["Right main: dip it", "15"],
    ["Right tip tank: read its sight glass", "50"],
  ] as const) {
    const asked = page.getByRole("heading", { level: 1, name: title });
    // The next item follows automatically.
    await page.waitForTimeout(300);
    if (!(await asked.isVisible()))
      await page
        .getByRole("button", { name: new RegExp(title) })
        .first()
        .click();
    await asked.waitFor();
    await page.keyboard.type(number);
    await page.getByTestId("primary").click();
    await asked.waitFor({ state: "detached" });
  }
  await page.getByTestId("open-fuel").first().click();
  await page.getByText(/10,000 simulated flights/).waitFor();
  for (let i = 0; i < TURNS; i++) {
    await page.getByRole("button", { name: i % 2 === 0 ? "75 %" : "65 %" }).click();
    await page.waitForTimeout(250);
  }
  const flights = await measured(page, "fuel simulation");
  await site.close();
  return [
    within(
      "fuel worst case over 10,000 simulated flights in the worker, request to reply, median",
      quantile(flights, 0.5),
      "ms",
      FRAME_MS,
      100,
    ),
    within(
      "oil trend over ten years in the worker, request to reply",
      Math.max(...trends),
      "ms",
      FRAME_MS,
      400,
    ),
    within("longest frame while ten years are redrawn", Math.max(...plotFrames), "ms", FRAME_MS, 50),
    plain("longest frame while the page opens and loads 5,000 entries", opened, "ms", FRAME_MS),
  ];
}
