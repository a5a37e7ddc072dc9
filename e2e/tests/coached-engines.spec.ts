import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { readings, settled, toTheRunUp, watchSteps } from "../support/run-up-page";
import { expect, test } from "../support/test";

// Independent tests run in parallel.
test.describe.configure({ mode: "parallel" });

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

test("trying the most useful test updates the diagnosis", async ({ page }) => {
  await toTheRunUp(page, cravix, "fault=governor%20slow&severity=1&seed=3", "QX-HLD");
  await page.getByTestId("way-live").click();
  const most = page.getByTestId("next-test");
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText(/ikely(?: as not)?: propeller governor slow/);
  await expect(most).toContainText("Warm the oil, cycle the propeller twice more");
  await page.getByTestId("came-quick-now").click();
  await expect(diagnosis).not.toContainText(/ikely(?: as not)?: propeller governor slow/);
});

test("single procedures: idle, ground leaning and warm-up each end with an assessed reading", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "seed=5");
  await page.getByTestId("procedure-ground-lean").click();
  await page.getByTestId("coach-peak").waitFor();
  await expect(page.getByTestId("judged-ground-lean")).toContainText("Within limits");
  await expect(page.getByTestId("judged-ground-lean")).toContainText("past it to");
  await expectAccessible(page, "ground leaning");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("procedure-idle").click();
  await expect(page.getByTestId("judged-idle")).toContainText("kept running");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("procedure-warm-up").click();
  await expect(page.getByTestId("judged-warm-up")).toContainText("in the green arc");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("way-live").waitFor();
  const read = await readings(page, id);
  expect(read.idle).toBeGreaterThan(500);
  expect(read["oil.temperature"]).toBeGreaterThan(70);
  expect(
    (await eventsOnDevice(page, id)).some(
      ({ event }) => event.type === "item.answered" && event.data.itemId === "run-up.ground-lean",
    ),
  ).toBe(true);
});

// The other engines are coached in core's tests.
test("the twin, one engine after the other: a healthy engine raises no alarm, with propeller and intake checks", async ({
  page,
}) => {
  const engines = ["left", "right"];
  const { id } = await toTheRunUp(page, cravix, "seed=4&engine=left", "QX-DOV");
  for (const engine of engines) {
    await page.goto(`${cravix.url}/preflight/${id}/run-up?speed=40&seed=4&engine=${engine}`);
    await page.getByTestId("way-live").click();
    const shown = await watchSteps(page);
    await expect(page.getByTestId("diagnosis")).toContainText("No fault found", { timeout: 120_000 });
    expect(await shown()).toContain("propeller");
    await page.getByTestId("use-numbers").click();
    await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
    await settled(page, id);
  }
  const read = await readings(page, id);
  for (const engine of engines)
    for (const key of ["magneto.base", "magneto.left", "magneto.right", "oil.pressure"])
      expect(read[`${key}.${engine}`], `${key} ${engine}`).toBeGreaterThan(0);
});
