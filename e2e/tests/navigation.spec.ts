import jsQR from "jsqr";
import { PNG } from "pngjs";
import { PHONE, WIDE } from "../playwright.config";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

// Independent tests run in parallel.
test.describe.configure({ mode: "parallel" });

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });
const link = (page: Page, name: string) => page.getByRole("link", { name, exact: true });
const heading = (page: Page) => page.getByRole("heading", { level: 1 });

/** Every page: address, heading, browser title. */
const PAGES: [path: string, head: string, title: string][] = [
  ["/", "Aircraft", "Aircraft"],
  ["/aircraft/QX-HLD", "QX-HLD", "QX-HLD"],
  ["/aircraft/QX-HLD/prepare", "QX-HLD", "Prepare QX-HLD"],
  ["/aircraft/QX-HLD/list", "Today's checklist", "QX-HLD checklist"],
  ["/aircraft/QX-HLD/route", "Walkaround route", "QX-HLD route"],
  ["/aircraft/QX-HLD/preferences", "Preferences", "QX-HLD preferences"],
  ["/aircraft/QX-HLD/items", "QX-HLD: added items", "QX-HLD: added items"],
  ["/aircraft/QX-HLD/logs", "QX-HLD: fuel and oil", "QX-HLD: fuel and oil"],
  ["/aircraft/QX-HLD/due", "QX-HLD: due items", "QX-HLD due items"],
  ["/aircraft/QX-HLD/flights", "QX-HLD: technical log", "QX-HLD technical log"],
  ["/aircraft/QX-HLD/components", "QX-HLD: meters and components", "QX-HLD meters and components"],
  ["/aircraft/QX-HLD/loading", "QX-HLD: mass and balance", "QX-HLD mass and balance"],
  ["/aircraft/QX-HLD/plan", "QX-HLD: weather and performance", "QX-HLD weather and performance"],
  ["/aircraft/QX-HLD/carry", "QX-HLD: flight summary", "QX-HLD flight summary"],
  ["/plan", "Plan", "Plan"],
  ["/log", "Log", "Log"],
  ["/log/workshop", "Log", "Log"],
  ["/log/walks", "Log", "Log"],
  ["/people", "People", "People"],
  ["/device", "This device", "This device"],
];

test("every page opens by its link, has its own title at both sizes, and leads back", async ({ page }) => {
  await page.goto(cravix.url);
  await button(page, /Inês/).click();
  await expect(button(page, /^Prepare/)).toBeVisible();
  for (const [place, [path, head, title]] of PAGES.entries()) {
    await page.setViewportSize(PHONE);
    await page.goto(`${cravix.url}${path}`);
    await expect(heading(page), path).toHaveText(head);
    await expect(page, path).toHaveTitle(`${title} · Cravix`);
    await page.setViewportSize(WIDE);
    // A wide screen shows one aircraft beside the list.
    await expect(heading(page), path).toHaveText(
      head === "QX-HLD" && !path.endsWith("prepare") ? "Aircraft" : head,
    );
    await expect(page, path).toHaveTitle(`${path === "/aircraft/QX-HLD" ? "Aircraft" : title} · Cravix`);
    // Back works alike at both sizes: alternate.
    if (place % 2 === 0) {
      await page.setViewportSize(PHONE);
      // Resizing rerenders the page; elements may be replaced meanwhile.
      await page.evaluate(
        () => new Promise((turned) => requestAnimationFrame(() => requestAnimationFrame(turned))),
      );
    }
    const back = page.getByTestId("back");
    if ((await back.count()) > 0) {
      await back.click();
      // A page opened by a link goes back to its parent.
      await expect(page, path).not.toHaveURL(`${cravix.url}${path}`);
      await expect(heading(page)).toBeVisible();
    } else if (path === "/aircraft/QX-HLD/preferences") {
      await button(page, "Done").click();
      await expect(page).toHaveURL(/prepare$/);
    }
  }
});

test("through all destinations and back, with keyboard focus on the heading", async ({ page }) => {
  await page.goto(cravix.url);
  await button(page, /Inês/).click();
  await expect(button(page, /^Prepare/)).toBeVisible();
  const way = [
    [link(page, "Log"), /\/log$/],
    [link(page, "Preflights"), /\/log\/walks$/],
    [link(page, "People"), /\/people$/],
    [link(page, "This device"), /\/device$/],
  ] as const;
  for (const [target, address] of way) {
    await target.focus();
    await page.keyboard.press("Enter");
    await expect(page).toHaveURL(address);
    await expect(heading(page)).toBeFocused();
  }
  for (const address of [/\/people$/, /\/log\/walks$/, /\/log$/, /localhost:\d+\/$/]) {
    await page.goBack();
    await expect(page).toHaveURL(address);
    await expect(heading(page)).toBeVisible();
  }
  await page.goForward();
  await expect(heading(page)).toHaveText("Log");
  await page.goBack();

  // Into a preflight and out: it is not in the history.
  await button(page, /^QX-TAR/).click();
  await new Walker(page).prepare("QX-TAR");
  await link(page, "Aircraft")
    .isVisible()
    .then((seen) => expect(seen).toBe(false));
  await new Walker(page).go();
  await expect(heading(page)).toBeFocused();
  await button(page, /^To put back/).click();
  await expect(heading(page)).toHaveText("QX-TAR: nothing to put back");
  await page.getByTestId("back").click();
  await expect(heading(page)).toHaveText("Does it sit level?");
  await page.goBack();
  await expect(page).toHaveURL(/localhost:\d+\/$/);
  await expect(button(page, "Resume QX-TAR")).toBeVisible();
});

test.describe("offline", () => {
  // On pages opened for the first time.
  test.use({ fetchesAhead: true });

  test("the first page shows the status of each aircraft, including findings on this device, also offline", async ({
    page,
    context,
  }) => {
    await page.clock.setSystemTime(new Date());
    await page.goto(cravix.url);
    await button(page, /Yuki/).click();
    const tarrow = page.getByTestId("aircraft-QX-TAR");
    await expect(tarrow).toContainText("With notes");
    await expect(tarrow).toContainText("creep mark");
    await expect(tarrow).toContainText(/Fuel \d+ L/);
    await expect(tarrow).toContainText(/Oil \d\.\d qt/);
    await expect(tarrow).toContainText("Last flown 1 day ago");
    const six = page.getByTestId("aircraft-QX-LUM");
    await expect(six).toContainText("No known problems");
    const walker = new Walker(page);
    await walker.prepare("QX-LUM");
    await walker.go();
    await context.setOffline(true);
    await button(page, "Found something").click();
    await page.getByLabel("What was found").fill("Fuel drips from the cowling");
    await button(page, /^Stop/).click();
    await button(page, "Log it").click();
    await button(page, "Leave").click();
    await expect(six).toContainText("Stop");
    await expect(six).toContainText("Fuel drips from the cowling");
    await context.setOffline(false);
  });
});

test("the QR code on the key tag opens the aircraft", async ({ page }) => {
  await page.goto(cravix.url);
  await chooseCrew(page, /Inês/);
  await page.goto(`${cravix.url}/aircraft/QX-DOV`);
  await page.getByTestId("show-code").click();
  const code = page.getByTestId("code");
  await code.scrollIntoViewIfNeeded();
  let link = "";
  // Rendered after the page.
  await expect(async () => {
    const png = PNG.sync.read(await code.screenshot());
    link = jsQR(new Uint8ClampedArray(png.data), png.width, png.height)?.data ?? "";
    expect(link).toBe(`${cravix.url}/aircraft/QX-DOV`);
  }).toPass();
  await page.goto(link);
  await expect(heading(page)).toHaveText("QX-DOV");
});
