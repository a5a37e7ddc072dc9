import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { readings, toTheRunUp, watchSteps } from "../support/run-up-page";
import { expect, test } from "../support/test";

// Independent tests run in parallel.
test.describe.configure({ mode: "parallel" });

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

test("a healthy run-up from the live monitor: no number is entered by hand, one button saves it all", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "seed=4");
  await expectAccessible(page, "ways in");
  await page.getByTestId("way-live").click();
  const shown = await watchSteps(page);
  await expect(page.getByTestId("diagnosis")).toContainText("No fault found", { timeout: 120_000 });
  expect(await shown()).toEqual(expect.arrayContaining(["run-up", "right", "both", "left", "heat", "idle"]));
  await expectAccessible(page, "read run-up");
  await page.getByTestId("check-right").click();
  await expect(page.getByTestId("check-right")).toHaveAttribute("aria-expanded", "true");
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect(read["magneto.base"]).toBeGreaterThan(1700);
  const right = (read["magneto.base"] ?? 0) - (read["magneto.right"] ?? 0);
  expect(right).toBeGreaterThan(20);
  expect(right).toBeLessThan(125);
  for (const key of [
    "magneto.left",
    "carburettor-heat.hot",
    "carburettor-heat.cold-again",
    "volts.charging",
    "oil.pressure",
    "oil.temperature",
    "suction",
    "idle",
  ])
    expect(read[key], key).toBeDefined();
  const events = await eventsOnDevice(page, id);
  const traced = events.find(({ event }) => event.type === "run-up.read")?.event;
  expect(traced?.type === "run-up.read" && traced.data.found).toBeUndefined();
  expect(traced?.type === "run-up.read" && traced.data.rpm.length).toBeGreaterThan(50);
  // Items without a number that the trace answers are answered too.
  expect(
    events.some(({ event }) => event.type === "item.answered" && event.data.itemId === "magneto.both"),
  ).toBe(true);
  // And the server accepts it.
  await expect
    .poll(async () => (await eventsOnDevice(page, id)).every(({ sync }) => sync === "sent"))
    .toBe(true);
});

test("a fouled plug is located by cylinder and side, cleared by leaning, and stays on record", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "fault=fouled%20plug&side=left&cylinder=3&seed=12");
  await page.getByTestId("way-live").click();
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("fouled plug, cylinder 3, left magneto");
  await expect(page.getByTestId("next-test")).toContainText("one minute");
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByTestId("coach-number")).toContainText(/^\d{1,2}$/);
  await expect(diagnosis).toContainText("Now cleared", { timeout: 120_000 });
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect((read["magneto.base"] ?? 0) - (read["magneto.left"] ?? 0)).toBeLessThan(125);
  const traced = (await eventsOnDevice(page, id)).find(({ event }) => event.type === "run-up.read")?.event;
  expect(traced?.type === "run-up.read" && traced.data.found).toMatchObject({
    fault: "fouled plug",
    grade: "note",
  });
});

test("a dead plug does not clear: a second attempt is offered, no third, then taxi back", async ({
  page,
}) => {
  await toTheRunUp(page, cravix, "fault=dead%20plug&side=right&cylinder=2&severity=1&seed=6");
  await page.getByTestId("way-live").click();
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByTestId("start-minute")).toContainText("Repeat plug clearing", { timeout: 120_000 });
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByText("Not cleared in 2 tries: taxi back.")).toBeVisible({ timeout: 120_000 });
  await expect(page.getByTestId("start-minute")).toBeHidden();
  await expect(page.getByTestId("diagnosis")).toContainText("dead plug or lead, cylinder 2, right magneto");
  // Taxi back: no more tests.
  await expect(page.getByTestId("next-test")).toBeHidden();
});

test("an ungrounded magneto: asked once, then the emergency card, a prepared discrepancy, and a stop", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "fault=hot%20magneto&side=left&seed=8");
  await page.getByTestId("way-live").click();
  await expect(page.getByText("No rpm change. Is the ignition on right?")).toBeVisible();
  await page.getByTestId("coach-confirm-side").click();
  const card = page.getByTestId("emergency-card-no drop");
  await expect(card).toContainText("Keep everyone clear of the propeller");
  await expectAccessible(page, "emergency card");
  await expect(page.getByTestId("primary")).toBeEnabled();
  await page.getByTestId("primary").click();
  await page.waitForURL(/verdict$/);
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  const opened = (await eventsOnDevice(page, id)).find(
    ({ event }) => event.type === "discrepancy.opened",
  )?.event;
  expect(opened?.data).toMatchObject({
    grade: "stop",
    itemId: "magneto.right",
    text: expect.stringContaining("No magneto drop on right"),
  });
});

test("an engine that stops on one side, and a fire, show their emergency cards at once", async ({ page }) => {
  await toTheRunUp(page, cravix, "speed=8&fault=dead%20magneto&side=left&seed=5");
  await page.getByTestId("way-live").click();
  // On right nothing changes, because it only ever ran on that one: the coach asks, the key is there, and it goes on to the other
  // side.
  await page.getByText("No rpm change. Is the ignition on right?").waitFor();
  await page.getByTestId("skip").click();
  // It moves on by itself after a while: check and press together, so that no other step is skipped.
  await expect(page.getByTestId("coach-both").or(page.getByTestId("coach-left"))).toBeVisible();
  await page.evaluate(() => {
    if (document.querySelector('[data-testid="coach-both"]'))
      document.querySelector<HTMLElement>('[data-testid="skip"]')?.click();
  });
  await expect(page.getByTestId("emergency-card-stops on one")).toContainText("Throttle: idle");
  await page.getByRole("button", { name: "Back" }).click();
  await page.getByTestId("emergency").click();
  await page.getByTestId("emergency-fire").click();
  await expect(page.getByTestId("emergency-card-fire")).toContainText("Fuel: off");
});
