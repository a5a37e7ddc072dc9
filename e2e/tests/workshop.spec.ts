import { newId } from "@cravix/contract/new-id";
import sharp from "sharp";
import { expectAccessible } from "../support/accessibility";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** Photos, measures and merging, components and meters, the workshop plan moved by hand, and due items of people. */

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());
test.beforeEach(({ page }) => page.goto(cravix.url));

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });

/** A photo as from a camera: large, with location and camera data. */
const camera = (red: number) =>
  sharp({ create: { width: 3000, height: 2000, channels: 3, background: { r: red, g: 80, b: 60 } } })
    .withExif({ IFD0: { Make: "Some Maker" }, IFD3: { GPSLatitudeRef: "N", GPSLatitude: "51/1 30/1 0/1" } })
    .jpeg()
    .toBuffer();

async function photograph(page: Page, name: string, buffer: Buffer) {
  const [chooser] = await Promise.all([
    page.waitForEvent("filechooser"),
    page.getByTestId("add-photograph").first().click(),
  ]);
  // Browsers may discard a detached input while the file dialog is open: the photo would never arrive.
  const asked = page.locator('input[type="file"]');
  await expect(asked).toHaveCount(1);
  await chooser.setFiles({ name, mimeType: "image/jpeg", buffer });
  await expect(asked).toHaveCount(0);
}

interface Found {
  id: string;
  text: string;
  photographs?: { photograph: string; width: number }[];
}
const found = async (text: string) =>
  (await cravix.api<{ items: Found[] }>("/discrepancies?state=all")).items.find((d) => d.text === text);

test.describe("offline", () => {
  // Offline on pages opened for the first time.
  test.use({ fetchesAhead: true });

  test("a photo taken offline: small, without location, sent later, and seen by the next pilot at its station", async ({
    page,
    context,
    browser,
  }) => {
    const walker = new Walker(page);
    await walker.begin(/Inês/, { conditions: ["night"] });
    await walker.jumpTo("left-leading.landing-light");
    await context.setOffline(true);
    await button(page, "Found something").click();
    await page.getByLabel("What was found").fill("Landing light: glass cracked");
    // A file that is not an image is reported in place, and nothing is lost.
    await photograph(page, "notes.jpg", Buffer.from("no picture at all"));
    await expect(page.getByRole("alert")).toContainText("not a photo this browser can read");
    await expect(page.getByLabel("What was found")).toHaveValue("Landing light: glass cracked");
    await photograph(page, "one.jpg", await camera(200));
    await expect(page.getByRole("button", { name: "Photo 1 of 1" })).toBeVisible();
    await photograph(page, "one.jpg", await camera(200));
    await expect(page.getByRole("alert")).toContainText("already added");
    await photograph(page, "two.jpg", await camera(90));
    await page.getByRole("button", { name: "Photo 2 of 2" }).click();
    await expect(page.getByRole("img", { name: "Large photo of the discrepancy" })).toBeVisible();
    await expectAccessible(page, "found, with photographs");
    await button(page, "Log it").click();
    await expect(page.getByTestId("add-photograph")).toHaveCount(0);
    expect(await found("Landing light: glass cracked")).toBeUndefined();
    await context.setOffline(false);
    let hashes: string[] = [];
    await expect(async () => {
      const one = await found("Landing light: glass cracked");
      hashes = (one?.photographs ?? []).map((p) => p.photograph);
      expect(hashes).toHaveLength(2);
      for (const hash of hashes)
        expect((await fetch(`${cravix.url}/api/v1/photographs/${hash}`)).status).toBe(200);
    }).toPass();
    const kept = Buffer.from(
      await (await fetch(`${cravix.url}/api/v1/photographs/${hashes[0]}`)).arrayBuffer(),
    );
    expect(await sharp(kept).metadata()).toMatchObject({ width: 1600, height: 1067, format: "webp" });
    expect((await sharp(kept).metadata()).exif).toBeUndefined();

    // The next pilot, on another device; downloaded photos are available offline.
    const next = await browser.newContext({ baseURL: cravix.url });
    const other = await next.newPage();
    await other.goto("/");
    const second = new Walker(other);
    await second.begin(/Yuki/);
    const id = (await found("Landing light: glass cracked"))?.id;
    await second.jumpTo(`known:${id}`);
    await expect(other.getByRole("button", { name: /^Photo \d of 2$/ })).toHaveCount(2);
    await expect(other.getByRole("img", { name: "Photo 1 of 2" }).first()).toBeVisible();
    // They are on this device now.
    await next.setOffline(true);
    await other.getByRole("button", { name: "Photo 2 of 2" }).click();
    await expect(other.getByRole("img", { name: "Large photo of the discrepancy" })).toBeVisible();
    await next.close();
  });
});

/** Logged on another device, outside any preflight. */
async function logApart(text: string): Promise<string> {
  const id = newId(Date.now() - 60_000);
  const event = {
    id,
    type: "discrepancy.opened",
    stream: "aircraft",
    streamId: id,
    deviceId: newId(Date.now()),
    crewId: "ines",
    at: new Date(Date.now() - 60_000).toISOString(),
    data: { discrepancyId: id, registration: "QX-TAR", stationId: "right-gear", text, grade: "watch" },
  };
  const response = await fetch(`${cravix.url}/api/v1/events`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ events: [event] }),
  });
  expect(await response.json()).toMatchObject({ taken: 1 });
  return id;
}

test("a mechanic sets a limit, merges two discrepancies, moves an engine and replaces a meter", async ({
  page,
}) => {
  await chooseCrew(page, /Kofi/);
  await page.goto(`${cravix.url}/log`);
  await page.getByText("creep mark parted").first().click();
  const measured = page.getByTestId("measured");
  await expect(measured).toContainText("Measurements over time flown");
  await page.getByTestId("set-limit").click();
  await page.getByLabel("Limit", { exact: true }).fill("-1");
  await expect(measured.getByRole("alert")).toContainText("Enter a number of 0 or more.");
  await page.getByLabel("Limit", { exact: true }).fill("6");
  await page.getByLabel("Source of the limit").fill("wheel card");
  await page.getByTestId("save-limit").click();
  await expect(measured).toContainText("Limit 6 mm: wheel card.");
  await expect(measured).toContainText("to the limit");
  await expectAccessible(page, "a discrepancy that is measured");

  // The same fault logged again: merged as evidence of the first.
  const again = await logApart("Right wheel: mark has moved");
  await page.reload();
  await page.getByText("mark has moved").first().click();
  await page.getByTestId("merge").click();
  await page
    .getByTestId("merging")
    .getByRole("button", { name: /creep mark parted/ })
    .click();
  await page.getByTestId("save-merged").click();
  await expect(page.getByText("Merged: 1")).toBeVisible();
  await page.getByText("creep mark parted").first().click();
  await expect(page.getByTestId("discrepancy-detail")).toContainText(
    "Merged into this one: Right wheel: mark has moved",
  );
  await expect(async () => {
    const { items } = await cravix.api<{ items: { id: string }[] }>("/discrepancies?state=open");
    expect(items.map(({ id }) => id)).not.toContain(again);
  }).toPass();

  await page.goto(`${cravix.url}/aircraft/QX-DOV/components`);
  await page.getByTestId("replace-hours").click();
  await page.getByLabel("Old meter reading").fill("2800");
  await expect(page.getByRole("alert")).toContainText("The log already shows 2,874.6");
  await page.getByLabel("Old meter reading").fill("2874.65");
  await expect(page.getByRole("alert")).toContainText("too many digits");
  await page.getByLabel("Old meter reading").fill("2874.6");
  await page.getByTestId("save-meter").click();
  await expect(page.getByTestId("meter-hours")).toContainText("2,874.6 h total; the meter shows 0.0");
  await page.getByTestId("remove-engine-right").click();
  await page.getByTestId("save-removed").click();
  await expect(page.getByTestId("component-engine-right")).toHaveCount(0);
  await expectAccessible(page, "meters and components");
  // In storage once the server has it; its times continue from there.
  await page.goto(`${cravix.url}/aircraft/QX-HLD/components`);
  await page.getByTestId("fit-component").click();
  await button(page, /^Right engine, from QX-DOV: 705\.3 h/).click();
  await page.getByLabel("Position on the aircraft").fill("engine");
  await page.getByTestId("save-fitted").click();
  await expect(page.getByRole("alert")).toContainText(
    "Engine is already fitted at this position. Remove it first.",
  );
  await page.getByTestId("remove-engine").click();
  await page.getByTestId("save-removed").click();
  await page.getByTestId("save-fitted").click();
  await expect(page.getByTestId("component-QX-DOV.engine-right")).toContainText("705.3 h since new");
  await page.goto(`${cravix.url}/aircraft/QX-DOV/due`);
  await expect(page.getByText("Right engine overhaul")).toHaveCount(0);
  await expect(page.getByText("Left engine overhaul").first()).toBeVisible();
});

test("the workshop plan is changed by keyboard and mouse, shows the cost, and is published", async ({
  page,
}) => {
  await page.setViewportSize({ width: 1280, height: 800 });
  await chooseCrew(page, /Kofi/);
  await page.goto(`${cravix.url}/log/workshop`);
  const row = page.getByTestId("visits-QX-LUM");
  await expect(row).toContainText("visits");
  await expect(row).not.toContainText("by hand");
  const bead = row.getByTestId("bead-0");
  const day = async () => (await bead.getAttribute("aria-label")) ?? "";
  const before = await day();
  // By keyboard: picked up, three weeks earlier, dropped.
  await bead.focus();
  await page.keyboard.press("Space");
  for (let i = 0; i < 3; i++) {
    await page.waitForTimeout(100);
    await page.keyboard.press("Shift+ArrowLeft");
  }
  await page.waitForTimeout(100);
  await page.keyboard.press("Space");
  await expect(row).toContainText("by hand");
  await expect(row).toContainText("more of an interval is lost");
  expect(await day()).not.toBe(before);
  // By mouse, far too late.
  const box = await bead.boundingBox();
  if (!box) throw new Error("no bead");
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(box.x + 60, box.y + 20, { steps: 4 });
  await page.mouse.move(box.x + 150, box.y + 20, { steps: 4 });
  await page.mouse.up();
  await expect(row.getByRole("alert").first()).toContainText("overdue at the visit");
  await expectAccessible(page, "workshop, moved by hand");
  await row.getByRole("button", { name: "Restore the best plan" }).click();
  await expect(row).not.toContainText("by hand");
  expect(await day()).toBe(before);
  await bead.click();
  await page.getByTestId("visit").getByRole("button", { name: "−1 week" }).click();
  await expect(row).toContainText("by hand");

  await page.getByTestId("add-closed").click();
  const year = new Date().getFullYear() + 1;
  await page.getByLabel("From", { exact: true }).fill(`${year}-01-15`);
  await page.getByLabel("To (empty: the same day)").fill(`${year}-01-04`);
  await page.getByTestId("save-closed").click();
  await expect(page.getByTestId("closed-days").getByRole("alert")).toContainText(
    "a date not before the first day",
  );
  await page.getByLabel("From", { exact: true }).fill(`${year}-01-04`);
  await page.getByLabel("To (empty: the same day)").fill(`${year}-01-15`);
  await page.getByLabel("Why", { exact: true }).fill("stocktaking");
  await page.getByTestId("save-closed").click();
  await expect(page.getByTestId("closed-days")).toContainText("stocktaking");
  // Unpublished changes survive a reload.
  await page.reload();
  await expect(row).toContainText("by hand");
  await page.getByTestId("publish-plan").click();
  await expect(page.getByTestId("published-plan")).toContainText("Published by Kofi Asantewe");
  const { plan } = await cravix.api<{
    plan: { closed: { why: string }[]; visits: { registration: string; byHand?: true }[] };
  }>("/workshop");
  expect(plan.closed).toMatchObject([{ why: "stocktaking" }]);
  expect(new Set(plan.visits.filter((v) => v.byHand).map((v) => v.registration))).toEqual(
    new Set(["QX-LUM"]),
  );
  for (const [words, name] of [
    ["Export to calendar (iCalendar)", "workshop-plan.ics"],
    ["Export CSV", "workshop-plan.csv"],
  ] as const) {
    const [download] = await Promise.all([page.waitForEvent("download"), button(page, words).click()]);
    expect(download.suggestedFilename()).toBe(name);
  }
});

test("a person's due items are visible to that person and instructors; a student cannot widen an authorisation", async ({
  page,
}) => {
  await chooseCrew(page, /Inês/);
  await page.goto(`${cravix.url}/people`);
  const due = page.getByTestId("person-due");
  await expect(due.getByTestId("person-medical")).toContainText("days left");
  await expect(due.getByTestId("person-review")).not.toContainText("Renew");
  await expectAccessible(page, "due items of a person");
  await due.getByTestId("renew-medical").click();
  await page.getByLabel("Valid until").fill("2031-02-28");
  await due.getByTestId("save-renewed").click();
  await expect(due.getByTestId("person-medical")).toContainText("28 February 2031");
  // Other people's due items are private.
  await button(page, /^Tomasz Wierzba/).click();
  await expect(page.getByText("Only Tomasz, instructors and administrators can see")).toBeVisible();
  await expect(page.getByText("Solo in QX-TAR")).toHaveCount(0);
  // Before a night flight with passengers, missing recency is shown to the pilot only.
  await page.goto(cravix.url);
  await new Walker(page).prepare("QX-TAR");
  await button(page, /^night/i).click();
  await button(page, /^passengers/i).click();
  await expect(page.getByTestId("pilot-due")).toContainText("Stop: Night passenger recency");

  await button(page, /Back/).first().click();
  await page.goto(`${cravix.url}/people`);
  await button(page, /^Maren Holtby/).click();
  await button(page, /^Switch to Maren/).click();
  await button(page, /^Tomasz Wierzba/).click();
  await expect(page.getByTestId("person-solo")).toContainText("In date until");
  await page.getByTestId("add-person-due").click();
  await button(page, "Solo authorisation").click();
  await button(page, "QX-LUM").click();
  await page.getByLabel("Valid until").fill("2031-06-30");
  await page.getByTestId("save-person-due").click();
  await expect(page.getByTestId("person-solo-qx-lum")).toContainText("30 June 2031");
});

test("personal minimums entered during a preflight survive rotating the device, are saved, and do not change that preflight", async ({
  page,
}) => {
  await page.setViewportSize({ width: 390, height: 844 });
  await page.goto(cravix.url);
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/);
  const before = (await eventsOnDevice(page, id)).map(({ event }) => event.id);
  await page.goto(`${cravix.url}/people`);
  await button(page, /^Inês Valadares/).click();
  await page.getByTestId("add-person-due").click();
  await page.getByRole("button", { name: "Personal minimums" }).first().click();
  const wind = page.getByLabel("Wind, at most, kt", { exact: true });
  await wind.fill("90");
  await expect(page.getByText("From 0 to 60.")).toBeVisible();
  await wind.fill("41");
  await page.setViewportSize({ width: 1280, height: 800 });
  await expect(wind).toHaveValue("41");
  await page.getByTestId("save-person-due").click();
  await expect(page.getByText(/41 kt/).first()).toBeVisible();
  await expect(page.getByTestId("minima-fields")).toHaveCount(0);
  expect((await eventsOnDevice(page, id)).map(({ event }) => event.id)).toEqual(before);
});
