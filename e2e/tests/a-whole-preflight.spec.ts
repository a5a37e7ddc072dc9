import { execFileSync } from "node:child_process";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { type BrowserContext, chromium } from "@playwright/test";
import base, { CHROMIUM_ARGS, PHONE } from "../playwright.config";
import { Cravix } from "../support/cravix";
import { eventsOnDevice, itemsAsked } from "../support/device";
import { byDay, expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

// It must continue offline.
test.use({ serviceWorkers: "allow" });

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const profile = mkdtempSync(join(tmpdir(), "cravix-profile-"));
test.afterAll(() => rmSync(profile, { recursive: true, force: true }));

/** A persistent browser profile, like a phone's. */
async function openBrowser(): Promise<{ context: BrowserContext; page: Page }> {
  const context = await chromium.launchPersistentContext(profile, {
    ...(base.use?.launchOptions ?? {}),
    args: CHROMIUM_ARGS,
    viewport: PHONE,
    baseURL: cravix.url,
    timezoneId: "UTC",
    locale: "en-GB",
  });
  await byDay(context);
  return { context, page: context.pages()[0] ?? (await context.newPage()) };
}

/** Kills every process of the browser with this profile, as when a phone's battery dies. */
async function killBrowser(context: BrowserContext): Promise<void> {
  const gone = new Promise((resolve) => context.once("close", resolve));
  execFileSync("pkill", ["-KILL", "-f", "--", `--user-data-dir=${profile}`]);
  await gone;
  // Remove the stale lock, which would cause a prompt.
  rmSync(join(profile, "SingletonLock"), { force: true });
}

test("a complete preflight with one thumb, across a reload, a killed server, an offline reload and a killed browser", async () => {
  let { context, page } = await openBrowser();
  await page.goto("/");
  let walker = new Walker(page);
  const id = await walker.begin(/Inês/);

  // A reload returns to the same item.
  await walker.walkTo("tail.elevator-hinges");
  await page.reload();
  await expect(walker.title).toHaveText("Elevator: count the serviceable hinges");

  // One discrepancy: a wrong count is logged without typing.
  await page.getByTestId("count-3").click();
  await expect(page.getByLabel("What was found")).toHaveValue("Elevator: 3 serviceable, 4 expected");
  await page.getByRole("button", { name: /^Fly and monitor/ }).click();
  await page.getByRole("button", { name: "Log it" }).click();
  await walker.walkTo("right-tip.light");
  await expect(page.getByTestId("kept")).toHaveText("Saved and sent");

  // The server is killed; the preflight continues, and says that it is offline.
  await cravix.end("SIGKILL");
  await walker.walkTo("propeller.belt");
  await expect(page.getByTestId("kept")).toContainText("no network");
  const waiting = (await eventsOnDevice(page, id)).filter((e) => e.sync === "to send");
  expect(waiting.length).toBeGreaterThan(5);

  // Offline, a reload returns to the same item.
  const before = await walker.title.innerText();
  await page.reload();
  await expect(walker.title).toHaveText(before);
  await walker.answer();

  // The browser is killed and reopened: the preflight resumes at the same item.
  const here = await walker.title.innerText();
  await killBrowser(context);
  ({ context, page } = await openBrowser());
  walker = new Walker(page);
  await page.goto(cravix.url);
  await page.getByRole("button", { name: "Resume QX-TAR" }).click();
  await expect(walker.title).toHaveText(here);

  // When the server is back, everything is sent automatically.
  await cravix.start();
  expect(cravix.output).toContain("is reused");
  await walker.walkToVerdict();
  await walker.goWithout();
  await expect(page.getByTestId("verdict")).toContainText("Go, with notes");
  await expect(page.getByText("Elevator: 3 serviceable, 4 expected")).toBeVisible();
  await page.getByRole("button", { name: "Accept the aircraft" }).click();
  await expect(page.getByTestId("line-up")).toBeVisible();
  await page.goto(`${cravix.url}/preflight/${id}/verdict`);
  await expect(page.getByTestId("signed")).toContainText("fly, Inês Valadares");
  await expect(page.getByTestId("kept")).toHaveText("Saved and sent", { timeout: 120_000 });

  const device = await eventsOnDevice(page, id);
  const record = await cravix.eventsOnRecord(id);
  expect(device.every((e) => e.sync === "sent")).toBe(true);
  expect(record.map((e) => e.id)).toEqual(device.map((e) => e.event.id).sort());
  expect(new Set(record.map((e) => e.id)).size).toBe(record.length);
  const asked = await itemsAsked(page, id);
  const answers = record.filter((e) =>
    ["item.answered", "reading.taken", "sample.taken", "discrepancy.opened", "discrepancy.observed"].includes(
      e.type,
    ),
  );
  expect(answers).toHaveLength(asked);
  await context.close();
});

test("the next pilot sees an open discrepancy at its station", async ({ browser }) => {
  const context = await browser.newContext({ viewport: PHONE, baseURL: cravix.url });
  await byDay(context);
  const page = await context.newPage();
  await page.goto("/");
  const walker = new Walker(page);
  const id = await walker.begin(/Maren/);
  await walker.jumpTo("left-side.baggage");
  await walker.answer();
  await expect(page.getByText("Tail · 1 of")).toBeVisible();
  await expect(walker.title).toHaveText("Elevator: 3 serviceable, 4 expected");
  await expect(page.getByText("logged by Inês Valadares")).toHaveCount(0);
  await page.getByRole("button", { name: "Why" }).click();
  await expect(page.getByText("logged by Inês Valadares")).toBeVisible();
  await page.getByRole("button", { name: "Grown" }).click();
  await page.getByLabel("Count or measure now").fill("2 of 4");
  await page.getByRole("button", { name: "Log it" }).click();
  await expect(walker.title).toHaveText("Tail tie-down: off");

  // A growing discrepancy means ask first, whatever its grade.
  await page.getByRole("button", { name: "Leave" }).click();
  await page.goto(`/preflight/${id}/verdict`);
  await expect(page.getByText("Elevator: 3 serviceable, 4 expected: worse, 2 of 4.")).toBeVisible();
  await expect(page.getByText("Still open:")).toBeVisible();
  await context.close();
});
