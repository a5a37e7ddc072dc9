import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { chromium } from "@playwright/test";
import base, { CHROMIUM_ARGS, PHONE } from "../playwright.config";
import { Cravix } from "../support/cravix";
import { NetworkProxy } from "../support/network-proxy";
import { expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

let cravix: Cravix;
let proxy: NetworkProxy;
test.use({ daylight: false });
test.beforeAll(async () => {
  cravix = await Cravix.launch();
  proxy = await NetworkProxy.before(cravix.port);
});
test.afterAll(async () => {
  await proxy.close();
  await cravix.remove();
});
test.beforeEach(() => {
  proxy.broken = undefined;
  proxy.instead = undefined;
});

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });
const heading = (page: Page) => page.getByRole("heading", { level: 1 });
/** Waits until the interface is cached. */
const kept = (page: Page) => page.waitForFunction(() => navigator.serviceWorker.controller !== null);

test.describe("with a service worker", () => {
  test.use({ serviceWorkers: "allow" });

  test("the browser can install the app", async () => {
    const profile = mkdtempSync(join(tmpdir(), "cravix-install-"));
    // Installing needs a persistent profile.
    const context = await chromium.launchPersistentContext(profile, {
      ...(base.use?.launchOptions ?? {}),
      args: CHROMIUM_ARGS,
      viewport: PHONE,
    });
    try {
      const page = context.pages()[0] ?? (await context.newPage());
      await page.goto(proxy.url);
      await button(page, /Inês/).waitFor();
      await kept(page);
      const client = await context.newCDPSession(page);
      const { errors } = await client.send("Page.getAppManifest");
      expect(errors).toEqual([]);
      const { installabilityErrors } = await client.send("Page.getInstallabilityErrors");
      expect(installabilityErrors).toEqual([]);
    } finally {
      await context.close();
      rmSync(profile, { recursive: true, force: true });
    }
  });

  test("after one visit every page works offline, even for an aircraft not opened before", async ({
    page,
    context,
  }) => {
    await page.goto(proxy.url);
    await button(page, /Maren/).click();
    await kept(page);
    // The other aircraft are loaded after the first page.
    await expect
      .poll(() => page.evaluate(() => navigator.serviceWorker.ready.then(() => indexedDB.databases())))
      .not.toEqual([]);
    await page.waitForTimeout(6000);
    await context.setOffline(true);
    proxy.broken = /./;
    for (const [path, head] of [
      ["/people", "People"],
      ["/log", "Log"],
      ["/device", "This device"],
      ["/aircraft/QX-COR", "QX-COR"],
      ["/aircraft/QX-COR/route", "Walkaround route"],
      ["/aircraft/QX-DOV/list", "Today's checklist"],
      ["/aircraft/QX-HLD/logs", "QX-HLD: fuel and oil"],
      ["/aircraft/QX-HLD/prepare", "QX-HLD"],
    ] as const) {
      await page.goto(`${proxy.url}${path}`);
      await expect(heading(page), path).toHaveText(head);
    }
    const walker = new Walker(page);
    walker.knows("QX-HLD");
    await walker.go();
    await walker.answer();
    await expect(page.getByTestId("kept")).toContainText("Saved on this device");
  });

  test("a new version waits during a preflight, is offered when none is open, and loses nothing", async ({
    page,
  }) => {
    await page.goto(proxy.url);
    await button(page, /Inês/).click();
    await kept(page);
    const walker = new Walker(page);
    await walker.prepare("QX-TAR");
    const walk = await walker.go();
    await walker.answer();
    // A changed service worker file counts as a new version.
    proxy.instead = { path: /^\/sw\.js/, body: (own) => `${own}\n// the next version` };
    await page.evaluate(async () => {
      const registration = await navigator.serviceWorker.getRegistration();
      await registration?.update();
    });
    await page.waitForFunction(() =>
      navigator.serviceWorker.getRegistration().then((registration) => registration?.waiting !== null),
    );
    // Nothing changes or is offered during the preflight, nor on its aircraft's page.
    const item = await walker.itemId();
    await page.waitForTimeout(500);
    expect(await walker.itemId()).toBe(item);
    await expect(page.getByTestId("new-version")).toHaveCount(0);
    await button(page, "Leave").click();
    await expect(button(page, "Resume QX-TAR")).toBeVisible();
    await expect(page.getByTestId("new-version")).toHaveCount(0);
    await button(page, "Resume QX-TAR").click();
    await expect(walker.card).toHaveAttribute("data-testid", `item-${item}`);
    await page.goto(`${proxy.url}/preflight/${walk}/verdict`);
    await button(page, "Sign: not flying").click();
    await button(page, "Go to Aircraft").click();
    await expect(page.getByTestId("new-version")).toContainText("A new version of Cravix is ready");
    const reloaded = page.waitForEvent("load");
    await button(page, "Update now").click();
    await reloaded;
    await expect(button(page, "Prepare QX-TAR")).toBeVisible();
    await expect(page.getByTestId("new-version")).toHaveCount(0);
    expect(
      await page.evaluate(async () => (await navigator.serviceWorker.getRegistration())?.waiting ?? null),
    ).toBeNull();
  });
});

test("a part that cannot be loaded is explained, and loads when online again", async ({ page }) => {
  // From the start, or it would be prefetched.
  proxy.broken = /\/_expo\/static\/js\/web\/people-/;
  await page.goto(proxy.url);
  await new Walker(page).begin(/Inês/);
  await page.goto(proxy.url);
  await expect(button(page, "Resume QX-TAR")).toBeVisible();
  await page.getByRole("link", { name: "People" }).click();
  await expect(heading(page)).toHaveText("This page could not be loaded");
  await expect(page.getByTestId("page-failed")).toContainText("saved on this device");
  // The preflight continues with what is cached.
  await button(page, "Go to Aircraft").click();
  await button(page, "Resume QX-TAR").click();
  await expect(heading(page)).toHaveText("Does it sit level?");
  await page.goto(`${proxy.url}/people`);
  await expect(heading(page)).toHaveText("This page could not be loaded");
  proxy.broken = undefined;
  await button(page, "Try again").click();
  await expect(heading(page)).toHaveText("People");
});

test("a page error is explained in a sentence, and all answers are still there", async ({ page }) => {
  await page.goto(proxy.url);
  const walker = new Walker(page);
  const walk = await walker.begin(/Kofi/);
  await walker.answer();
  const item = await walker.itemId();
  // A bundle in a form no server of ours sends.
  proxy.instead = {
    path: /\/api\/v1\/aircraft\/QX-LUM$/,
    body: () => JSON.stringify({ aircraft: { registration: "QX-LUM" } }),
  };
  await page.goto(`${proxy.url}/aircraft/QX-LUM/prepare`);
  await expect(page.getByTestId("page-failed")).toContainText("It is our fault");
  await expect(page).toHaveTitle("This page stopped working · Cravix");
  proxy.instead = undefined;
  await page.goto(`${proxy.url}/preflight/${walk}`);
  await expect(walker.card).toHaveAttribute("data-testid", `item-${item}`);
});

test.describe("without a service worker", () => {
  test.use({ serviceWorkers: "block", fetchesAhead: true });

  test("the other pages are prefetched and open offline", async ({ page, context }) => {
    await page.goto(proxy.url);
    await expect.poll(() => page.locator('link[rel="prefetch"]').count()).toBeGreaterThan(10);
    // Network idle says nothing about later requests: each part must be cached.
    await page.waitForFunction(() => {
      const come = performance
        .getEntriesByType("resource")
        .filter((entry) => (entry as PerformanceResourceTiming).responseEnd > 0)
        .map((entry) => entry.name);
      return [...document.querySelectorAll<HTMLLinkElement>('link[rel="prefetch"]')].every((link) =>
        come.includes(link.href),
      );
    });
    await context.setOffline(true);
    await page.getByRole("link", { name: "People", exact: true }).click();
    await expect(heading(page)).toHaveText("People");
  });
});
