import { expectAccessible } from "../support/accessibility";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { eventsOnDevice, written } from "../support/device";
import { expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** Load planned at home, fuel dipped at the aircraft: the plan becomes the preflight's, and measurements replace it. */

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());
test.beforeEach(({ page }) => page.goto(cravix.url));

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });

test.describe("offline", () => {
  // Offline on pages opened for the first time.
  test.use({ fetchesAhead: true });

  test("within limits when planned, overweight after the dip, with what would bring it within limits", async ({
    page,
    context,
  }) => {
    await chooseCrew(page, /Inês/);
    await page.goto(`${cravix.url}/aircraft/QX-TAR/loading`);
    await page.getByLabel("front seats, kg").waitFor();
    await context.setOffline(true);
    const result = page.getByTestId("loading-result");
    await page.getByLabel("front seats, kg").fill("340");
    await expect(page.getByRole("alert").first()).toContainText("Is this in pounds?");
    await button(page, "lb").click();
    await button(page, "kg").click();
    await page.getByLabel("front seats, kg").fill("165");
    await page.getByLabel("rear seats, kg").fill("140");
    await page.getByLabel("left tank, L").fill("120");
    await expect(page.getByText("It holds 98 L.")).toBeVisible();
    await page.getByLabel("left tank, L").fill("25");
    await page.getByLabel("right tank, L").fill("abc");
    await expect(page.getByText("Enter a number.")).toBeVisible();
    await expect(result).toHaveCount(0);
    await page.getByLabel("right tank, L").fill("25");
    await expect(result).toContainText("Within limits");
    // A pilot without a mass is still on board: nothing is within limits.
    await page.getByLabel("front seats, kg").fill("");
    await expect(result).toContainText("Enter the pilot's mass");
    await page.getByLabel("front seats, kg").fill("165");
    await page.getByLabel("aft shelf, kg").fill("30");
    await expect(result).toContainText("outside");
    await expect(page.getByText("8.0 kg over 22 kg in aft shelf.").first()).toBeVisible();
    await expect(page.getByTestId("changes")).toContainText("Remove 8 kg from aft shelf.");
    await page.getByLabel("aft shelf, kg").fill("0");
    await expect(result).toContainText("Within limits");
    await expectAccessible(page, "loading");
    await context.setOffline(false);

    // The dipstick gives the real fuel.
    await page.goto(cravix.url);
    const walker = new Walker(page);
    await walker.prepare("QX-TAR");
    await expect(page.getByTestId("load-today")).toContainText("within limits for the whole flight");
    const id = await walker.go();
    await walker.jumpToVerdict();
    await expect(page.getByTestId("verdict")).toContainText("Stop");
    await page.goto(`${cravix.url}/preflight/${id}/verdict`);
    await expect(
      page.getByText(/L more fuel than planned\. \d+ kg over 1,110 kg at take-off\./).first(),
    ).toBeVisible();
    // The server rejected nothing.
    expect((await eventsOnDevice(page, id)).filter(({ sync }) => sync === "refused")).toEqual([]);
    await expect(
      page
        .getByText(/[\d.]+ kg less on rear seats: seat a lighter person there\.|Take \d+ L less fuel/)
        .first(),
    ).toBeVisible();

    // Corrected at the aircraft and flown: a passenger stays behind.
    await page.getByTestId("load-today").click();
    await expect(page.getByText(/^Fuel as measured: left tank \d+ L, right tank \d+ L\.$/)).toBeVisible();
    await expect(page.getByTestId("loading-result")).toContainText("Stop: outside limits");
    await expectAccessible(page, "what is aboard");
    await page.getByLabel("rear seats, kg").fill("x");
    await expect(page.getByTestId("primary")).toBeDisabled();
    await page.getByLabel("rear seats, kg").fill("20");
    await expect(page.getByTestId("loading-result")).toContainText("Within limits");
    // The draft survives a reload, and converts to pounds and back.
    await page.reload();
    await expect(page.getByLabel("rear seats, kg")).toHaveValue("20");
    await button(page, "lb").click();
    await expect(page.getByLabel("rear seats, lb")).toHaveValue("44.1");
    await button(page, "kg").click();
    // Not recorded before it is confirmed.
    expect((await eventsOnDevice(page, id)).filter(({ event }) => event.type === "load.told")).toEqual([]);
    await page.getByTestId("primary").click();
    await page.waitForURL(/\/verdict$/);
    await walker.goWithout();
    await expect(page.getByTestId("verdict")).toContainText("Go");
    await button(page, "Accept the aircraft").click();
    await expect(page.getByTestId("line-up")).toBeVisible();
    await expect
      .poll(async () => (await cravix.eventsOnRecord(id)).map(({ type }) => type))
      .toEqual(expect.arrayContaining(["load.told", "verdict.signed"]));
  });
});

test("a glider with a light pilot shows the ballast needed, and an impossible aircraft file is rejected with its errors", async ({
  page,
}) => {
  await chooseCrew(page, /Maren/);
  await page.goto(`${cravix.url}/aircraft/QX-ANS/loading`);
  await page.getByLabel("front seat, kg").fill("62");
  await expect(page.getByText(/8.0 kg too light on front seat/).first()).toBeVisible();
  await page.getByLabel("front seat, kg").fill("72");
  await expect(page.getByTestId("loading-result")).toContainText("Within limits");
  // Her own mass is offered in the next aircraft, and only to her.
  await page.goto(`${cravix.url}/aircraft/QX-TAR/loading`);
  await page.getByTestId("own-mass").click();
  await expect(page.getByLabel("front seats, kg")).toHaveValue("72");
  await expect(page.getByTestId("own-mass")).toHaveCount(0);
  const bundle = await cravix.api<{ loading: object }>("/aircraft/QX-ANS");
  const sent = await fetch(`${cravix.url}/api/v1/files?check=true`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: JSON.stringify({ ...bundle.loading, burn: [["wing"]] }),
  });
  expect(sent.status).toBe(422);
  expect(await sent.json()).toMatchObject({ faults: [{ path: "burn" }, { path: "burn" }] });
});

test("an owner enters a new weighing: an arm from the nose is queried, one from the datum is used", async ({
  page,
}) => {
  await chooseCrew(page, /Yuki/);
  await page.goto(`${cravix.url}/aircraft/QX-TAR/loading`);
  await button(page, "Enter a new weighing report").click();
  const form = page.getByTestId("weighing-form");
  await button(page, "Save for everyone").click();
  await expect(form.getByRole("alert")).toHaveText([
    "Enter the date of the weighing.",
    "Enter the empty mass as a number.",
    "Enter the arm as a number.",
    "Enter the report's number and the workshop.",
  ]);
  const bundle = await cravix.api<{ loading: { weighing: { emptyKg: number; armMm: number } } }>(
    "/aircraft/QX-TAR",
  );
  const { emptyKg, armMm } = bundle.loading.weighing;
  await form.getByLabel("Date of weighing").fill("1850-11-20");
  await form.getByLabel("Empty mass, kg").fill(String(emptyKg + 6));
  await form.getByLabel("Empty CG arm, mm").fill(String(armMm + 1650));
  await form.getByLabel("Report number and workshop").fill("report 15, the workshop");
  await expect(form.getByRole("alert").first()).toContainText("further than a change of 6.0 kg can explain");
  await expect(button(page, "Save for everyone")).toBeDisabled();
  await expectAccessible(page, "new weighing");
  await form.getByLabel("Empty CG arm, mm").fill(String(armMm + 11));
  await button(page, "Save for everyone").click();
  await expect(form.getByRole("alert").first()).toContainText("date");
  // The draft survives a reload.
  await written(page);
  await page.reload();
  await button(page, "Enter a new weighing report").click();
  await form.getByLabel("Date of weighing").fill("2026-11-20");
  await expect(page.getByTestId("weighing-change")).toContainText("6.0 kg heavier, CG 11 mm further aft");
  await button(page, "Save for everyone").click();
  await expect(page.getByTestId("weighing")).toContainText(`${emptyKg + 6} kg at`);
  const after = await cravix.api<typeof bundle>("/aircraft/QX-TAR");
  expect(after.loading.weighing).toMatchObject({ emptyKg: emptyKg + 6, armMm: armMm + 11 });
});
