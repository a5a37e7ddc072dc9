import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { byDay, expect, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });

/** Makes browser storage reject every write, like a full disk, until `__diskTakes` is set. */
const FULL_DISK = `
  const put = IDBObjectStore.prototype.put;
  globalThis.__diskTakes = true;
  IDBObjectStore.prototype.put = function (...args) {
    if (!globalThis.__diskTakes) throw new DOMException("full", "QuotaExceededError");
    return put.apply(this, args);
  };`;
const diskTakes = (page: Page, takes: boolean) =>
  page.evaluate((now) => {
    (globalThis as unknown as { __diskTakes: boolean }).__diskTakes = now;
  }, takes);

test("a full disk loses nothing and is reported: an answer, a draft, oil outside a preflight", async ({
  page,
}) => {
  await page.addInitScript({ content: FULL_DISK });
  await page.goto(cravix.url);
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/);
  await expect(walker.card).toHaveAttribute("data-testid", "item-approach.stance");
  await diskTakes(page, false);
  await walker.primary.click();
  await expect(page.getByTestId("save-error")).toContainText("This device is full");
  // The preflight continues, and unsaved text is reported too.
  await button(page, "Found something").first().click();
  await page.getByLabel("What was found").fill("Oil on the nose wheel");
  await expect(page.getByTestId("save-error")).toContainText("not saved yet");
  await diskTakes(page, true);
  // Without another answer; reported while typing, until everything is stored.
  await expect(page.getByTestId("save-error")).toHaveCount(0, { timeout: 60_000 });
  await expect
    .poll(async () =>
      (await eventsOnDevice(page, id)).some(
        ({ event }) => event.type === "item.answered" && event.data.itemId === "approach.stance",
      ),
    )
    .toBe(true);
  await page.reload();
  await button(page, "Found something").first().click();
  await expect(page.getByLabel("What was found")).toHaveValue("Oil on the nose wheel");
});

test("a preflight started on one device continues on another, and a withdrawal stays on record", async ({
  page,
  browser,
}) => {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/);
  await button(page, "Found something").first().click();
  await page.getByLabel("What was found").fill("A slip of the thumb");
  await button(page, "Log it").click();
  await button(page, "Undo").click();
  await walker.answer();
  await expect.poll(async () => (await cravix.eventsOnRecord(id)).length).toBeGreaterThan(3);
  const address = page.url();
  const other = await browser.newContext({ viewport: { width: 390, height: 844 } });
  await byDay(other);
  const tablet = await other.newPage();
  await tablet.goto(cravix.url);
  await chooseCrew(tablet, /Inês/);
  await tablet.goto(address);
  const there = new Walker(tablet);
  const at = (await walker.card.getAttribute("data-testid")) ?? "";
  await expect(there.card).toHaveAttribute("data-testid", at);
  await there.primary.click();
  await expect(there.card).not.toHaveAttribute("data-testid", at);
  // A withdrawn discrepancy is not open anywhere, and is shown as withdrawn.
  await tablet.goto(`${cravix.url}/log`);
  await expect(tablet.getByText("Withdrawn: 1")).toBeVisible();
  await expect(tablet.getByText(/A slip of the thumb/)).toBeVisible();
  const open = (await cravix.api<{ items: { text: string }[] }>("/discrepancies")).items;
  expect(open.map(({ text }) => text)).not.toContain("A slip of the thumb");
  await other.close();
});

test("preflights open in two windows both stay open, whichever is left first", async ({ page, context }) => {
  await page.goto(cravix.url);
  const second = await context.newPage();
  await second.goto(cravix.url);
  await new Walker(page).begin(/Inês/);
  await second.reload();
  await new Walker(second).prepare("QX-LUM");
  await new Walker(second).go();
  await page.goto(cravix.url);
  await expect(button(page, "Resume QX-TAR")).toBeVisible();
  await button(page, /^QX-LUM/).click();
  await expect(button(page, "Resume QX-LUM")).toBeVisible();
});

test("two windows of one device update each other, and neither signs over a finding of the other", async ({
  page,
  context,
}) => {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/);
  await expect(walker.card).toHaveAttribute("data-testid", "item-approach.stance");
  const second = await context.newPage();
  await second.goto(page.url());
  const there = new Walker(second);
  await expect(there.card).toHaveAttribute("data-testid", "item-approach.stance");
  // Answered in the first, continued in the second without a reload.
  await walker.primary.click();
  await expect(walker.card).not.toHaveAttribute("data-testid", "item-approach.stance");
  const next = (await walker.card.getAttribute("data-testid")) ?? "";
  await expect(there.card).toHaveAttribute("data-testid", next);
  // Found in the second: the first knows at its verdict.
  await page.goto(`${page.url()}/verdict`);
  await expect(page.getByTestId("verdict")).toBeVisible();
  await button(second, "Found something").first().click();
  await second.getByLabel("What was found").fill("Chock in front of the left wheel");
  await button(second, /^Stop/).click();
  await button(second, "Log it").click();
  await expect(page.getByText("Chock in front of the left wheel").first()).toBeVisible();

  // Without messages between them: storage is read again before signing.
  await page.evaluate(() => {
    BroadcastChannel.prototype.dispatchEvent = () => false;
  });
  await page.evaluate(
    (walk) =>
      new Promise<void>((resolve, reject) => {
        const open = indexedDB.open("cravix");
        open.onsuccess = () => {
          const tx = open.result.transaction("events", "readwrite");
          const store = tx.objectStore("events");
          const all = store.index("byStream").getAll(walk);
          all.onsuccess = () => {
            // As another window would store it, without a message: one more stop.
            const kept = all.result.findLast((one) => one.event.type === "discrepancy.opened");
            const eventId = `${kept.id.slice(0, -12)}${"0123456789ab"}`;
            store.put({
              ...kept,
              id: eventId,
              sync: "to send",
              event: {
                ...kept.event,
                id: eventId,
                data: {
                  ...kept.event.data,
                  itemId: undefined,
                  discrepancyId: eventId,
                  text: "Heard by nobody",
                },
              },
            });
          };
          tx.oncomplete = () => {
            open.result.close();
            resolve();
          };
          tx.onerror = () => reject(tx.error);
        };
      }),
    id,
  );
  await expect(page.getByText("Heard by nobody")).toHaveCount(0);
  await button(page, "Sign: not flying").click();
  await expect(page.getByText("An answer changed in another window")).toBeVisible();
  await expect(page.getByText("Heard by nobody").first()).toBeVisible();
  const signed = async () =>
    (await eventsOnDevice(page, id)).filter(({ event }) => event.type === "verdict.signed").length;
  expect(await signed()).toBe(0);
  await button(page, "Sign: not flying").click();
  await expect(page.getByTestId("signed")).toBeVisible();
  expect(await signed()).toBe(1);
  // And the second window's preflight is over as well.
  await expect(second).toHaveURL(/\/verdict$/);
});
