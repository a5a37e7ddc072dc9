import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { expect, type Page, test } from "../support/test";
import { tarrow4, Walker } from "../support/walker";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });

test("boarding waits for open items, the propeller for the ignition check, and everything removed is put back", async ({
  page,
}) => {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  await walker.begin(/Maren/, { conditions: ["first of the day"] });

  // The ignition is postponed, and the propeller visited out of order: it is blocked.
  await walker.jumpTo("cockpit.ignition");
  await button(page, "Postpone").click();

  // With the battery on, it is listed to be put back, and the clock runs.
  await walker.walkTo("cockpit.flaps");
  await expect(page.getByTestId("battery")).toContainText(/Battery on \d:\d\d/);
  await button(page, "To put back: 2 off 1 on").click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("QX-TAR: 1 to put back");
  await expect(page.getByText("battery master: still on, at Cockpit, power on")).toBeVisible();
  await expect(page.getByText("behind the left seat")).toBeVisible();
  await expect(button(page, "tail tie-down: removed at Tail")).toBeVisible();
  await expectAccessible(page, "ledger");
  await button(page, "Back").click();

  await walker.walkTo("cockpit.master-off");
  await walker.answer();
  await expect(page.getByTestId("battery")).toHaveCount(0);
  await button(page, /^Walkaround \d/).click();
  await expect(page.getByTestId("item-left-side.skin")).toBeVisible();
  await button(page, /^Propeller and spinner/).click();
  const blocked = page.getByTestId("blocked");
  await expect(blocked).toContainText("with a live magneto it can fire");
  await expectAccessible(page, "stopped by a rule");
  await page.keyboard.press("f");
  await expect(blocked).toBeVisible();
  await button(page, "Go to: Ignition off, key out").click();
  await expect(page.getByTestId("item-cockpit.ignition")).toBeVisible();
  await walker.answer();

  // One tie-down is forgotten: the gate at boarding leads to it.
  await walker.walkTo("tail.tie-down");
  await button(page, "Postpone").click();
  await walker.jumpTo("right-side.beacon-date");
  await expect(page.getByTestId("confirm-06/2028")).toBeVisible();
  await walker.jumpTo("left-leading.tie-down");
  await button(page, /^Board \d/).click();
  await expect(blocked).toContainText("tail tie-down: not removed yet, at Tail");
  await expect(blocked).toContainText(
    "left tie-down: not removed yet, at Left leading edge, pitot, stall warner",
  );
  await expect(blocked).not.toContainText("intake plugs");
  await blocked.getByRole("button", { name: "tail tie-down: not removed yet, at Tail" }).click();
  await walker.answer();
  await button(page, /^Walkaround \d/).click();
  await walker.jumpToVerdict();
  await walker.goWithout();
  await button(page, "Accept the aircraft").click();

  // After the flight: only what was removed goes back on, and it can wait until then.
  await expect(page.getByTestId("line-up")).toContainText("Windsock");
  await page.goto(cravix.url);
  await button(page, "QX-TAR is flying: do the after-flight checks when back").click();
  await button(page, "Cuts out").click();
  await walker.type("4231.3");
  await expect(page.getByText("4231.3 h")).toBeVisible();
  await expectAccessible(page, "after the flight");
  const off = tarrow4.items.filter((i) => i.ledger && "after" in i.ledger);
  await expect(page.getByText("Tail tied down")).toBeVisible();
  for (let i = 0; i < off.length + 4; i++) await walker.primary.click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("QX-TAR is secured");
  await button(page, "Finish after-flight checks").click();
  await expect(button(page, "Prepare QX-TAR")).toBeVisible();
  await expect(button(page, /is flying/)).toHaveCount(0);
});
