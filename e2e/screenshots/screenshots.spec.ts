import { join } from "node:path";
import { type Page, test } from "@playwright/test";
import { PHONE, WIDE } from "../playwright.config";
import { Cravix } from "../support/cravix";
import { lastNoon } from "../support/daylight";
import { HEALTHY, Walker } from "../support/walker";

const FOLDER = process.env.SHOTS ?? join(__dirname, "..", "..", "docs", "screenshots");
const NOON = lastNoon();
const two = (n: number) => String(n).padStart(2, "0");
const stamp = (at: Date) => `${two(at.getUTCDate())}${two(at.getUTCHours())}${two(at.getUTCMinutes())}Z`;
let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

for (const [size, viewport] of [
  ["phone", PHONE],
  ["wide", WIDE],
] as const)
  test(size, async ({ browser }) => {
    const context = await browser.newContext({ viewport, baseURL: cravix.url });
    const page: Page = await context.newPage();
    const shot = async (name: string) => {
      await page.waitForTimeout(400);
      await page.screenshot({ path: join(FOLDER, `${name}-${size}.png`) });
    };
    const walker = new Walker(page, "thumb", { ...HEALTHY, "oil.level": "6.2" });
    // Every answer takes as long as a person's.
    await walker.takeTime(9000, NOON.getTime() - 45 * 60_000);
    await page.goto("/");
    await page.getByRole("button", { name: /Inês/ }).click();
    await page.getByText("creep mark").first().waitFor();
    await page.waitForTimeout(3000);
    await shot("aircraft");
    await page.getByRole("button", { name: "Prepare QX-TAR" }).click();
    await page.getByRole("button", { name: /^frost/i }).click();
    await page.getByRole("button", { name: "−5 degrees" }).click();
    for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "−5 degrees" }).click();
    await page.mouse.move(200, 300);
    await page.mouse.wheel(0, -2000);
    if (size === "phone") await shot("start");
    else {
      await page.goto("/aircraft/QX-TAR/loading");
      await page.getByLabel("front seats, kg").fill("165");
      await page.getByLabel("rear seats, kg").fill("80");
      await page.getByLabel("baggage, kg").fill("12");
      await shot("loading");
      // Noon, whatever the time of this machine.
      await page.clock.setSystemTime(NOON);
      await page.goto("/aircraft/QX-TAR/plan");
      await page
        .getByLabel("METAR or TAF, typed or pasted")
        .fill(`METAR QXMP ${stamp(NOON)} 27012G19KT 240V300 9999 SCT026 15/07 Q1016`);
      await page.getByTestId("read-report").click();
      await page.getByTestId("runway-24").click();
      await page.getByTestId("worst-case").waitFor();
      await page.getByTestId("distances").evaluate((part) => part.scrollIntoView({ block: "end" }));
      await shot("plan");
      await page.goto("/aircraft/QX-TAR/loading");
      await page.getByLabel("front seats, kg").waitFor();
      for (const place of ["front seats", "rear seats", "baggage"])
        await page.getByLabel(`${place}, kg`).fill("");
    }
    await page.goto("/aircraft/QX-TAR/due");
    await page.getByTestId("due-hundred").waitFor();
    if (size === "phone") await shot("due");
    else {
      await page.goto("/log/workshop");
      await page.getByTestId("visits-QX-LUM").waitFor();
      await page.getByTestId("visits-QX-TAR").getByTestId("bead-1").click();
      await page.getByTestId("visit").getByRole("button", { name: "−1 week" }).click();
      await shot("workshop");
      await page.getByRole("button", { name: "Restore the best plan" }).click();
    }
    await page.goto("/aircraft/QX-TAR/prepare");
    if (size === "wide") {
      await page.goto("/aircraft/QX-TAR/logs");
      await page.getByTestId("oil-plot").waitFor();
      await page
        .getByText(/qt\/h$/)
        .first()
        .waitFor();
      await shot("oil-log");
      await page.goto("/aircraft/QX-TAR/flights");
      await page.getByText("4,229.2 to 4,230.1").waitFor();
      await shot("flights");
      await page.goto("/aircraft/QX-TAR/prepare");
    }
    if (size === "wide") {
      // As for a daily pilot: several items on one card.
      await page.getByRole("button", { name: "Read-and-do" }).click();
      await page.getByRole("button", { name: "Items seen in one look" }).click();
      await page.getByRole("button", { name: "Done" }).click();
    }
    await page.getByRole("button", { name: "Start preflight" }).click();
    await walker.walkTo("right-gear.tyre");
    await walker.walkTo(size === "wide" ? "left-leading.edge" : "left-tip.play");
    await shot("walk");
    if (size === "phone") {
      await walker.walkTo("left-drain.4");
      await page.getByTestId("look-water").click();
      await shot("drains");
      await page.getByRole("button", { name: "Drain again" }).click();
      await walker.primary.click();
    }
    await walker.walkTo("left-tank.dip");
    for (const key of "16") await page.getByRole("button", { name: key, exact: true }).click();
    if (size === "phone") await shot("fluids");
    await page.getByTestId("primary").click();
    await walker.walkTo("oil.level");
    for (const key of "6.2")
      await page.getByRole("button", { name: key === "." ? "Point" : key, exact: true }).click();
    await page.getByTestId("primary").click();
    await walker.walkTo("magneto.base");
    await page.goto(`${page.url()}/run-up?fault=fouled%20plug&side=left&cylinder=3&seed=12&speed=6`);
    await page.getByTestId("way-live").click();
    await page.getByTestId("coach-left").waitFor();
    if (size === "wide") await shot("run-up");
    await page.getByTestId("diagnosis").waitFor({ timeout: 60_000 });
    if (size === "phone") await shot("run-up");
    await page.getByTestId("use-numbers").click();
    await walker.walkTo("take-off.trim");
    if (size === "phone") await shot("line-up");
    await walker.walkToVerdict();
    if (size === "phone") await shot("verdict");
    await page.getByRole("button", { name: "Sign: not flying" }).click();
    await page.getByRole("button", { name: "Go to Aircraft" }).click();
    if (size === "phone") await page.getByRole("button", { name: "Night colours" }).click();
    await page.getByRole("link", { name: "Log", exact: true }).click();
    await page.getByText("Signed off").first().waitFor();
    await shot("log");
    await context.close();
  });
