import { idMsecs } from "@cravix/contract/new-id";
import type { Item } from "@cravix/core/aircraft/aircraft-type";
import type { ComposedList } from "@cravix/core/checklist/list/compose-list";
import { group, HALDEN, HEALTHY, tarrow4 } from "@cravix/demo";
import { expect, type Locator, type Page } from "@playwright/test";
import { lastNoon } from "./daylight";
import { putOnDevice, seenFromAnotherWindow, walkOnDevice, written } from "./device";
import { healthyAnswers } from "./healthy-answers";

export { HALDEN, HEALTHY, tarrow4 };

/** Content of the preflight page: an item, a block, a station to do from memory, or the verdict. */
interface Standing {
  kind: "item" | "blocked" | "flow" | "verdict";
  /** Its id, or the text of a block. */
  id: string;
  /** True if a value is chosen. */
  confirms: boolean;
  /** Card it is on with others. */
  card?: string;
  /** Position of the main button, if visible and enabled. */
  at?: Place;
}

/** A position on the screen, pixels. */
interface Place {
  x: number;
  y: number;
}

/**
 * Waits for page content other than `before` and other than an `answered` item. Evaluated in the page in one call, because a
 * preflight has hundreds, and each call from outside costs as much as a tap.
 */
async function whatStands(
  page: Page,
  before?: Standing,
  answered: readonly string[] = [],
): Promise<Standing> {
  const found = await page.waitForFunction(
    ({ gone, done }) => {
      const shown = (selector: string) =>
        [...document.querySelectorAll<HTMLElement>(selector)].find(
          (element) => element.getClientRects().length > 0,
        );
      const blocked = shown('[data-testid="blocked"]');
      const flow = shown('[data-testid^="flow-"]');
      const verdict = shown('[data-testid="verdict"]');
      const item = shown('[data-testid^="item-"]');
      const named = (element: HTMLElement, prefix: string) =>
        (element.dataset.testid ?? "").slice(prefix.length);
      const kind = blocked ? "blocked" : flow ? "flow" : verdict ? "verdict" : item ? "item" : undefined;
      if (!kind) return undefined;
      const id = blocked ? blocked.innerText : flow ? named(flow, "flow-") : item ? named(item, "item-") : "";
      if (gone && gone.kind === kind && gone.id === id) return undefined;
      const card = shown('[data-testid^="card-"]');
      // A card shows answered and open parts.
      if (kind === "item" && !card && done.includes(id)) return undefined;
      const primary = shown('[data-testid="primary"]');
      const box = primary?.getBoundingClientRect();
      const at = box && { x: box.x + box.width / 2, y: box.y + box.height / 2 };
      const free =
        at &&
        primary?.getAttribute("aria-disabled") !== "true" &&
        primary?.contains(document.elementFromPoint(at.x, at.y));
      return {
        kind,
        id,
        ...(free && { at }),
        confirms: shown('[data-testid^="confirm-"]') !== undefined,
        ...(card && { card: named(card, "card-") }),
      } as const;
    },
    { gone: before, done: answered },
    { timeout: 60_000 },
  );
  return (await found.jsonValue()) as Standing;
}

/** Positions of keypad keys, in one call; undefined if one is not visible. */
async function placesOf(page: Page, keys: readonly string[]): Promise<Map<string, Place> | undefined> {
  const places = await page.evaluate((wanted) => {
    const buttons = [...document.querySelectorAll<HTMLElement>('button, [role="button"]')];
    return wanted.map((key) => {
      const found = buttons.filter(
        (one) =>
          (one.getAttribute("aria-label") ?? one.innerText.trim()) === (key === "." ? "Point" : key) &&
          one.getClientRects().length > 0,
      );
      const [button] = found;
      const box = button?.getBoundingClientRect();
      const at = box && { x: box.x + box.width / 2, y: box.y + box.height / 2 };
      return found.length === 1 && at && button?.contains(document.elementFromPoint(at.x, at.y))
        ? at
        : undefined;
    });
  }, keys);
  const known = keys.flatMap((key, i) => (places[i] ? [[key, places[i]] as const] : []));
  return known.length === keys.length ? new Map(known) : undefined;
}

/** Hour meter after the last flight, from the checklist's log data. */
function hoursLeft({ memory, items }: ComposedList): string | undefined {
  const hours = memory?.hours;
  const decimals = items.find(({ reading }) => reading?.key === "hours")?.reading?.decimals ?? 1;
  return hours?.wasAfter ? hours.value.toFixed(decimals) : undefined;
}

export interface Begin {
  conditions?: string[];
  registration?: string;
}

/** Performs what the screen asks, item by item, by taps or by keyboard only. */
export class Walker {
  answered = 0;
  /** Taps or keys so far. */
  taps = 0;
  #items: Item[] = [];
  #facts: Record<string, string> = {};
  /** Simulated time per answer, for tests with a fake clock. */
  #clock: { now: number; stepMs: number } | undefined;

  constructor(
    readonly page: Page,
    readonly by: "thumb" | "keys" = "thumb",
    readonly readings: Record<string, string> = HEALTHY,
  ) {
    this.knows("QX-TAR");
  }

  /** Loads an aircraft's files, as a person who knows it. */
  knows(registration: string): void {
    const known = group.find(({ aircraft: one }) => one.registration === registration);
    if (!known) throw new Error(`${registration} is not in the demo`);
    const { aircraft, type } = known;
    this.#items = [...type.items, ...aircraft.ownItems];
    this.#facts = aircraft.facts ?? {};
  }

  /** Advances the device's clock with each answer, without real waiting. */
  async takeTime(stepMs: number, from = lastNoon().getTime() - 3_600_000): Promise<void> {
    this.#clock = { now: from, stepMs };
    await this.page.clock.setSystemTime(from);
  }

  get title(): Locator {
    return this.page.getByRole("heading", { level: 1 });
  }

  /** The current item; its id is in its test id. */
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
      await page.getByRole("button", { name: new RegExp(`^${condition}( \\+\\d+)?$`, "i") }).click();
    return this.go();
  }

  async prepare(registration: string): Promise<void> {
    const { page } = this;
    this.knows(registration);
    // The page opens with the group's most recently used aircraft.
    const prepare = page.getByRole("button", { name: `Prepare ${registration}` });
    await expect(async () => {
      await page.getByTestId(`aircraft-${registration}`).click();
      await expect(prepare).toBeVisible({ timeout: 3000 });
    }).toPass({ timeout: 120_000 });
    await prepare.click();
    await page.getByRole("button", { name: "Start preflight" }).waitFor();
  }

  async go(): Promise<string> {
    await this.page.getByRole("button", { name: "Start preflight" }).click();
    await this.page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
    return this.page.url().split("/").at(-1) ?? "";
  }

  /**
   * Id of the current item, waiting for one; undefined at the verdict. Blocks are resolved first, and a station asked from memory
   * is done from memory.
   */
  async itemId(): Promise<string | undefined> {
    const standing = await this.item();
    return standing.kind === "verdict" ? undefined : standing.id;
  }

  /** Content once nothing blocks; `known` is the content found before. */
  private async item(known?: Standing): Promise<Standing> {
    const { page } = this;
    let standing = known ?? (await whatStands(page));
    while (standing.kind === "blocked" || standing.kind === "flow") {
      if (standing.kind === "blocked" && standing.id.includes("Second person needed"))
        await this.press(page.getByRole("button", { name: "Kofi Asantewe is here" }), "2");
      else await this.press(this.primary, "Enter");
      standing = await whatStands(page, standing);
    }
    return standing;
  }

  /** Gives the healthy answer, and waits for the next content. */
  async answer(): Promise<void> {
    await this.answerTo(await this.item());
  }

  /** Answers known content; returns the next. */
  private async answerTo(standing: Standing): Promise<Standing> {
    const { page } = this;
    const { id, confirms } = standing;
    if (this.#clock) {
      this.#clock.now += this.#clock.stepMs;
      await page.clock.setSystemTime(this.#clock.now);
    }
    const item = this.#items.find((i) => i.id === id);
    const asked = item?.confirm ?? item?.proof;
    if (standing.card) await this.answerCard(standing.card);
    else if (!item) await this.observe();
    else if (item.kind === "measure" && item.reading) await this.type(await this.reading(item.reading));
    else if (asked && confirms)
      await this.confirm(
        this.#facts[asked.fact] ?? "",
        page.locator('[data-testid^="confirm-"]').filter({ visible: true }),
      );
    else if (item.kind === "count")
      await this.press(page.getByTestId(`count-${item.expected}`), String(item.expected));
    else if (item.kind === "pull")
      for (let blade = 1; blade <= (item.expected ?? 1); blade++)
        await this.press(page.getByRole("button", { name: new RegExp(`^Blade ${blade} of`) }), "Enter");
    else if (item.kind === "choice")
      await this.press(page.getByRole("button", { name: "24", exact: true }), "2");
    else if (standing.at && this.by === "thumb") await this.touch(standing.at);
    else await this.press(this.primary, "Enter");
    const next = await whatStands(page, standing);
    this.answered++;
    return next;
  }

  /** Instrument reading; the hour meter matches the log of any aircraft. */
  private async reading({ key }: { key: string }): Promise<string> {
    if (key === "hours") {
      const id = this.page.url().split("/preflight/")[1]?.split("/")[0] ?? "";
      const left = hoursLeft((await walkOnDevice(this.page, id)).list);
      if (left !== undefined) return left;
    }
    return this.readings[key] ?? "0";
  }

  /** Enters or chooses everything on a card, then answers it. */
  private async answerCard(cardId: string): Promise<void> {
    const { page } = this;
    const card = page.getByTestId(`card-${cardId}`);
    const here = page.locator('[data-testid="number-here"]').filter({ visible: true });
    while (await card.isVisible()) {
      const runway = page.getByTestId("choose-24").filter({ visible: true });
      if ((await runway.count()) > 0 && (await runway.getAttribute("aria-pressed")) !== "true") {
        this.taps++;
        await runway.click();
      }
      if ((await here.count()) > 0) {
        // Active number, and whether it is filled in.
        const [id, typed] = await here.evaluate((element) => [
          (element.closest<HTMLElement>('[data-testid^="number-row-"]')?.dataset.testid ?? "").slice(
            "number-row-".length,
          ),
          element.querySelector('[data-testid="typed"]')?.textContent ?? "",
        ]);
        const item = this.#items.find((i) => i.id === id);
        if (item?.reading && typed?.endsWith("–")) {
          const text = await this.reading(item.reading);
          await this.keyIn(text);
        }
      }
      const next = await this.primary.innerText();
      await this.press(this.primary, "Enter");
      if (!next.startsWith("Next")) return;
    }
  }

  /** Chooses the value on the plate, by its position among the options. */
  async confirm(fact: string, options: Locator): Promise<void> {
    const words = await options.allInnerTexts();
    const place = words.findIndex((text) => text.startsWith(fact));
    expect(place, `${fact} is offered among ${words.join(", ")}`).toBeGreaterThanOrEqual(0);
    await this.press(this.page.getByTestId(`confirm-${fact}`), String(place + 1));
  }

  async type(text: string): Promise<void> {
    await this.keyIn(text);
    await this.press(this.primary, "Enter");
  }

  private async keyIn(text: string): Promise<void> {
    const places = this.by === "thumb" ? await placesOf(this.page, [...new Set(text)]) : undefined;
    for (const key of text) {
      const at = places?.get(key);
      if (at) await this.touch(at);
      else
        await this.press(
          this.page.getByRole("button", { name: key === "." ? "Point" : key, exact: true }),
          key,
        );
    }
  }

  /** Taps a known position: searching for the element again costs more than the tap. */
  private async touch({ x, y }: Place): Promise<void> {
    this.taps++;
    await this.page.mouse.click(x, y);
  }

  /** A known discrepancy: unchanged. */
  async observe(): Promise<void> {
    await this.press(this.page.getByRole("button", { name: "The same" }), "Enter");
    await this.press(this.page.getByRole("button", { name: "Log it" }), "Enter");
  }

  async press(target: Locator, key: string): Promise<void> {
    this.taps++;
    if (this.by === "thumb") await target.click();
    else {
      await expect(target).toBeVisible();
      await this.page.keyboard.press(key);
    }
  }

  /**
   * Jumps to an item without taps: the answers are stored on the device, and the page is notified as by another window. For tests
   * about what follows.
   */
  async jumpTo(goal: string): Promise<void> {
    await this.jump(goal);
    await this.walkTo(goal);
  }

  /** Jumps to the verdict without taps. */
  async jumpToVerdict(): Promise<void> {
    await this.jump(undefined);
    await this.walkToVerdict();
  }

  private async jump(goal: string | undefined): Promise<void> {
    const { page } = this;
    const id = page.url().split("/preflight/")[1]?.split("/")[0] ?? "";
    await written(page);
    const { list, events } = await walkOnDevice(page, id);
    const readings = { ...this.readings, hours: hoursLeft(list) ?? this.readings.hours ?? "0" };
    const more = healthyAnswers({ list, events, goal, readings, facts: this.#facts });
    await putOnDevice(page, more);
    this.answered += more.length;
    await seenFromAnotherWindow(page, more);
    await whatStands(
      page,
      undefined,
      more.flatMap(({ data }) => ("itemId" in data && data.itemId ? [data.itemId] : [])),
    );
    // Later answers must have later times than all of these.
    const newest = Math.max(0, ...more.map(({ id: eventId }) => idMsecs(eventId)));
    const ahead = newest - (await page.evaluate(() => Date.now()));
    if (ahead >= 0) await page.waitForTimeout(Math.min(ahead, 1000) + 1);
  }

  /** Continues until the given item is shown. */
  async walkTo(goal: string): Promise<void> {
    for (
      let standing = await this.item();
      standing.kind === "verdict" || standing.id !== goal;
      standing = await this.item(await this.answerTo(standing))
    )
      expect(
        standing.kind === "verdict" ? Number.POSITIVE_INFINITY : this.answered,
        `did not reach ${goal}`,
      ).toBeLessThan(2 * this.#items.length);
  }

  /** At the verdict: goes without what was not assessed, with the first of the reasons offered. */
  async goWithout(): Promise<void> {
    const choice = this.page.getByTestId("go-without");
    await choice.getByRole("button", { name: "I have checked it myself" }).click();
    await choice.getByTestId("waive").click();
    await expect(this.page.getByTestId("not-assessed")).toHaveCount(0);
  }

  /** Continues to the verdict. */
  async walkToVerdict(): Promise<void> {
    for (
      let standing = await this.item();
      standing.kind !== "verdict";
      standing = await this.item(await this.answerTo(standing))
    )
      expect(this.answered, "the preflight never ends").toBeLessThan(2 * this.#items.length);
    await this.page.waitForURL(/\/verdict$/);
  }
}
