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

test("practice with a random fault: the learner answers first, then the fault is shown, and nothing is logged", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix);
  const before = (await settled(page, id)).length;
  // Fixed random numbers: a fault for which the coach needs no help.
  const die = await page.evaluateHandle(() => {
    const fair = Math.random;
    Math.random = () => 0.5;
    return fair;
  });
  await page.getByTestId("way-surprise").click();
  await page.evaluate((fair) => {
    Math.random = fair;
  }, die);
  await expect(page.getByText("practice", { exact: true })).toBeVisible();
  const guess = page.getByTestId("guess");
  await guess.waitFor({ timeout: 120_000 });
  await expect(page.getByTestId("diagnosis")).toBeHidden();
  await expectAccessible(page, "a guess");
  await guess.getByRole("button").last().click();
  const planting = page.getByTestId("simulated-fault");
  await expect(planting).toContainText("Simulated fault: blocked intake.");
  await expect(planting).toContainText("Your answer: no fault.");
  await expect(page.getByTestId("diagnosis")).toBeVisible();
  await page.getByTestId("end-practice").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect((await settled(page, id)).length).toBe(before);
  // And it is not offered again as if it had been real.
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-live").waitFor();
  await page.waitForTimeout(500);
  await expect(page.getByTestId("saved-run-up")).toBeHidden();
});

test("an engine stop in practice: the emergency card is practised, nothing is logged", async ({ page }) => {
  const { id } = await toTheRunUp(page, cravix, "fault=hot%20magneto&side=left&seed=8");
  const before = (await settled(page, id)).length;
  await page.getByTestId("way-practice").click();
  await page.getByTestId("coach-confirm-side").click();
  await expect(page.getByTestId("emergency-card-no drop")).toContainText("Practice: nothing is logged");
  await page.getByTestId("primary").click();
  await expect(page.getByTestId("simulated-fault")).toContainText(
    "Simulated fault: magneto not grounded, left.",
  );
  await page.getByTestId("end-practice").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect((await settled(page, id)).length).toBe(before);
});

test("entered by hand: five numbers, an error reported at its field, and a zero drop is a stop", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix);
  await page.getByTestId("way-typed").click();
  const type = async (digits: string) => {
    for (const digit of digits) await page.getByRole("button", { name: digit, exact: true }).click();
  };
  await type("9999");
  await expect(page.getByTestId("trouble")).toContainText("tachometer");
  for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "Delete" }).click();
  // Each complete number moves on automatically; closing the page keeps those entered.
  await type("18001730");
  await expect(page.getByTestId("field-1")).toContainText("1,730");
  await page.reload();
  await page.getByTestId("way-typed").click();
  await expect(page.getByTestId("field-1")).toContainText("1,730");
  await page.getByTestId("field-2").click();
  await type("180017201800");
  await expectAccessible(page, "typed numbers");
  await page.getByTestId("typed-done").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect(await readings(page, id)).toMatchObject({
    "magneto.base": 1800,
    "magneto.right": 1730,
    "magneto.left": 1720,
  });
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-typed").click();
  await type("18001800180017201800");
  await page.getByTestId("typed-done").click();
  await expect(page.getByTestId("emergency-card-no drop")).toBeVisible();
});

test("entered by hand and over the limit: roughness is asked, the plug's side is named, and the result after clearing is compared", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix);
  const type = async (digits: string) => {
    for (const digit of digits) await page.getByRole("button", { name: digit, exact: true }).click();
  };
  await page.getByTestId("way-typed").click();
  await type("18001730180016401800");
  await page.getByTestId("typed-done").click();
  await page.getByTestId("ask-feel").getByRole("button", { name: "Rough" }).click();
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText(/ikely(?: as not)?: fouled plug, left magneto/);
  await expect(diagnosis).toContainText("Clear the plugs");
  await expectAccessible(page, "typed and over the limit");
  const felt = (await settled(page, id)).flatMap(({ event }) =>
    event.type === "reading.taken" && event.data.feel ? [event.data] : [],
  );
  expect(felt).toMatchObject([{ key: "magneto.left", value: 1640, feel: "rough" }]);
  // Page closed here, and again after clearing: earlier answers and observations are kept.
  await page.reload();
  await expect(diagnosis).toContainText(/ikely(?: as not)?: fouled plug, left magneto/);
  await expect(page.getByTestId("ask-feel")).toBeHidden();
  await page.getByTestId("minute-done").click();
  await expect(page.getByTestId("field-0")).toBeVisible();
  await page.reload();
  await page.getByTestId("way-typed").click();
  await type("18001730180017201800");
  await page.getByTestId("typed-done").click();
  await expect(diagnosis).toContainText(
    /The fault was .*likely.*: fouled plug, left magneto\. Now cleared\./,
  );
  await page.getByTestId("to-walk").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = (await settled(page, id)).flatMap(({ event }) =>
    event.type === "run-up.read" ? [event.data] : [],
  );
  expect(read.map(({ from, found }) => [from, found?.fault, found?.grade])).toEqual([
    ["typed", expect.any(String), expect.any(String)],
    ["typed", "fouled plug", "ask"],
    ["typed", "fouled plug", "note"],
  ]);
  expect(await readings(page, id)).toMatchObject({ "magneto.left": 1720 });
  // Left by its own button it is done: the next visit starts at the source picker.
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await expect(page.getByTestId("way-typed")).toBeVisible();
  await expect(diagnosis).toBeHidden();
});

test("entered by voice: each number is read back and entered; anything else is asked again", async ({
  page,
}) => {
  // Chromium has no speech recognition offline: a simulated one.
  await page.addInitScript({
    content: `
      window.SpeechRecognition = function () {
        this.start = () => {
          window.hears = (line) => {
            window.hears = undefined;
            this.onresult({ results: [[{ transcript: line }]] });
          };
        };
        this.abort = () => {};
      };`,
  });
  const say = async (line: string) => {
    await page.waitForFunction("window.hears");
    await page.evaluate(
      (words) => (window as unknown as { hears: (line: string) => void }).hears(words),
      line,
    );
  };
  const { id } = await toTheRunUp(page, cravix);
  await page.getByTestId("way-typed").click();
  await page.getByRole("button", { name: "Speak the numbers" }).click();
  await say("eighteen hundred");
  await say("wind is nice");
  // It stays until something else is heard.
  await expect(page.getByTestId("trouble")).toContainText("Heard “wind is nice”, which is not a number");
  for (const line of ["one seven tree zero", "one eight zero zero", "1720", "1,800"]) await say(line);
  await expect(page.getByTestId("field-4")).toContainText("1,800");
  await expect(page.getByTestId("field-1")).toContainText("1,730");
  await page.getByTestId("typed-done").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect(await readings(page, id)).toMatchObject({
    "magneto.base": 1800,
    "magneto.right": 1730,
    "magneto.left": 1720,
  });
});

test("control check corner by corner: first the expected position, then what was seen", async ({ page }) => {
  const { walker, id } = await toTheRunUp(page, cravix);
  await page.goto(`${cravix.url}/preflight/${id}/controls`);
  await expect(page.getByText("Left aileron up, thumbs point at it; elevator down")).toBeVisible();
  await expectAccessible(page, "controls drill");
  await page.goto(`${cravix.url}/preflight/${id}`);
  await walker.jumpTo("run-up.controls");
  await page.getByTestId("controls-drill").click();
  for (let i = 0; i < 6; i++) await page.getByTestId("primary").click();
  await page.getByRole("button", { name: "Free, full, correct" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await expect
    .poll(async () =>
      (await eventsOnDevice(page, id)).some(
        ({ event }) => event.type === "item.answered" && event.data.itemId === "run-up.controls",
      ),
    )
    .toBe(true);
});

test.describe("offline", () => {
  // The simulated engine is part of the page and cached.
  test.use({ serviceWorkers: "allow" });

  test("practice works offline: the engine runs on the device", async ({ page, context }) => {
    await toTheRunUp(page, cravix, "seed=4");
    // Fetched once, then cached.
    await page.getByTestId("way-practice").click();
    await page.getByTestId("coach-run-up").waitFor();
    await page.getByTestId("finish").click();
    await context.setOffline(true);
    await page.getByRole("button", { name: "Repeat run-up" }).click();
    const shown = await watchSteps(page);
    await page.getByTestId("way-practice").click();
    await expect.poll(shown).toContain("right");
    await context.setOffline(false);
  });
});
