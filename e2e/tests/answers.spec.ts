import { PHONE, WIDE } from "../playwright.config";
import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice, written } from "../support/device";
import { expect, type Page, test } from "../support/test";
import { HEALTHY, tarrow4, Walker } from "../support/walker";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const open = async (page: Page) => {
  await page.goto(cravix.url);
  return new Walker(page);
};

/** Goes to an item through its station's phase. */
async function goTo(page: Page, walker: Walker, phase: string, itemId: string) {
  await page.getByRole("button", { name: new RegExp(`^${phase} \\d`) }).click();
  await walker.jumpTo(itemId);
}

test("an impossible number is reported at its field, stays on screen, and is not assessed", async ({
  page,
}) => {
  const walker = await open(page);
  const id = await walker.begin(/Tomasz/);
  const trouble = page.getByTestId("trouble");
  const typed = page.getByTestId("typed");
  const clear = async (digits: number) => {
    for (let i = 0; i < digits; i++) await page.getByRole("button", { name: "Delete" }).click();
  };

  await goTo(page, walker, "Fuel, oil", "left-tank.dip");
  await walker.type("31");
  await expect(trouble).toHaveText("The dipstick ends at 25 cm. Wipe it and dip again.");
  await expect(typed).toContainText("31");
  await expect(page.locator("[data-testid^=judgement]")).toHaveCount(0);
  await clear(2);
  await walker.press(walker.primary, "Enter");
  await expect(page.getByText("Enter the reading first.")).toBeVisible();
  await walker.type("16");

  await walker.jumpTo("oil.level");
  await walker.type("40");
  await expect(trouble).toContainText(
    "40.0 US qt is above the possible range (9.0 US qt). The dipstick is marked to 9 quarts.",
  );
  await clear(2);
  await walker.type("5.4");
  await walker.jumpTo("oil.cap");
  const oil = page.getByTestId("judgement-oil.level");
  await expect(oil).toContainText("Stop");
  await expect(oil).toContainText("0.6 US qt below the minimum.");
  await expect(oil).toContainText("Add 1 container of 1.0 US qt, wait, read again.");
  await expect(oil).toContainText("6.0 to 8.0 US qt");

  // Everything before it first: nobody boards with something still to put back.
  await page.getByRole("button", { name: /^Docs \d/ }).click();
  await walker.jumpTo("magneto.base");
  await walker.type("9000");
  await expect(trouble).toContainText("The tachometer ends at 3,500.");
  await clear(4);
  await walker.type("1800");

  // No drop at all is a stop, already while entering the number.
  await expect(walker.title).toHaveText("Magneto RIGHT: read the rpm");
  for (const key of "1800") await page.getByRole("button", { name: key, exact: true }).click();
  await expect(page.getByTestId("judgement-magneto.right")).toContainText("No drop on right:");
  await expect(page.getByTestId("judgement-magneto.right")).toContainText("Treat the propeller as live");
  await page.getByTestId("primary").click();
  await expect(walker.title).toHaveText("Magnetos BOTH: does the rpm come back?");

  // The flight is cancelled, but the finding is kept for the next pilot.
  await page.goto(page.url().replace(/$/, "/verdict"));
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await page.getByRole("button", { name: "Sign: not flying" }).click();
  await page.getByRole("button", { name: "Go to Aircraft" }).click();
  await expect(page.getByText(/Magneto, right: No drop on right/)).toBeVisible();
  await expect(page.getByText(/Oil: /)).toHaveCount(0);
  const readings = (await eventsOnDevice(page, id))
    .filter((e) => e.event.type === "reading.taken")
    .map((e) => (e.event.data as { value: number }).value);
  expect(readings).not.toContain(9000);
  expect(readings).not.toContain(31);
});

test("undo, postpone, and resuming at the start of the station after an interruption", async ({ page }) => {
  const walker = await open(page);
  await walker.begin(/Yuki/);
  await walker.jumpTo("papers.inspections");
  await page.getByRole("button", { name: "Undo" }).click();
  await expect(walker.title).toHaveText("Open discrepancies read");
  await page.getByRole("button", { name: "Postpone" }).click();
  await expect(walker.title).toHaveText("Inspections in date and in hours");
  await walker.walkTo("papers.hours");
  await walker.answer();
  // Postponed items return before the phase ends.
  await expect(walker.title).toHaveText("Open discrepancies read");
  await walker.answer();
  await walker.jumpTo("cockpit.brake");
  await page.getByRole("button", { name: "Interrupted" }).click();
  await expect(page.getByText("Ignition off, key out")).toBeVisible();
  await page.reload();
  await page.getByRole("button", { name: "Start this station again: Cockpit, power off" }).click();
  await expect(walker.title).toHaveText("Control lock: out and stowed");
});

test("an answer shown on screen is stored even if the page crashes at that moment", async ({ context }) => {
  let page = await context.newPage();
  await open(page);
  const id = await new Walker(page).begin(/Tomasz/);
  // Twice: waiting for storage before writing would lose most such answers, but not all.
  for (const answered of ["approach.stance", "approach.ground"]) {
    await expect(page.getByTestId(`item-${answered}`)).toBeVisible();
    const devtools = await context.newCDPSession(page);
    await page.exposeFunction("die", () => void devtools.send("Page.crash").catch(() => undefined));
    const crashed = page.waitForEvent("crash");
    await page.evaluate(() => {
      const asked = () => document.querySelector("h1")?.textContent;
      const before = asked();
      new MutationObserver(() => asked() !== before && (window as unknown as { die(): void }).die()).observe(
        document.body,
        { subtree: true, childList: true, characterData: true },
      );
      // After this call returns.
      setTimeout(() => document.querySelector<HTMLElement>("[data-testid=primary]")?.click(), 20);
    });
    await crashed;
    await page.close();
    page = await context.newPage();
    await page.goto(`${cravix.url}/preflight/${id}`);
    await page.locator('[data-testid^="item-"]').first().waitFor();
    const kept = (await eventsOnDevice(page, id)).map(({ event }) => event);
    expect(
      kept.some((event) => event.type === "item.answered" && event.data.itemId === answered),
      `${answered} is stored`,
    ).toBe(true);
  }
});

test("an unfinished discrepancy survives a reload, and only in its own preflight", async ({ page }) => {
  const walker = await open(page);
  const id = await walker.begin(/Inês/);
  const words = page.getByLabel("What was found");
  const asFirst = async () => {
    await expect(walker.card).toHaveAttribute("data-testid", "item-approach.stance");
    await page.getByRole("button", { name: "Found something" }).click();
    await expect(words).toBeVisible();
  };
  await asFirst();
  await words.fill("Leans to the right: tyre torn");
  await written(page);
  await page.goto(cravix.url);
  await walker.prepare("QX-HLD");
  await walker.go();
  await asFirst();
  await expect(words).not.toHaveValue(/torn/);
  await page.goto(`${cravix.url}/preflight/${id}`);
  await asFirst();
  await expect(words).toHaveValue("Leans to the right: tyre torn");
});

test("an answer from a device with a fast clock is rejected with the reason, kept, shown, and sent with the corrected time", async ({
  page,
}) => {
  await page.clock.setSystemTime(new Date(Date.now() + 3 * 3_600_000));
  const walker = await open(page);
  const id = await walker.begin(/Inês/);
  await expect(page.getByTestId("kept")).toContainText("rejected");
  await walker.answer();
  await page.getByTestId("kept").click();
  await expect(page.getByText("dated in the future: the device's clock is fast.").first()).toBeVisible();
  await expect
    .poll(async () => (await eventsOnDevice(page, id)).every((e) => e.sync === "refused"))
    .toBe(true);
  await expectAccessible(page, "kept");
  // Corrected here, with the original time on record.
  await page.getByTestId("correct-clock").click();
  await expect
    .poll(async () => (await eventsOnDevice(page, id)).every((e) => e.sync === "sent" && e.event.deviceAt))
    .toBe(true);
  expect((await cravix.eventsOnRecord(id)).length).toBeGreaterThan(1);
});

test("an invalid aircraft file is reported with its errors; a valid one is added", async ({ page }) => {
  await open(page);
  await page.getByRole("button", { name: /Yuki/ }).click();
  const give = async (name: string, text: string) => {
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Add an aircraft from a file" }).click();
    await (await chooser).setFiles({ name, mimeType: "application/json", buffer: Buffer.from(text) });
  };
  const message = page.getByTestId("file-message");
  await give("broken.json", '{"format": ');
  await expect(message).toContainText("broken.json is not valid. Nothing was changed.");
  await give("odd.json", JSON.stringify({ ...tarrow4, items: [{ ...tarrow4.items[0], kind: "guess" }] }));
  await expect(message).toContainText("items[0].kind");
  await give(
    "second.json",
    JSON.stringify({
      format: "cravix.aircraft/2",
      registration: "QX-TWO",
      typeId: "tarrow-4",
      year: 2003,
      base: "marram-point",
      ownItems: [],
    }),
  );
  await expect(message).toContainText("second.json was added.");
  await expect(page.getByRole("button", { name: /^QX-TWO/ })).toBeVisible();
});

test("an unknown aircraft, and an aircraft whose checklist is not written, are explained", async ({
  page,
}) => {
  await open(page);
  await page.getByRole("button", { name: /Yuki/ }).click();
  const add = async (file: object) => {
    const chooser = page.waitForEvent("filechooser");
    await page.getByRole("button", { name: "Add an aircraft from a file" }).click();
    const buffer = Buffer.from(JSON.stringify(file));
    await (await chooser).setFiles({ name: "stub.json", mimeType: "application/json", buffer });
    await expect(page.getByTestId("file-message")).toContainText("stub.json was added.");
  };
  const stub = "The checklist for the Ferrow has not been written yet.";
  await add({
    format: "cravix.aircraft-type/2",
    id: "ferrow",
    name: "Ferrow",
    what: "a kit that is being built",
    stub,
    stations: [],
    items: [],
  });
  await add({
    format: "cravix.aircraft/2",
    registration: "QX-FER",
    typeId: "ferrow",
    year: 2024,
    base: "marram-point",
    ownItems: [],
  });
  await page.getByRole("button", { name: /^QX-FER/ }).click();
  await expect(page.getByText(stub)).toBeVisible();
  await expect(page.getByRole("button", { name: "No checklist for this aircraft yet" })).toBeDisabled();
  await page.goto(`${cravix.url}/aircraft/QX-NON`);
  await expect(page.getByText("QX-NON is not one of your group's aircraft")).toBeVisible();
});

/** Checks both sizes on the same page, including what is open on it. */
async function accessibleAtBothSizes(page: Page, screen: string): Promise<void> {
  await expectAccessible(page, `${screen}, phone`);
  await page.setViewportSize(WIDE);
  await page.waitForTimeout(150);
  await expectAccessible(page, `${screen}, wide`);
  await page.setViewportSize(PHONE);
}

test("axe-core finds no problems on any screen, phone and wide", async ({ page }) => {
  const walker = await open(page);
  await page.getByRole("button", { name: /Inês/ }).waitFor();
  await expectAccessible(page, "who flies");
  await page.getByRole("button", { name: /Inês/ }).click();
  await page.getByRole("button", { name: "Prepare QX-" }).waitFor();
  await accessibleAtBothSizes(page, "today");
  await page.getByRole("button", { name: /^QX-TAR/ }).click();
  await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
  await page.getByRole("button", { name: "Start preflight" }).waitFor();
  await accessibleAtBothSizes(page, "start");
  for (const [button, there] of [
    ["Read-and-do", "Preferences"],
    ["Route", "All orders compared"],
    ["Today's checklist", "Different today"],
  ] as const) {
    await page.getByRole("button", { name: button }).click();
    await page.getByText(there).first().waitFor();
    await page.waitForTimeout(300);
    await expectAccessible(page, button);
    await page.getByRole("button", { name: /^(Back|Done)$/ }).click();
    await page.getByRole("button", { name: "Start preflight" }).waitFor();
  }
  await page.getByRole("button", { name: "Start preflight" }).click();
  await walker.walkTo("approach.ground");
  await accessibleAtBothSizes(page, "walk");
  await page.getByRole("button", { name: "Found something" }).click();
  await expectAccessible(page, "found");
  await page.getByRole("button", { name: "Back" }).click();
  await page.getByRole("button", { name: "Interrupted" }).click();
  await page.getByRole("button", { name: "Continue where I was" }).waitFor();
  await expectAccessible(page, "interrupted");
  await page.getByRole("button", { name: "Continue where I was" }).click();
  await goTo(page, walker, "Fuel, oil", "right-tank.cap");
  await accessibleAtBothSizes(page, "fluids");
  await page.getByRole("button", { name: /^Docs \d/ }).click();
  await walker.jumpTo("magneto.left");
  for (const key of HEALTHY["magneto.left"] ?? "")
    await page.getByRole("button", { name: key, exact: true }).click();
  await accessibleAtBothSizes(page, "run-up");
  await page.getByTestId("primary").click();
  await walker.jumpTo("take-off.trim");
  await expectAccessible(page, "line-up");
  await page.goto(page.url().replace(/$/, "/verdict"));
  await page.getByText("Still open:").waitFor();
  await accessibleAtBothSizes(page, "verdict");
  await page.getByRole("button", { name: "Preflight debrief" }).click();
  await page.getByText("Time at each station").waitFor();
  await expectAccessible(page, "debrief");
  await page.goto(`${cravix.url}/log`);
  await page.getByText("creep mark").first().waitFor();
  await accessibleAtBothSizes(page, "discrepancies");
  for (const [path, there] of [
    ["/log/walks", "Verdict, reasons"],
    ["/people", "Completed preflights"],
    ["/device", "Add to home screen"],
    ["/aircraft/QX-TAR", "QR code for the key tag"],
    ["/aircraft/QX-TAR/items", "Changes to save"],
    ["/aircraft/QX-TAR/logs", "Export CSV"],
  ] as const) {
    await page.goto(`${cravix.url}${path}`);
    if (path === "/log/walks") await page.getByRole("button", { name: /^QX-/ }).first().click();
    await page.getByText(there).first().waitFor();
    await page.waitForTimeout(300);
    await accessibleAtBothSizes(page, path);
  }
  await page.goto(`${cravix.url}/aircraft/QX-TAR/school`);
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Page not found");
  await page.getByTestId("primary").click();
  await expect(page).toHaveURL(/localhost:\d+\/$/);
  await page.goto(cravix.url);
  await page.getByRole("button", { name: "Night colours" }).click();
  await expectAccessible(page, "today, night");
});
