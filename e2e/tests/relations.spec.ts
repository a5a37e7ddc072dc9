import { expectAccessible } from "../support/accessibility";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** How works relate, what a flight has to say, and a deferral that remembers what is out already. */

let cravix: Cravix;
test.beforeEach(async ({ page }) => {
  cravix = await Cravix.launch();
  await page.goto(cravix.url);
});
test.afterEach(() => cravix.remove());

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });
const inDays = (days: number) => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

async function logged(page: Page, itemId: string, words: string): Promise<void> {
  const walker = new Walker(page);
  await walker.jumpTo(itemId);
  await button(page, "Found something").click();
  await page.getByLabel("What was found").fill(words);
  await button(page, "Log it").click();
}

async function leave(page: Page): Promise<void> {
  await new Walker(page).jumpToVerdict();
  await button(page, "Sign: not flying").click();
  await button(page, "Go to Aircraft").click();
}

test("an annual inspection does the 100-hour inspection, and says so; struck out, it does not", async ({
  page,
}) => {
  await chooseCrew(page, /Kofi/);
  await page.goto(`${cravix.url}/aircraft/QX-TAR/release`);
  await page.getByTestId("does-annual").click();
  await expect(page.getByTestId("also-completes")).toContainText("100-hour inspection");
  await page.getByLabel("Work done, and on which part").fill("Annual inspection, no findings.");
  await page.getByLabel("Certificate type").fill("inspection authorisation");
  await page.getByLabel("Certificate number").fill("100200");
  await expectAccessible(page, "release of an annual inspection");
  await button(page, /^Sign: Kofi/).click();
  await expect(page.getByRole("status")).toContainText("Released on");
  await page.goto(`${cravix.url}/aircraft/QX-TAR/due`);
  await expect(page.getByTestId("due-hundred")).toContainText("100.0 h");
  await page.getByTestId("due-hundred").click();
  await expect(page.getByTestId("due-detail")).toContainText("with Annual inspection");

  // A release signed in error is struck out: both are due as before.
  await page.goto(`${cravix.url}/aircraft/QX-TAR/release`);
  const past = page.getByTestId("past-releases");
  await past.getByRole("button", { name: "Strike out", exact: true }).first().click();
  await button(page, "Strike it out").click();
  await expect(past).toContainText("Enter the reason.");
  await page.getByLabel("Why is it struck out?").fill("Wrong aircraft.");
  await expectAccessible(page, "striking out a release");
  await button(page, "Strike it out").click();
  await expect(past).toContainText("Struck out: Wrong aircraft.");
  await page.goto(`${cravix.url}/aircraft/QX-TAR/due`);
  await expect(page.getByTestId("due-hundred")).not.toContainText("100.0 h");
});

test("insurance is renewed on the due page, and Friday's flight is asked about on Monday", async ({
  page,
}) => {
  await button(page, /Inês/).click();
  const walker = new Walker(page);
  await walker.prepare("QX-TAR");
  const due = page.getByTestId("due-judgements");
  await expect(due).not.toContainText("Insurance: ");
  // A day on which the insurance has run out.
  await page.getByLabel("Day of the flight, if not today").fill(inDays(700));
  await expect(due).toContainText("Stop: Insurance");
  await page.getByLabel("Day of the flight, if not today").fill("");

  await page.goto(`${cravix.url}/aircraft/QX-TAR/due`);
  await page.getByTestId("due-insurance").click();
  await page.getByTestId("renew").click();
  await page.getByLabel("Valid until, as printed").fill(inDays(800));
  await page.getByLabel("Where it is printed").fill("policy 12");
  await expectAccessible(page, "renewing a document");
  await page.getByTestId("save-renewal").click();
  await expect(page.getByTestId("due-detail")).toContainText("(policy 12)");
  await page.goto(cravix.url);
  await walker.prepare("QX-TAR");
  await page.getByLabel("Day of the flight, if not today").fill(inDays(700));
  await expect(due).toBeVisible();
  await expect(due).not.toContainText("Stop: Insurance");
});

test("the second of two landing lights cannot be deferred, and only a mechanic defers by this list", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Kofi/, { registration: "QX-DOV", conditions: ["night"] });
  await logged(page, "quick.landing", "Left landing light: dead");
  await leave(page);
  await page.goto(`${cravix.url}/log`);
  await page.getByText("Left landing light: dead").first().click();
  await page.getByTestId("defer").click();
  await button(page, "1").click();
  for (const answer of ["no", "yes"]) await page.getByTestId(`told-${answer}`).click();
  await expect(page.getByTestId("deferral-result")).toContainText("It can be deferred");
  for (const words of [/operations procedure/, /placard is fitted/])
    await page.getByTestId("deferral-result").getByRole("button", { name: words }).click();
  await expectAccessible(page, "deferral with confirmations");
  await page.getByTestId("sign-deferral").click();
  await expect(page.getByTestId("deferred")).toContainText("Deferred for day flights");

  await page.goto(cravix.url);
  await walker.prepare("QX-DOV");
  await button(page, /^night/i).click();
  await walker.go();
  await logged(page, "quick.landing", "Right landing light: dead too");
  await leave(page);
  await page.goto(`${cravix.url}/log`);
  await page.getByText("Right landing light: dead too").first().click();
  await page.getByTestId("defer").click();
  await expect(page.getByTestId("deferral")).toContainText("1 is deferred already");
  await button(page, "1").click();
  await expect(page.getByTestId("deferral-result")).toContainText("It cannot be deferred");
  await expect(page.getByTestId("deferral")).toContainText("0 of 2 working, 1 required");
});

test("a radio depends on the airfield: asked before, and again for a flight that has not said", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Inês/, { registration: "QX-TAR" });
  await logged(page, "cockpit.avionics", "Radio: receives nothing");
  await leave(page);
  await page.goto(`${cravix.url}/log`);
  await page.getByText("Radio: receives nothing").first().click();
  await page.getByTestId("defer").click();
  await button(page, "Radio").click();
  const asked = page.getByRole("radiogroup", { name: /airfield with a tower/ });
  await asked.getByRole("button", { name: "No", exact: true }).click();
  for (const answer of ["no", "yes", "yes"]) await page.getByTestId(`told-${answer}`).click();
  await page
    .getByTestId("deferral-result")
    .getByRole("button", { name: /placard is fitted/ })
    .click();
  await page.getByTestId("sign-deferral").click();
  await expect(page.getByTestId("deferred")).toContainText("Deferred for day flights");

  await page.goto(cravix.url);
  await walker.prepare("QX-TAR");
  await expect(page.getByTestId("flight-questions")).toContainText("airfield with a tower?");
});
