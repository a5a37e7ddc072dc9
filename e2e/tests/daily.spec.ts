import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** Preflights of a daily pilot and of a student, and what follows the acceptance. */

let cravix: Cravix;
test.beforeEach(async ({ page }) => {
  cravix = await Cravix.launch();
  await page.goto(cravix.url);
});
test.afterEach(() => cravix.remove());

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });

/** Cards and single items confirmed on the way to the verdict. */
async function confirmations(walker: Walker): Promise<string[]> {
  const seen: string[] = [];
  for (let id = await walker.itemId(); id !== undefined; id = await walker.itemId()) {
    seen.push(id);
    await walker.answer();
  }
  return seen;
}

test("an everyday pilot: first flight with cards, line-up check, securing and a turnaround; taps are counted", async ({
  page,
}) => {
  const walker = new Walker(page);
  await button(page, /Inês/).click();
  await walker.prepare("QX-TAR");
  // Another pilot flew it last: no turnaround.
  await expect(page.getByTestId("no-turnaround")).toContainText("Another pilot flew it last");
  await button(page, "Read-and-do").click();
  await expect(
    page.getByText("You have 10 complete walkarounds on this type", { exact: false }).first(),
  ).toBeVisible();
  await button(page, "Items seen in one look").click();
  await button(page, "Done").click();
  await button(page, /^first of the day/i).click();
  const id = await walker.go();
  await expect(page.getByTestId("item-approach.stance")).toContainText("Does it sit level?");
  await expectAccessible(page, "card");

  // One answer records three events, and one undo removes all of them.
  const answered = async () =>
    (await eventsOnDevice(page, id)).filter(({ event }) => event.type === "item.answered").length;
  await walker.answer();
  await expect.poll(answered).toBe(3);
  await button(page, "Undo").click();
  await expect(page.getByTestId("item-approach.stance")).toContainText("any fresh drips?");

  const first = await confirmations(walker);
  // A healthy trainer for a daily pilot: seventy, plus the manual run-up, one known discrepancy, one added item and three values.
  expect(first.length).toBeLessThanOrEqual(70 + 4 + 5);
  expect(walker.taps).toBeLessThanOrEqual(200);
  await walker.goWithout();
  await button(page, "Accept the aircraft").click();

  await page.waitForURL(/line-up$/);
  await expect(page.getByTestId("line-up")).toContainText("Runway 24");
  await expect(page.getByTestId("line-up")).toContainText("heading 240°");
  await expectAccessible(page, "line-up check");
  await button(page, "Parked: after-flight checks").click();
  await button(page, "Cuts out").click();
  await walker.type("4231.3");
  await expect(page.getByText("4231.3 h")).toBeVisible();

  // The same pilot, minutes later: only what can have changed, and everything critical.
  await button(page, "Flying again soon: skip the rest").click();
  await button(page, /^turnaround/i).click();
  await expect(page.getByTestId("turnaround")).toContainText("all critical checks");
  walker.taps = 0;
  await walker.go();
  const again = await confirmations(walker);
  expect(again.length).toBeLessThanOrEqual(35 + 4 + 2);
  expect(walker.taps).toBeLessThanOrEqual(110);
  for (const kills of [
    "cockpit.ignition",
    "left-tank.cap",
    "right-gear.brake",
    "run-up.controls",
    "take-off.fuel",
  ])
    expect(again).toContain(kills);
  await walker.goWithout();
  await expect(page.getByTestId("verdict")).toContainText(/Go/);
});

test("a problem on a card is logged at one of its items; the others still need an answer", async ({
  page,
}) => {
  const walker = new Walker(page);
  await button(page, /Inês/).click();
  await walker.prepare("QX-TAR");
  await button(page, "Read-and-do").click();
  await button(page, "Items seen in one look").click();
  await button(page, "Done").click();
  const id = await walker.go();
  await walker.jumpTo("left-side.skin");
  await page.getByTestId("found-on-card").click();
  await expect(walker.title).toHaveText("Which item has the discrepancy?");
  await expectAccessible(page, "where on the card");
  await page.getByTestId("found-at-left-side.static").click();
  await expect(page.getByLabel("What was found")).toHaveValue(/^Left static port/);
  await button(page, "Log it").click();
  const card = page.getByTestId("item-left-side.skin");
  await expect(card).toContainText("Baggage door");
  await expect(card).not.toContainText("static port");
  await walker.answer();
  // An unclear sample is logged at its drain and followed up there.
  await walker.jumpTo("left-drain.1");
  await page.getByTestId("found-on-card").click();
  await page.getByTestId("found-at-left-drain.2").click();
  await page.getByTestId("look-water").click();
  await expect(page.getByTestId("drain-again")).toContainText("It is heavier");
  await button(page, "Drain again").click();
  await walker.primary.click();
  await expect(page.getByTestId("card-left-drains.cups")).toBeVisible();
  // A reload within a card of numbers loses none.
  await walker.jumpTo("run-up.place");
  for (const key of "150") await button(page, key).click();
  await button(page, "Next: Oil pressure").click();
  await expect(page.getByTestId("number-here")).toContainText("Oil pressure");
  await page.reload();
  await expect(page.getByTestId("number-run-up.oil-temperature")).toContainText("150");
  await walker.jumpToVerdict();
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await page.goto(`${cravix.url}/preflight/${id}/verdict`);
  await expect(page.getByText(/Left static port/).first()).toBeVisible();
});

test("a take-off aborted at the line-up is logged, and the next pilot sees it", async ({ page }) => {
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/);
  await walker.jumpToVerdict();
  await walker.goWithout();
  await button(page, "Accept the aircraft").click();
  await page.getByTestId("abort").click();
  await expect(walker.title).toHaveText("What made you stop?");
  await expectAccessible(page, "aborted");
  await button(page, /airspeed alive/).click();
  await expect(page.getByLabel("What was found")).toHaveValue(/^Take-off aborted/);
  await page.getByLabel("What was found").fill("Take-off aborted: no airspeed at 40 kt");
  await button(page, "Log it").click();
  await page.waitForURL(/after$/);
  const types = async () => (await cravix.eventsOnRecord(id)).map(({ type }) => type);
  await expect.poll(types).toEqual(expect.arrayContaining(["interrupted", "resumed", "discrepancy.opened"]));
  // The next preflight shows it before the aircraft moves.
  await page.goto(cravix.url);
  await expect(page.getByText(/no airspeed at 40 kt/).first()).toBeVisible();
});
