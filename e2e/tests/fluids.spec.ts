import { writeFileSync } from "node:fs";
import { expectAccessible } from "../support/accessibility";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { expect, type Page, test } from "../support/test";
import { HEALTHY, Walker } from "../support/walker";

let cravix: Cravix;
// Each test has its own group, because one preflight's measurements are the next one's log.
test.beforeEach(async ({ page }) => {
  cravix = await Cravix.launch();
  await page.goto(cravix.url);
});
test.afterEach(() => cravix.remove());

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });
const drain = (page: Page, step: string) => page.getByTestId(`drain-${step}`);

/** Refuels at the pump with a faulty receipt; the interface does not reveal the fault. */
async function pumpPrints(page: Page, trouble: string): Promise<void> {
  await page.route("**/api/v1/pump/deliveries", async (route) => {
    const order = JSON.parse(route.request().postData() ?? "{}");
    await route.continue({ postData: JSON.stringify({ ...order, trouble }) });
  });
}

test("a receipt in the wrong unit is detected: drain and dip again, with the correct value suggested", async ({
  page,
}) => {
  const readings = { ...HEALTHY };
  const walker = new Walker(page, "thumb", readings);
  await walker.begin(/Inês/);
  await walker.jumpTo("left-tank.cap");
  await page.getByTestId("open-fuel").click();
  await expect(page.getByTestId("sources-Left tank")).toContainText("Gauge");

  // Twenty litres into the left tank; the receipt says gallons.
  await pumpPrints(page, "wrong unit");
  await button(page, "Refuel").click();
  for (let i = 0; i < 4; i++) await button(page, "−5 litres").click();
  await expect(page.getByTestId("pump-litres")).toHaveText("20 L");
  await page.getByTestId("deliver").click();
  await expect(page.getByTestId("receipt")).toContainText("20.0 US gal");
  await page.getByTestId("log-receipt").click();

  // Drains and dip of that tank are asked again; the other tank was not dipped yet.
  const asked: string[] = [];
  readings["fuel.dip.left"] = "22";
  for (let id = await walker.itemId(); id !== "oil.level"; id = await walker.itemId()) {
    asked.push(id ?? "");
    await walker.answer();
  }
  expect(asked).toEqual(
    expect.arrayContaining(["left-drain.1", "left-tank.dip", "belly-drain.1", "right-tank.dip"]),
  );
  expect(asked.filter((id) => id.includes("drain"))).toHaveLength(13);
  await walker.jumpToVerdict();
  const reason = page.getByText(/the left tank took \d+ L: they do not agree/).first();
  await expect(reason).toBeVisible();
  await expect(page.getByText(/20 L would fit, not US gal/).first()).toBeVisible();
  // Water stirred up by refuelling has not settled: these samples do not count, and the time left is told.
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await expect(page.getByText(/^Sample these drains again in \d+ min\.$/).first()).toBeVisible();
});

test("water is found, drained, and stays on record", async ({ page }) => {
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/);
  await walker.jumpTo("left-drain.2");
  await page.getByTestId("look-water").click();
  await expect(drain(page, "again")).toContainText("It is heavier");
  // A reload keeps the sample.
  await page.reload();
  await expect(drain(page, "again")).toBeVisible();
  await button(page, "Drain again").click();
  await expect(page.getByTestId("drain-clock")).toBeVisible();
  await expectAccessible(page, "draining again");
  await walker.primary.click();
  await expect(walker.card).toHaveAttribute("data-testid", "item-left-drain.3");
  await expect(page.getByRole("button", { name: "Left tank, middle drain: clean" })).toBeVisible();
  await walker.jumpToVerdict();
  await expect(page.getByText(/Water found, clean at sample 2/).first()).toBeVisible();
  await walker.goWithout();
  await expect(page.getByTestId("verdict")).toContainText("Go, with notes");
  await expect
    .poll(async () => (await cravix.eventsOnRecord(id)).filter((e) => e.type === "sample.taken").length)
    .toBe(14);
});

test("water that does not clear: rock the wings, drain everything again, then stop with a discrepancy", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Inês/);
  await walker.jumpTo("left-drain.2");
  const water = async () => {
    if (await button(page, "Drain again").isVisible()) await button(page, "Drain again").click();
    await page.getByTestId("look-water").click();
  };
  for (let cup = 0; cup < 3; cup++) await water();
  await expect(drain(page, "rock")).toContainText("Bring it to the drain");
  await walker.primary.click();
  // Again from the first drain, although it was clean before.
  await expect(walker.card).toHaveAttribute("data-testid", "item-left-drain.1");
  await walker.answer();
  for (let cup = 0; cup < 3; cup++) await water();
  await expect(drain(page, "maintenance")).toContainText("call maintenance");
  await walker.primary.click();
  await expect(page.getByLabel("What was found")).toHaveValue(/Left tank, middle drain: 3 more samples/);
  await button(page, "Log it").click();
  await walker.jumpToVerdict();
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await expect(page.getByText(/Left tank, middle drain/).first()).toBeVisible();
  // The device may still be sending.
  const known = async () =>
    (await cravix.api<{ items: { text: string; grade: string }[] }>("/aircraft/QX-TAR/discrepancies")).items;
  await expect
    .poll(known)
    .toContainEqual(
      expect.objectContaining({ grade: "stop", text: expect.stringContaining("does not clear") }),
    );
});

test("a colourless sample needs a paper test, a green one is identified, and kerosene is a stop", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Inês/);
  await walker.jumpTo("left-drain.1");
  await page.getByTestId("look-colourless").click();
  await button(page, "Stays wet").click();
  await expect(drain(page, "again")).toContainText("All water");
  await button(page, "Undo").click();
  await expect(page.getByTestId("look-colourless")).toBeVisible();
  await page.getByTestId("look-colourless").click();
  await button(page, "Dries away").click();
  // An undyed grade is approved for this type: noted and accepted deliberately.
  await expect(drain(page, "clean")).toContainText("Unleaded avgas UL94");
  await button(page, "Accept this sample").click();
  await expect(walker.card).toHaveAttribute("data-testid", "item-left-drain.2");
  await page.getByTestId("look-wrong-colour").click();
  await button(page, "Green").click();
  await expect(drain(page, "maintenance")).toContainText("Avgas 100: not approved for this aircraft");
  await button(page, "Undo").click();
  await page.getByTestId("look-kerosene-smell").click();
  await expect(drain(page, "maintenance")).toContainText("kerosene");
});

test("low oil shows how much to add; added oil is logged and the dipstick is read again", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Inês/);
  await walker.jumpTo("oil.level");
  // The drawn dipstick can be set by touch or keypad.
  const stick = page.getByTestId("drawn-reading");
  const box = await stick.boundingBox();
  if (!box) throw new Error("no stick");
  await page.mouse.click(box.x + box.width * 0.3, box.y + box.height * 0.62);
  await expect(page.getByTestId("typed")).toContainText(/^[67](\.5)?US qt/);
  for (let i = 0; i < 3; i++) await button(page, "Delete").click();
  await walker.type("5.4");
  await expect(page.getByTestId("judgement-oil.level").filter({ visible: true }).first()).toContainText(
    "Add 1 container",
  );
  await page.getByTestId("add-oil").click();
  await expect(page.getByTestId("containers")).toHaveText("1 × 1 qt");
  await button(page, "already open").click();
  await expect(page.getByTestId("trouble")).toContainText("unopened");
  await expectAccessible(page, "adding oil");
  await button(page, "unopened").click();
  await expect(page.getByTestId("trouble")).toHaveCount(0);
  await button(page, "Oil added: log it").click();
  await expect(walker.card).toHaveAttribute("data-testid", "item-oil.level");
  await walker.type("6.4");
  await walker.jumpToVerdict();
  // Two quarts used since yesterday's reading: reported although the level is within limits again.
  await expect(page.getByText(/since the last reading/).first()).toBeVisible();
  await expect
    .poll(async () => JSON.stringify(await cravix.api("/aircraft/QX-TAR/oil-log?limit=3")))
    .toContain('"added"');
});

test("the radial is pulled through blade by blade; resistance is a stop", async ({ page }) => {
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/, { registration: "QX-COR" });
  await walker.jumpTo("propeller.pull-through");
  await button(page, /^Blade 1 of 6/).click();
  await button(page, /^Blade 2 of 6/).click();
  // Wait until the blade is stored before reloading.
  await expect
    .poll(async () => (await eventsOnDevice(page, id)).filter(({ event }) => event.type === "blade.pulled"))
    .toHaveLength(2);
  await page.reload();
  await expect(button(page, /^Blade 3 of 6/)).toBeVisible();
  await page.getByTestId("resists").click();
  await expect(page.getByLabel("What was found")).toHaveValue(
    /Blade 3 of 6 resists: possible hydraulic lock/,
  );
  await button(page, "Log it").click();
  // The oil waits for the pull-through, and a hydraulic lock is an immediate stop.
  await page.goto(`${cravix.url}/preflight/${id}/verdict`);
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await expect(page.getByText(/hydraulic lock/).first()).toBeVisible();
});

test("dipstick, gauge and log on one page, with slope, overnight, worst case and fuel to add", async ({
  page,
}) => {
  const walker = new Walker(page);
  await walker.begin(/Inês/);
  const preflight = page.url();
  await page.goto(`${preflight}/fuel`);
  await button(page, "Enough?").click();
  await expect(page.getByText(/^Dip every tank and set the flight time/)).toBeVisible();
  await page.goto(preflight);
  await walker.jumpTo("left-drain.1");
  await walker.jumpTo("oil.level");
  await page.getByTestId("open-fuel").click();
  const total = page.getByTestId("sources-All tanks");
  await expect(total).toContainText("Log");
  await expect(page.getByText(/they agree/).first()).toBeVisible();
  await expectAccessible(page, "dipstick, gauge and log");
  await button(page, "US gal").click();
  await expect(total).toContainText(/3\d\.\d US gal/);
  await expect(page.getByText(/dipstick 3\d\.\d US gal.*they agree/).first()).toBeVisible();
  await button(page, "L").click();
  await button(page, "Enough?").click();
  await expect(page.getByText(/10,000 simulated flights: none uses the reserve/)).toBeVisible();
  await expect(page.getByTestId("to-add")).toContainText("None: the reserve is kept");
  await button(page, "75 %").click();
  await expect(page.getByText(/38 L\/h/).first()).toBeVisible();
  await button(page, "−10 kilograms").click();
  await expect(page.getByText(/kg below the maximum take-off mass/)).toBeVisible();
  await expectAccessible(page, "is it enough");
  await button(page, "Slope, overnight").click();
  await button(page, "−1 degrees lowest temperature").click();
  await expect(page.getByText(/at most .* ml, /).first()).toBeVisible();
  await button(page, "+0.5 degrees to the right").click();
  await button(page, "How much").click();
  await expect(page.getByTestId("sources-Left tank")).toBeVisible();
  await button(page, "Refuel").click();
  await button(page, "By hand").click();
  await page.getByTestId("log-receipt").click();
  await expect(page.getByTestId("trouble")).toContainText("Enter the amount on the receipt");
});

test("receipts and logs are imported from tables: bad lines are reported, good ones saved, none twice", async ({
  page,
}, info) => {
  await chooseCrew(page, /Inês/);
  await page.goto(`${cravix.url}/aircraft/QX-HLD`);
  await page.getByRole("link", { name: "Fuel and oil log" }).click();
  await expect(page.getByTestId("oil-plot")).toBeVisible();
  await expect(page.getByText(/qt\/h$/).first()).toBeVisible();
  await expectAccessible(page, "the oil log");

  const log = info.outputPath("oil.csv");
  writeFileSync(
    log,
    "time,registration,entry,engine,amount,unit,hours,heat,grade\n2024-01-05,QX-HLD,level,,10.1,qt,2800.4,cold,\n2024-01-06,QX-HLD,level,,ten,qt,2802,cold,\n2024-01-07,QX-HLD,added,,1,qt,2803.1,,W100\n",
  );
  const add = async () => {
    const chooser = page.waitForEvent("filechooser");
    await button(page, "Import CSV into the oil log").click();
    await (await chooser).setFiles(log);
  };
  await add();
  await expect(page.getByTestId("log-message")).toContainText("2 entries imported, 1 not imported");
  await expect(page.getByTestId("csv-faults")).toContainText("Line 3, amount: expected a number");
  await add();
  await expect(page.getByTestId("log-message")).toContainText("0 entries imported, 2 already in the log");

  await button(page, "Fuel").click();
  const receipts = info.outputPath("receipts.csv");
  writeFileSync(
    receipts,
    "receipt,time,registration,tank,amount,unit,grade\n77,2026-01-02T10:00:00Z,QX-HLD,left,12,gal,100LL\n78,2026-01-02T10:00:00Z,QX-HLD,left,12,US gal,100LL\n",
  );
  await button(page, "Load a file").click();
  const chooser = page.waitForEvent("filechooser");
  await page.getByTestId("pick-receipts").click();
  await (await chooser).setFiles(receipts);
  await expect(page.getByTestId("csv-faults")).toContainText("Line 2, unit");
  await expect(page.getByTestId("receipt")).toContainText("12.0 US gal");
  await button(page, "Log this receipt").click();
  await expect(page.getByText(/12.0 US gal logged/)).toBeVisible();
  await expect
    .poll(async () => JSON.stringify(await cravix.api("/aircraft/QX-HLD/fuel-log?limit=1")))
    .toContain('"uplift"');
  const saved = page.waitForEvent("download");
  await button(page, "Export CSV of the fuel log").click();
  expect((await saved).suggestedFilename()).toBe("qx-hld-fuel-log.csv");
});
