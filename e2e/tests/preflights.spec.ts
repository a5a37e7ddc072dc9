import { PHONE, WIDE } from "../playwright.config";
import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { expect, lastNoon, type Page, test } from "../support/test";
import { HALDEN, Walker } from "../support/walker";

// Independent tests run in parallel.
test.describe.configure({ mode: "parallel" });

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });
const kinds = async (page: Page, id: string, type: string) =>
  (await eventsOnDevice(page, id)).map(({ event }) => event).filter((event) => event.type === type);

test("the rigged glider: stopped alone; with a second person every surface is held, up to the verdict", async ({
  page,
}) => {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  await walker.takeTime(9000);
  await button(page, /Maren/).click();
  await walker.prepare("QX-ANS");
  // No engine and no battery: nothing about them is asked.
  await expect(page.getByText("How cold is it outside?")).toHaveCount(0);
  await button(page, /^just rigged/i).click();
  const id = await walker.go();

  // The first item for two people is postponed and returns; then Kofi joins.
  await walker.walkTo("cockpit.release");
  await walker.answer();
  await expect(page.getByTestId("blocked")).toContainText("Second person needed");
  await expectAccessible(page, "this takes two");
  await button(page, "Postpone until a second person is here").click();
  await expect(walker.title).toHaveText("ASI zero, altimeter set, compass full");
  await walker.walkTo("left-aileron.held");
  const pair = page.getByTestId("pair");
  await expect(pair).toContainText("Kofi answers:");
  await expect(pair).toContainText("“Pushes back”");
  await expectAccessible(page, "with two");
  await walker.walkTo("tail-left.held");
  await walker.walkToVerdict();
  await walker.goWithout();
  await expect(page.getByTestId("verdict")).toContainText("Go");
  await expect(page.getByText(/too quick for a proper look/)).toHaveCount(0);
  const answers = await kinds(page, id, "item.answered");
  const held = answers.filter(
    (event) => event.type === "item.answered" && event.data.itemId.endsWith(".held"),
  );
  expect(held).toHaveLength(5);
  expect(held.every((event) => event.type === "item.answered" && event.data.byCrewId === "kofi")).toBe(true);
  expect((await kinds(page, id, "crew.joined")).length).toBe(1);

  // The dolly goes back on afterwards.
  await button(page, "Accept the aircraft").click();
  await button(page, "Parked: after-flight checks").click();
  await expect(page.getByText("Tail dolly on")).toBeVisible();
});

test("the six-seater in frost at night, by keyboard on a wide screen: pitot heat and lights in a quick round, battery assessed", async ({
  page,
}) => {
  await page.setViewportSize(WIDE);
  await page.goto(cravix.url);
  const starter = new Walker(page);
  await starter.takeTime(8000);
  await button(page, /Inês/).click();
  await starter.prepare("QX-HLD");
  for (const condition of ["night", "frost"])
    await button(page, new RegExp(`^${condition}( \\+\\d+)?$`, "i")).click();
  await button(page, "+5 degrees").click();
  for (let i = 0; i < 4; i++) await button(page, "−5 degrees").click();
  await expect(page.getByTestId("celsius")).toHaveText("−5 °C");
  const id = await starter.go();
  const walker = new Walker(page, "keys", HALDEN);
  walker.knows("QX-HLD");
  await walker.takeTime(8000, lastNoon().getTime() - 3_000_000);
  await walker.walkTo("quick.tail");
  const battery = page.getByTestId("battery");
  await expect(battery).toContainText("enough battery to start for another");
  await expect(battery).toContainText("26 A");
  await walker.walkTo("left-leading.frost");
  await expect(page.getByText("today: frost")).toBeVisible();
  await expect(page.getByText("Do not scrape it")).toBeVisible();
  await walker.walkToVerdict();
  await expect(page.getByText("Battery for engine start")).toBeVisible();
  await walker.goWithout();
  await expect(page.getByTestId("verdict")).toContainText("Go");
  await expect(page.getByText("Measured and within limits:")).toBeVisible();
  // On this type surfaces are only inspected, and controls come before the brake.
  const asked = (await kinds(page, id, "item.answered")).map((event) =>
    event.type === "item.answered" ? event.data.itemId : "",
  );
  expect(asked).toContain("left-aileron.gap");
  expect(asked).not.toContain("left-aileron.free");
  expect(asked.indexOf("run-up.controls")).toBeLessThan(asked.indexOf("run-up.brake"));
});

test("two interruptions, one reported and one detected: both resume by the rule and are recorded", async ({
  page,
}) => {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  await walker.takeTime(7000);
  await button(page, /Tomasz/).click();
  await walker.prepare("QX-TAR");
  await button(page, "Read-and-do").click();
  await button(page, "Three items back").click();
  await button(page, "Done").click();
  const id = await walker.go();

  // Someone talks to him.
  await walker.walkTo("tail.balance-weights");
  await button(page, "Interrupted").click();
  await expect(page.getByText("The last thing you answered")).toBeVisible();
  await expect(page.getByText("Rudder: hinges, cables, horn")).toBeVisible();
  await page.getByTestId("primary").click();
  // Three items back, and those are repeated.
  await expect(page.getByTestId("item-tail.elevator-free")).toBeVisible();
  await walker.walkTo("right-tip.play");

  // The telephone rings: the screen is left for a minute.
  const hide = (state: "hidden" | "visible") =>
    page.evaluate((next) => {
      Object.defineProperty(document, "visibilityState", { configurable: true, get: () => next });
      document.dispatchEvent(new Event("visibilitychange"));
    }, state);
  await hide("hidden");
  await walker.takeTime(7000, (await page.evaluate(() => Date.now())) + 60_000);
  await hide("visible");
  await expect(walker.title).toHaveText("You were away");
  await expect(page.getByText(/No answer for \d+ seconds/)).toBeVisible();
  await expectAccessible(page, "away");
  await button(page, "Start this station again: Right wing tip").click();
  await expect(page.getByTestId("item-right-tip.light")).toBeVisible();
  await walker.answer();

  // Dead battery, a reload, and a quarter of an hour: also an interruption.
  await walker.takeTime(7000, (await page.evaluate(() => Date.now())) + 15 * 60_000);
  await page.reload();
  await expect(walker.title).toHaveText("Long pause");
  await button(page, "Continue where I was").click();
  await expect(page.getByTestId("item-right-tip.play")).toBeVisible();
  await walker.answer();
  await page.goto(`${cravix.url}/preflight/${id}/verdict`);

  const interrupted = await kinds(page, id, "interrupted");
  expect(interrupted.map((event) => event.type === "interrupted" && event.data.cause)).toEqual([
    "spoken to",
    "screen left",
    "long gap",
  ]);
  const ways = (await kinds(page, id, "resumed")).map((event) => event.type === "resumed" && event.data.way);
  expect(ways).toEqual(["some items back", "start of the station", "where I was"]);
  await button(page, "Preflight debrief").click();
  await expect(page.getByText("Interruptions: 3")).toBeVisible();
  await expect(
    page.getByText("Away from the screen at “Right tip: lift gently”: went back: start of the station"),
  ).toBeVisible();
});

test("flow, then check, on cards: the check finds an item missed in the flow, and a hurried flow gets a friendly reminder", async ({
  page,
}) => {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  await button(page, /Inês/).click();
  await walker.prepare("QX-TAR");
  await button(page, "Read-and-do").click();
  await button(page, "Flow, then check").click();
  await button(page, "Items seen in one look").click();
  await button(page, "Done").click();
  await expect(button(page, "Flow, then check")).toBeVisible();
  const id = await walker.go();
  while ((await page.getByTestId("flow-left-side").count()) === 0) await walker.answer();
  await page.getByTestId("primary").click();
  await expect(page.getByTestId("flow-tail")).toBeVisible();
  await expect(page.getByTestId("pace")).toContainText("too fast to have looked at each one");
  await expectAccessible(page, "flow");
  await walker.walkTo("left-side.skin");
  const flowed = await kinds(page, id, "station.flowed");
  expect(flowed).toHaveLength(14);
  await page.getByTestId("missed-on-card").click();
  await page.getByTestId("found-at-left-side.skin").click();
  await walker.walkTo("left-drain.1");
  // The cockpit was answered all at once: shown only to the pilot.
  await page.goto(`${cravix.url}/preflight/${id}/debrief`);
  await expect(page.getByText("Caught by the checklist: 1")).toBeVisible();
  await expect(
    page.getByText("Left side, behind the door: Left side and belly: skin and rivets"),
  ).toBeVisible();
  await expect(page.getByText(/items in \d+ s: too fast to have looked at each one/).first()).toBeVisible();

  // Preferences belong to pilot and aircraft: kept for next time, and on other devices through the record.
  await page.setViewportSize(PHONE);
  await page.goto(`${cravix.url}/aircraft/QX-TAR/preferences`);
  await expect(button(page, "Flow, then check")).toHaveAttribute("aria-pressed", "true");
});
