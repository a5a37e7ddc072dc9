import { expectAccessible } from "../support/accessibility";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { expect, lastNoon, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** Due items, technical log, deferral and release, for this flight. */

let cravix: Cravix;
test.beforeEach(async ({ page }) => {
  cravix = await Cravix.launch();
  await page.goto(cravix.url);
});
test.afterEach(() => cravix.remove());

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });

/** Another person takes over the device. */
async function hand(page: Page, name: RegExp) {
  await page.goto(cravix.url);
  await page
    .getByRole("button", { name: /Pilot flying|, (pilot|student|instructor|mechanic|owner)$/ })
    .first()
    .click();
  await button(page, name).click();
  await expect(page.getByTestId("who-flies")).toHaveCount(0);
  // The selection is saved in the background.
  await page.waitForTimeout(500);
}

async function notFlying(page: Page) {
  await button(page, "Sign: not flying").click();
  await button(page, "Go to Aircraft").click();
}

test("2.1 h remaining and 2.6 h planned: the flight is stopped; a ferry flight to the workshop is allowed and its cost is shown", async ({
  page,
}) => {
  const walker = new Walker(page);
  await chooseCrew(page, /Inês/);
  await page.goto(`${cravix.url}/aircraft/QX-TAR/due`);
  await expect(page.getByTestId("due-hundred")).toContainText("2.1 h");
  await expectAccessible(page, "due items");
  await page.getByTestId("due-hundred").click();
  await expect(page.getByTestId("due-detail")).toContainText("91.409(b)");

  await page.goto(cravix.url);
  await walker.prepare("QX-TAR");
  const papers = page.getByTestId("due-judgements");
  await expect(papers).toContainText("2.1 h left, 1.1 h after this flight");
  // One hour is planned; six more steps make two and a half.
  for (let i = 0; i < 7; i++) await button(page, "+15 minutes").click();
  await expect(papers).toContainText("Stop: 100-hour inspection");
  await expect(papers).toContainText("2.1 h left until 4,232.2 h; this flight needs 2.8 h.");
  await page.getByTestId("ferry").click();
  await expect(papers).toContainText("0.7 h is taken off the next interval");
  await expect(papers).not.toContainText("Stop");
  await page.getByTestId("ferry").click();
  const id = await walker.go();
  await walker.walkTo("papers.inspections");
  await expect(page.getByTestId("due-judgements")).toContainText("Plan no more than 2.1 h");
  await walker.jumpToVerdict();
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await page.goto(`${cravix.url}/preflight/${id}/verdict`);
  await expect(page.getByText("2.1 h left until 4,232.2 h; this flight needs 2.8 h.").first()).toBeVisible();
});

test.describe("offline", () => {
  // Offline on pages opened for the first time.
  test.use({ fetchesAhead: true });

  test("logging a flight: a gap and a typing error are queried, also offline, and the totals continue", async ({
    page,
    context,
  }) => {
    await chooseCrew(page, /Inês/);
    await page.goto(`${cravix.url}/aircraft/QX-TAR/flights`);
    await expect(page.getByText("4,229.2 to 4,230.1")).toBeVisible();
    await expectAccessible(page, "technical log");
    await button(page, "Log a flight").click();
    await expectAccessible(page, "log a flight");
    // After the last demo flight, and before the page's clock, which stands at the last noon.
    const before = (minutes: number) => new Date(lastNoon().getTime() - minutes * 60_000).toISOString();
    await page.getByLabel("Date").fill(before(90).slice(0, 10));
    await page.getByLabel("Off blocks").fill(before(90).slice(11, 16));
    await page.getByLabel("On blocks").fill("25:00");
    await page.getByLabel("Hour meter, in").fill("4231.35");
    await page.getByTestId("log-flight").click();
    await expect(page.getByText("Enter a time like 09:30.")).toBeVisible();
    await page.getByLabel("On blocks").fill(before(15).slice(11, 16));
    await page.getByTestId("log-flight").click();
    await expect(page.getByText("4231.35 has too many digits", { exact: false })).toBeVisible();
    await page.getByLabel("Hour meter, in").fill("4231.3");
    await page.getByLabel("Hour meter, out").fill("4230.4");
    await context.setOffline(true);
    await page.getByTestId("log-flight").click();
    await expect(page.getByText("0.3 h not logged", { exact: false })).toBeVisible();
    await page.getByTestId("log-flight").click();
    await expect(page.getByRole("status").filter({ hasText: "Logged" })).toBeVisible();
    await context.setOffline(false);
    await expect
      .poll(
        async () =>
          (await cravix.api<{ items: { meters: object }[] }>("/aircraft/QX-TAR/flights?limit=200")).items
            .length,
        {
          timeout: 60_000,
        },
      )
      .toBeGreaterThan(146);
    await page.goto(`${cravix.url}/aircraft/QX-TAR/due`);
    await expect(page.getByText("4,231.3 h")).toBeVisible();
    await expect(page.getByTestId("due-hundred")).toContainText("0.9 h");
  });
});

test("a student finds a failed landing light; deferred for day flights, not for night; a mechanic releases it, and the next preflight is after maintenance", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Tomasz/, { conditions: ["night"] });
  await walker.jumpTo("left-leading.landing-light");
  await button(page, "Found something").click();
  await page.getByLabel("What was found").fill("Landing light: dead");
  await button(page, "Log it").click();
  await walker.jumpToVerdict();
  await notFlying(page);

  // A student can log advice but not defer.
  await page.goto(`${cravix.url}/log`);
  await page.getByText("Landing light: dead").first().click();
  await expect(page.getByTestId("asked")).toBeVisible();
  await expect(page.getByTestId("defer")).toHaveCount(0);

  await hand(page, /Maren/);
  await page.goto(`${cravix.url}/log`);
  await page.getByText("Landing light: dead").first().click();
  await page.getByTestId("asked").click();
  await page.getByLabel("Who was asked").fill("Kofi");
  await page.getByLabel("What was said").fill("The bulb is on order. By day it may fly.");
  await page.getByTestId("save-advice").click();
  await page.getByTestId("defer").click();
  await expectAccessible(page, "deferral");
  for (const answer of ["no", "yes", "yes"]) await page.getByTestId(`told-${answer}`).click();
  await expect(page.getByTestId("deferral-result")).toContainText("It can be deferred");
  await expect(page.getByTestId("deferral-result")).toContainText("LANDING LIGHT INOPERATIVE");
  // At night the equipment list requires it.
  await page.getByTestId("deferral").getByRole("button", { name: "night", exact: true }).click();
  await expect(page.getByTestId("deferral-result")).toContainText("It cannot be deferred");
  await page.getByTestId("deferral").getByRole("button", { name: "night", exact: true }).click();
  for (const answer of ["no", "yes", "yes"]) await page.getByTestId(`told-${answer}`).click();
  await expect(page.getByTestId("sign-deferral")).toBeDisabled();
  await page
    .getByTestId("deferral-result")
    .getByRole("button", { name: /The placard is fitted/ })
    .click();
  await page.getByTestId("sign-deferral").click();
  await expect(page.getByTestId("deferred")).toContainText("Deferred for day flights");
  await expect(page.getByText("Asked Kofi, telephone", { exact: false })).toBeVisible();

  // At night it is rejected, at its station and in the verdict.
  await hand(page, /Inês/);
  await walker.prepare("QX-TAR");
  await button(page, /^night/i).click();
  await walker.go();
  await walker.jumpToVerdict();
  await expect(
    page.getByText("The type requires it for this flight.", { exact: false }).first(),
  ).toBeVisible();
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await notFlying(page);

  // The mechanic releases it.
  await hand(page, /Kofi/);
  await page.goto(`${cravix.url}/aircraft/QX-TAR/release`);
  await button(page, /^Sign: Kofi/).click();
  await expect(page.getByText("Enter what was done.").first()).toBeVisible();
  await page.getByLabel("Work done, and on which part").fill("Bulb of the landing light replaced, tested.");
  await page.getByLabel("Certificate type").fill("airframe and powerplant");
  await page.getByLabel("Certificate number").fill("100200");
  await button(page, /Landing light: dead/).click();
  await page.getByTestId("does-hundred").click();
  await expectAccessible(page, "release to service");
  await button(page, /^Sign: Kofi/).click();
  await expect(page.getByRole("status")).toContainText(
    "The next preflight will include the after-maintenance items",
  );
  // As PDF once the server has it.
  await expect(async () => {
    const paper = page.waitForEvent("download", { timeout: 5000 });
    await button(page, "Export PDF").click();
    expect((await paper).suggestedFilename()).toBe("QX-TAR-release.pdf");
  }).toPass();

  await hand(page, /Inês/);
  await walker.prepare("QX-TAR");
  await expect(button(page, /^after maintenance/i)).toHaveAttribute("aria-pressed", "true");
  await page.goto(`${cravix.url}/aircraft/QX-TAR/due`);
  await expect(page.getByTestId("due-hundred")).toContainText("100.0 h");
  await page.goto(`${cravix.url}/log/workshop`);
  await expect(page.getByTestId("visits")).toContainText("Workshop visits in the next year");
  await expectAccessible(page, "workshop");
});
