import { expect, test } from "@playwright/test";
import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { readings, settled, toTheRunUp, watchSteps } from "../support/run-up-page";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

test("a healthy run-up from the live monitor: no number is touched, one button writes it all down", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "seed=4");
  await expectAccessible(page, "ways in");
  await page.getByTestId("way-live").click();
  const shown = await watchSteps(page);
  await expect(page.getByTestId("diagnosis")).toContainText("Nothing stands out", { timeout: 60_000 });
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
  // The items without a number that the trace answers are answered too.
  expect(
    events.some(({ event }) => event.type === "item.answered" && event.data.itemId === "magneto.both"),
  ).toBe(true);
  // And the server takes it.
  await expect
    .poll(async () => (await eventsOnDevice(page, id)).every(({ sync }) => sync === "sent"))
    .toBe(true);
});

test("a fouled plug is named by cylinder and side, cleared in a lean minute, and stays on record", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "fault=fouled%20plug&side=left&cylinder=3&seed=12");
  await page.getByTestId("way-live").click();
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("fouled plug, cylinder 3, left magneto");
  await expect(page.getByTestId("tells-most")).toContainText("one minute");
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByTestId("coach-number")).toContainText(/^\d{1,2}$/);
  await expect(diagnosis).toContainText("Gone now", { timeout: 60_000 });
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

test("a dead plug does not come clean: a second try is offered, no third, and it says taxi back", async ({
  page,
}) => {
  await toTheRunUp(page, cravix, "fault=dead%20plug&side=right&cylinder=2&severity=1&seed=6");
  await page.getByTestId("way-live").click();
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByTestId("start-minute")).toContainText("Once more", { timeout: 60_000 });
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByText("Not cleared in 2 tries: taxi back.")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId("start-minute")).toBeHidden();
  await expect(page.getByTestId("diagnosis")).toContainText("dead plug or lead, cylinder 2, right magneto");
  // It goes back: nothing more is tried.
  await expect(page.getByTestId("tells-most")).toBeHidden();
});

test("a test that tells most is tried, and what it came to changes what is likeliest", async ({ page }) => {
  await toTheRunUp(page, cravix, "fault=governor%20slow&severity=1&seed=3", "QX-HLD");
  await page.getByTestId("way-live").click();
  const most = page.getByTestId("tells-most");
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("Most likely: governor slow");
  await expect(most).toContainText("Oil warm, propeller twice more");
  await page.getByTestId("came-quick-now").click();
  await expect(diagnosis).not.toContainText("Most likely: governor slow");
});

test("one thing by itself: idle, leaned for the ground and warmed up, each ends in a judged reading at its item", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "seed=5");
  await page.getByTestId("procedure-ground-lean").click();
  await page.getByTestId("coach-peak").waitFor();
  await expect(page.getByTestId("judged-ground-lean")).toContainText("Within limits");
  await expect(page.getByTestId("judged-ground-lean")).toContainText("past it to");
  await expectAccessible(page, "leaned for the ground");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("procedure-idle").click();
  await expect(page.getByTestId("judged-idle")).toContainText("ran on");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("procedure-warm-up").click();
  await expect(page.getByTestId("judged-warm-up")).toContainText("in its arc");
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

for (const [what, registration, engines] of [
  ["a constant-speed six", "QX-HLD", [""]],
  ["the twin, one engine after the other", "QX-DOV", ["left", "right"]],
  ["the radial", "QX-COR", [""]],
] as const)
  test(`${what}: healthy, it stands out in nothing, with the propeller cycled and the air tried`, async ({
    page,
  }) => {
    const { id } = await toTheRunUp(page, cravix, `seed=4&engine=${engines[0]}`, registration);
    for (const engine of engines) {
      await page.goto(`${cravix.url}/preflight/${id}/run-up?speed=8&seed=4&engine=${engine}`);
      await page.getByTestId("way-live").click();
      const shown = await watchSteps(page);
      await expect(page.getByTestId("diagnosis")).toContainText("Nothing stands out", { timeout: 60_000 });
      expect(await shown()).toContain("propeller");
      await page.getByTestId("use-numbers").click();
      await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
      await settled(page, id);
    }
    const read = await readings(page, id);
    for (const engine of engines)
      for (const key of ["magneto.base", "magneto.left", "magneto.right", "oil.pressure"])
        expect(read[engine ? `${key}.${engine}` : key], `${key} ${engine}`).toBeGreaterThan(0);
  });

test("a magneto that is not grounded: asked once, then the card, the discrepancy already filled in, and the verdict is stop", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix, "fault=hot%20magneto&side=left&seed=8");
  await page.getByTestId("way-live").click();
  await expect(page.getByText("Nothing changed. Is the key on right?")).toBeVisible();
  await page.getByTestId("yes-on-it").click();
  const card = page.getByTestId("emergency-card-no drop");
  await expect(card).toContainText("Nobody near the propeller");
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

test("an engine that stops on one side, and a fire, each get their card at once", async ({ page }) => {
  await toTheRunUp(page, cravix, "fault=dead%20magneto&side=left&seed=5");
  await page.getByTestId("way-live").click();
  // On right nothing changes, since it only ever ran on that one: asked, the key is there, and it goes on to the other side.
  await page.getByText("Nothing changed. Is the key on right?").waitFor();
  await page.getByTestId("skip").click();
  await page.getByTestId("skip").click();
  await expect(page.getByTestId("emergency-card-stops on one")).toContainText("Throttle: idle");
  await page.getByRole("button", { name: "Back" }).click();
  await page.getByTestId("emergency").click();
  await page.getByTestId("emergency-fire").click();
  await expect(page.getByTestId("emergency-card-fire")).toContainText("Fuel: off");
});
