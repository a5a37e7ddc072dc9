import { readFileSync } from "node:fs";
import { WIDE } from "../playwright.config";
import { chooseCrew } from "../support/choose-crew";
import { Cravix } from "../support/cravix";
import { expect, type Page, test } from "../support/test";
import { tarrow4, Walker } from "../support/walker";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });
const saved = async (page: Page, name: string): Promise<Buffer> => {
  const download = page.waitForEvent("download");
  await button(page, name).click();
  return readFileSync(await (await download).path());
};

test("today's checklist shows differences with reasons, and prints", async ({ page }) => {
  await page.goto(cravix.url);
  await button(page, /Maren/).click();
  await new Walker(page).prepare("QX-TAR");
  await button(page, /^frost/i).click();
  await button(page, "Today's checklist").click();
  await expect(page.getByText("open discrepancy: 1")).toBeVisible();
  await expect(page.getByText("added for this aircraft: 1")).toBeVisible();
  await expect(page.getByText(/Model 1990 to 2004: no primer, 28-volt system/)).toBeVisible();
  expect((await saved(page, "Save to print")).subarray(0, 5).toString()).toBe("%PDF-");
  const text = (await saved(page, "Save as text")).toString();
  expect(text).toContain("Right wing: any frost? Feel it with your hand");
  expect(text).toContain("*(today: frost)*");
  const table = (await saved(page, "Save as CSV")).toString().split("\n");
  expect(table[0]).toBe("step,station,title,good,why,today,caution");
  expect(table.length).toBeGreaterThan(130);
  // Planned conditions survive a reload.
  await page.reload();
  await button(page, "Back").click();
  await expect(button(page, /^frost/i)).toHaveAttribute("aria-pressed", "true");
});

test("a better route is searched in the background, and used once accepted", async ({ page }) => {
  await page.goto(cravix.url);
  await button(page, /Yuki/).click();
  const walker = new Walker(page);
  await walker.prepare("QX-HLD");
  await button(page, "Route").click();
  await expect(page.getByTestId("route-verdict")).toContainText("shorter, and all rules followed");
  await expect(page.getByText("All orders compared: none is shorter.")).toBeVisible();
  await button(page, "Use this route").click();
  await expect(page.getByTestId("route-verdict")).toContainText(
    "Your route is the shortest that follows all rules",
  );
  await button(page, "Back").click();
  await walker.go();
  await walker.jumpTo("cockpit.master-off");
  await walker.answer();
  await expect(page.getByText(/^Right side and baggage door · 1 of/)).toBeVisible();
});

test("an owner adds, changes and retires an item with a preview; a preflight in progress keeps its checklist", async ({
  browser,
}) => {
  const context = await browser.newContext({ viewport: WIDE, baseURL: cravix.url });
  const page = await context.newPage();
  await page.goto("/");
  await button(page, /Inês/).click();
  const pilot = new Walker(page);
  await pilot.prepare("QX-TAR");
  // A pilot sees them.
  await page.goto("/aircraft/QX-TAR");
  await page.getByRole("link", { name: "Added items" }).click();
  await expect(
    page.getByText(
      "Only an instructor, a mechanic, an owner or an administrator can edit added items. You can read them.",
    ),
  ).toBeVisible();
  await expect(button(page, "Add an item")).toHaveCount(0);
  await button(page, "Back").click();
  await button(page, "Prepare QX-TAR").click();
  const begun = await pilot.go();

  const other = await browser.newContext({ viewport: WIDE, baseURL: cravix.url });
  const owner = await other.newPage();
  await owner.goto("/");
  await chooseCrew(owner, /Yuki/);
  await owner.goto("/aircraft/QX-TAR");
  await owner.getByRole("link", { name: "Added items" }).click();
  await button(owner, "Add an item").click();
  await button(owner, "Save for everyone").click();
  await expect(owner.getByTestId("own-message")).toHaveText("Not saved: fill in the marked fields.");
  await button(owner, "Right wing tip").click();
  await owner.getByLabel("Item, in a few words").fill("Right tip: new fairing screw");
  await owner.getByLabel("What good looks like").fill("red paint across it, whole");
  await owner.getByLabel("Reason: what happened, or could happen").fill("It came loose twice in March.");
  await expect(owner.getByTestId("own-preview")).toContainText("Right tip: new fairing screw");
  await expect(owner.getByTestId("own-difference")).toContainText(
    "+ Right wing tip: Right tip: new fairing screw",
  );
  // A reload keeps the draft.
  await owner.reload();
  await expect(owner.getByTestId("own-difference")).toContainText("Right tip: new fairing screw");
  await button(owner, "Save for everyone").click();
  await expect(owner.getByTestId("own-message")).toContainText("Saved.");

  // The old seat rail is retired; it stays in the file with its date.
  const rail = owner.getByTestId("own-own.seat-rail");
  await rail.getByRole("button", { name: "Change or retire" }).click();
  await button(owner, "Retire this item").click();
  await expect(owner.getByTestId("own-difference")).toContainText(
    "retired: Cockpit, power off: Left seat rail",
  );
  await button(owner, "Save for everyone").click();
  await expect(rail).toContainText("retired");

  // A preflight in progress still asks the seat rail, a new one does not, and asks the screw.
  await page.reload();
  await pilot.jumpTo("own.seat-rail");
  expect(page.url()).toContain(begun);
  await button(owner, /^Back$/).click();
  await owner.getByRole("link", { name: "Today's checklist" }).click();
  await expect(owner.getByText("added for this aircraft: 1")).toBeVisible();
  await expect(owner.getByText("Right tip: new fairing screw").first()).toBeVisible();
  await button(owner, "Back").click();
  await button(owner, "Prepare QX-TAR").click();
  const next = new Walker(owner);
  await next.go();
  await next.jumpTo("cockpit.ignition");
  await expect(button(owner, "No loose articles")).toBeVisible();
  await expect(button(owner, /^Left seat rail/)).toHaveCount(0);
  await context.close();
  await other.close();
});

test("a checklist of two thousand items is accepted, shown and completed", async ({ page }) => {
  await page.goto(cravix.url);
  await button(page, /Yuki/).click();
  const add = async (name: string, file: object) => {
    const chooser = page.waitForEvent("filechooser");
    await button(page, "Add an aircraft from a file").click();
    const buffer = Buffer.from(JSON.stringify(file));
    await (await chooser).setFiles({ name, mimeType: "application/json", buffer });
    await expect(page.getByTestId("file-message")).toContainText(`${name} was added.`);
  };
  const [station] = tarrow4.stations.filter((s) => s.phase === "lap");
  const items = Array.from({ length: 2000 }, (_, i) => ({
    id: `item-${i}`,
    station: station?.id,
    kind: "look",
    title: `Rivet ${i + 1}`,
    good: "tight",
    why: "One of two thousand.",
    miss: "note",
    done: "Tight",
  }));
  await add("long.json", {
    ...tarrow4,
    id: "long-one",
    name: "Long One",
    items,
    rules: [],
    groups: [],
    gates: [],
  });
  await add("long-aircraft.json", {
    format: "cravix.aircraft/2",
    registration: "QX-LNG",
    typeId: "long-one",
    year: 2003,
    base: "marram-point",
    ownItems: [],
  });
  await button(page, /^QX-LNG/).click();
  await button(page, "Prepare QX-LNG").click();
  await button(page, "Today's checklist").click();
  await expect(page.getByText("QX-LNG: 2000 items at 1 stations.")).toBeVisible();
  await page.setViewportSize(WIDE);
  await button(page, "Back").click();
  await button(page, "Start preflight").click();
  for (let i = 1; i <= 5; i++) {
    await expect(page.getByRole("heading", { level: 1 })).toHaveText(`Rivet ${i}`);
    await page.keyboard.press("Enter");
  }
  await expect(page.getByText(/\d+ more items/)).toBeVisible();
});
