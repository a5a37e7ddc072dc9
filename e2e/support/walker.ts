import { readFileSync } from "node:fs";
import { join } from "node:path";
import type { Aircraft, AircraftType, Item } from "@cravix/core";
import { expect, type Locator, type Page } from "@playwright/test";
import { putOnDevice, walkOnDevice } from "./device";
import { healthyAnswers } from "./healthy-answers";

const data = (file: string) =>
  JSON.parse(readFileSync(join(__dirname, "..", "..", "demo", "data", file), "utf8"));
export const tarrow4: AircraftType = data("type-tarrow-4.json");

const TYPE_FILE: Record<string, string> = {
  "QX-TAR": "type-tarrow-4.json",
  "QX-HLD": "type-halden-six.json",
  "QX-ANS": "type-ansel-2.json",
  "QX-DOV": "type-dovrane-twin.json",
  "QX-COR": "type-corrant-r.json",
  "QX-LUM": "type-lumen-sport.json",
};

/** What a person reads off a healthy aircraft on a quiet day. */
export const HEALTHY: Record<string, string> = {
  hours: "4230.1",
  "volts.before-start": "25.2",
  "nose-oleo": "3.8",
  "fuel.dip.left": "16",
  "fuel.dip.right": "15.5",
  "fuel.gauge.left": "19",
  "fuel.gauge.right": "18",
  "oil.level": "7",
  "oil.temperature": "150",
  "oil.pressure": "72",
  altimeter: "30",
  "altimeter.setting": "1013",
  "magneto.base": "1800",
  "magneto.right": "1730",
  "magneto.left": "1710",
  "carburettor-heat.hot": "1700",
  "carburettor-heat.cold-again": "1800",
  suction: "5",
  "volts.charging": "28.1",
  idle: "650",
  "instrument.compass": "62",
  "instrument.heading": "63",
  "instrument.climb": "0",
  "receiver.one": "2",
  "receiver.two": "3",
  "wind.from": "250",
  "wind.speed": "10",
  "wind.gust": "14",
  "nose-gear-oleo": "4",
  "left-gear-oleo": "3",
  "right-gear-oleo": "3",
  "cht.hottest": "350",
  "mass.front": "82",
  "mass.rear": "70",
};
/** Where an aircraft differs from the trainer. */
export const HALDEN = {
  ...HEALTHY,
  hours: "3121.2",
  "oil.level": "10",
  "fuel.gauge.left": "28",
  "fuel.gauge.right": "27",
  "fuel.sight.left-tip": "50",
  "fuel.sight.right-tip": "50",
};

export interface Begin {
  conditions?: string[];
  registration?: string;
}

/** Does what the screen asks, one item after another, with taps or with keys alone. */
export class Walker {
  answered = 0;
  #items: Item[] = [];
  #facts: Record<string, string> = {};
  /** Time that passes with each answer, where a test plays with the clock. */
  #clock: { now: number; stepMs: number } | undefined;

  constructor(
    readonly page: Page,
    readonly by: "thumb" | "keys" = "thumb",
    readonly readings: Record<string, string> = HEALTHY,
  ) {
    this.knows("QX-TAR");
  }

  /** Reads the files of an aircraft, as a person knows the aircraft. */
  knows(registration: string): void {
    const aircraft: Aircraft = data(`aircraft-${registration.toLowerCase()}.json`);
    const type: AircraftType = data(TYPE_FILE[registration] ?? "");
    this.#items = [...type.items, ...aircraft.ownItems];
    this.#facts = aircraft.facts ?? {};
  }

  /** From now on every answer takes its time, by the device's clock; nothing has to wait for it. */
  async takeTime(stepMs: number, from = Date.now() - 3_600_000): Promise<void> {
    this.#clock = { now: from, stepMs };
    await this.page.clock.setSystemTime(from);
  }

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

  async begin(name: RegExp, { conditions = [], registration = "QX-TAR" }: Begin = {}): Promise<string> {
    const { page } = this;
    this.knows(registration);
    await page.getByRole("button", { name }).click();
    await this.prepare(registration);
    for (const condition of conditions)
      await page.getByRole("button", { name: new RegExp(`^${condition}`) }).click();
    return this.go();
  }

  async prepare(registration: string): Promise<void> {
    const { page } = this;
    this.knows(registration);
    // The page begins with the aircraft that the group walked last.
    const prepare = page.getByRole("button", { name: `Prepare ${registration}` });
    await expect(async () => {
      await page.getByRole("button", { name: new RegExp(`^${registration}`) }).click();
      await expect(prepare).toBeVisible({ timeout: 3000 });
    }).toPass();
    await prepare.click();
    await page.getByRole("button", { name: "Begin the preflight" }).waitFor();
  }

  async go(): Promise<string> {
    await this.page.getByRole("button", { name: "Begin the preflight" }).click();
    await this.page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
    return this.page.url().split("/").at(-1) ?? "";
  }

  /**
   * The id of the item on the screen, waiting until one is; undefined once the walk has come to its verdict. What stands in the way is
   * gone to first, and a station that is asked from memory is done from memory.
   */
  async itemId(): Promise<string | undefined> {
    const { page } = this;
    const seen = (id: string) => page.getByTestId(id).filter({ visible: true });
    const verdict = seen("verdict");
    const blocked = seen("blocked");
    const flow = page.locator('[data-testid^="flow-"]').filter({ visible: true });
    for (;;) {
      await expect(this.card.or(verdict).or(blocked).or(flow).first()).toBeVisible();
      if (await blocked.isVisible()) {
        const reason = await blocked.innerText();
        if (reason.includes("This takes two"))
          await this.press(page.getByRole("button", { name: "Kofi Asantewe is here" }), "2");
        else await this.press(this.primary, "Enter");
        await expect(blocked.filter({ hasText: reason })).toHaveCount(0);
      } else if (await flow.isVisible()) {
        const id = await flow.getAttribute("data-testid");
        await this.press(this.primary, "Enter");
        await expect(page.getByTestId(id ?? "")).toHaveCount(0);
      } else break;
    }
    if (await verdict.isVisible()) return undefined;
    return (await this.card.getAttribute("data-testid"))?.slice("item-".length);
  }

  /** Gives the healthy answer to whatever is asked, and waits until something else is. */
  async answer(): Promise<void> {
    const { page } = this;
    const id = await this.itemId();
    if (this.#clock) {
      this.#clock.now += this.#clock.stepMs;
      await page.clock.setSystemTime(this.#clock.now);
    }
    const item = this.#items.find((i) => i.id === id);
    const asked = item?.confirm ?? item?.proof;
    const options = page.locator('[data-testid^="confirm-"]').filter({ visible: true });
    if (!item) await this.observe();
    else if (item.kind === "measure" && item.reading) await this.type(this.readings[item.reading.key] ?? "0");
    else if (asked && (await options.count()) > 0) await this.confirm(this.#facts[asked.fact] ?? "", options);
    else if (item.kind === "count")
      await this.press(page.getByTestId(`count-${item.expected}`), String(item.expected));
    else if (item.kind === "pull")
      for (let blade = 1; blade <= (item.expected ?? 1); blade++)
        await this.press(page.getByRole("button", { name: new RegExp(`^Blade ${blade} of`) }), "Enter");
    else if (item.kind === "choice")
      await this.press(page.getByRole("button", { name: "24", exact: true }), "2");
    else await this.press(this.primary, "Enter");
    await expect(page.getByTestId(`item-${id}`).filter({ visible: true })).toHaveCount(0);
    this.answered++;
  }

  /** Chooses what the plate says, by its place among the others. */
  async confirm(fact: string, options: Locator): Promise<void> {
    const words = await options.allInnerTexts();
    const place = words.findIndex((text) => text.startsWith(fact));
    expect(place, `${fact} is offered among ${words.join(", ")}`).toBeGreaterThanOrEqual(0);
    await this.press(this.page.getByTestId(`confirm-${fact}`), String(place + 1));
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

  /**
   * The same as walking there, without the taps: what a person would have answered is put on the device as it would lie there, and the page is
   * opened anew. For tests that are about what comes then.
   */
  async jumpTo(goal: string): Promise<void> {
    await this.jump(goal);
    await this.walkTo(goal);
  }

  /** To the verdict, without the taps. */
  async jumpToVerdict(): Promise<void> {
    await this.jump(undefined);
    await this.walkToVerdict();
  }

  private async jump(goal: string | undefined): Promise<void> {
    const { page } = this;
    const id = page.url().split("/preflight/")[1]?.split("/")[0] ?? "";
    const { list, events } = await walkOnDevice(page, id);
    const more = healthyAnswers({ list, events, goal, readings: this.readings, facts: this.#facts });
    await putOnDevice(page, more);
    this.answered += more.length;
    await page.reload();
  }

  /** Walks on until the given item stands on the screen. */
  async walkTo(goal: string): Promise<void> {
    while ((await this.itemId()) !== goal) {
      expect(this.answered, `never came to ${goal}`).toBeLessThan(2 * this.#items.length);
      await this.answer();
    }
  }

  /** Walks to the end: the verdict. */
  async walkToVerdict(): Promise<void> {
    while ((await this.itemId()) !== undefined) {
      expect(this.answered, "the walk never ends").toBeLessThan(2 * this.#items.length);
      await this.answer();
    }
    await this.page.waitForURL(/\/verdict$/);
  }
}
