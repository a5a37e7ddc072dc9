import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { AircraftType, Item } from "@cravix/core";
import { expect, type Locator, type Page } from "@playwright/test";

const data = (file: string) =>
  JSON.parse(readFileSync(join(__dirname, "..", "..", "demo", "data", file), "utf8"));
export const tarrow4: AircraftType = data("type-tarrow-4.json");
const { facts } = data("aircraft-qx-tar.json");
const items: Item[] = [...tarrow4.items, ...data("aircraft-qx-tar.json").ownItems];

/** What a person reads off a healthy trainer on a quiet day. */
export const HEALTHY: Record<string, string> = {
  hours: "4230.1",
  "volts.before-start": "25.2",
  "nose-oleo": "3.8",
  "fuel.dip.left": "16",
  "fuel.dip.right": "15.5",
  "oil.level": "7",
  "oil.temperature": "150",
  "oil.pressure": "72",
  altimeter: "30",
  "magneto.base": "1800",
  "magneto.right": "1730",
  "magneto.left": "1710",
  "carburettor-heat.hot": "1700",
  "carburettor-heat.cold-again": "1800",
  suction: "5",
  "volts.charging": "28.1",
  idle: "650",
  "wind.from": "250",
  "wind.speed": "10",
  "wind.gust": "14",
};

/** Does what the screen asks, one item after another, with taps or with keys alone. */
export class Walker {
  answered = 0;
  constructor(
    readonly page: Page,
    readonly by: "thumb" | "keys" = "thumb",
    readonly readings: Record<string, string> = HEALTHY,
  ) {}

  get title(): Locator {
    return this.page.getByRole("heading", { level: 1 });
  }

  /** The item that is asked; its id is in its test id. */
  get card(): Locator {
    return this.page.locator('[data-testid^="item-"]').filter({ visible: true });
  }

  get primary(): Locator {
    return this.page.getByTestId("primary");
  }

  async begin(name: RegExp, conditions: string[] = []): Promise<string> {
    const { page } = this;
    await page.getByRole("button", { name }).click();
    await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
    for (const condition of conditions)
      await page.getByRole("button", { name: new RegExp(`^${condition}`) }).click();
    await page.getByRole("button", { name: "Begin the walk" }).click();
    await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
    return page.url().split("/").at(-1) ?? "";
  }

  /** The id of the item on the screen, waiting until one is; undefined once the walk has come to its verdict. */
  async itemId(): Promise<string | undefined> {
    const verdict = this.page.getByTestId("verdict").filter({ visible: true });
    await expect(this.card.or(verdict).first()).toBeVisible();
    if (await verdict.isVisible()) return undefined;
    return (await this.card.getAttribute("data-testid"))?.slice("item-".length);
  }

  /** Gives the healthy answer to whatever is asked, and waits until something else is. */
  async answer(): Promise<void> {
    const { page } = this;
    const id = await this.itemId();
    const item = items.find((i) => i.id === id);
    if (!item) await this.observe();
    else if (item.kind === "measure" && item.reading) await this.type(this.readings[item.reading.key] ?? "0");
    else if (item.kind === "confirm" && item.confirm)
      await page.getByTestId(`confirm-${facts[item.confirm.fact]}`).click();
    else if (item.kind === "count")
      await this.press(page.getByTestId(`count-${item.expected}`), String(item.expected));
    else if (item.kind === "choice")
      await this.press(page.getByRole("button", { name: "24", exact: true }), "2");
    else await this.press(this.primary, "Enter");
    await expect(page.getByTestId(`item-${id}`).filter({ visible: true })).toHaveCount(0);
    this.answered++;
  }

  async type(text: string): Promise<void> {
    for (const key of text)
      await this.press(
        this.page.getByRole("button", { name: key === "." ? "Point" : key, exact: true }),
        key,
      );
    await this.press(this.primary, "Enter");
  }

  /** A known discrepancy: the same as it was. */
  async observe(): Promise<void> {
    await this.press(this.page.getByRole("button", { name: "The same" }), "Enter");
    await this.press(this.page.getByRole("button", { name: "Log it" }), "Enter");
  }

  async press(target: Locator, key: string): Promise<void> {
    if (this.by === "thumb") await target.click();
    else {
      await expect(target).toBeVisible();
      await this.page.keyboard.press(key);
    }
  }

  /** Walks on until the given item stands on the screen. */
  async walkTo(goal: string): Promise<void> {
    while ((await this.itemId()) !== goal) {
      expect(this.answered, `never came to ${goal}`).toBeLessThan(items.length + 5);
      await this.answer();
    }
  }

  /** Walks to the end: the verdict. */
  async walkToVerdict(): Promise<void> {
    while ((await this.itemId()) !== undefined) {
      expect(this.answered, "the walk never ends").toBeLessThan(items.length + 5);
      await this.answer();
    }
    await this.page.waitForURL(/\/verdict$/);
  }
}
