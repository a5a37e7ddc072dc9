import { chromium } from "@playwright/test";
import { Walker } from "./support/walker";

const [, , width = "390", height = "844"] = process.argv;
(async () => {
  const browser = await chromium.launch({
    executablePath: "/usr/bin/chromium",
    args: ["--no-sandbox", "--disable-gpu"],
  });
  const page = await (
    await browser.newContext({
      viewport: { width: +width, height: +height },
      timezoneId: "UTC",
      locale: "en-GB",
    })
  ).newPage();
  page.on("pageerror", (e) => console.log("PAGEERROR", e.message));
  page.on("console", (m) => {
    if (m.type() === "error") console.log("CONSOLE", m.text().slice(0, 300));
  });
  const shot = (n: string) => page.screenshot({ path: `/tmp/shots/${n}-${width}.png` });
  await page.goto("http://localhost:8091/");
  const w = new Walker(page);
  await page.getByRole("button", { name: /Inês/ }).click();
  await w.prepare("QX-TAR");
  await shot("start");
  await page.getByRole("button", { name: "Fuel and oil log" }).click();
  await page.getByTestId("oil-plot").waitFor();
  await page.waitForTimeout(800);
  await shot("logs");
  await page.getByRole("button", { name: "Fuel", exact: true }).click();
  await page.waitForTimeout(800);
  await shot("logs-fuel");
  await page.getByRole("button", { name: "Back to the start" }).click();
  await w.go();
  const type = async (t: string) => {
    for (const k of t) await page.getByRole("button", { name: k === "." ? "Point" : k, exact: true }).click();
  };
  await w.walkTo("cockpit.gauge.left");
  await type("19");
  await page.waitForTimeout(200);
  await shot("gauge");
  await page.getByTestId("primary").click();
  await w.walkTo("left-drain.1");
  await shot("drain");
  await page.getByTestId("look-water").click();
  await page.waitForTimeout(300);
  await shot("drain-water");
  await page.getByTestId("primary").click();
  await page.waitForTimeout(2500);
  await shot("drain-clock");
  await page.getByTestId("primary").click();
  await w.walkTo("left-tank.dip");
  await shot("dip-empty");
  await type("16");
  await page.waitForTimeout(200);
  await shot("dip");
  await page.getByTestId("primary").click();
  await w.walkTo("oil.level");
  await type("7");
  await page.getByRole("button", { name: "Cold" }).click();
  await page.waitForTimeout(200);
  await shot("oil");
  await page.getByTestId("primary").click();
  await page.waitForTimeout(400);
  await shot("after-oil");
  await page.getByTestId("fuel-desk").first().click();
  await page.getByRole("heading", { name: "Fuel" }).waitFor();
  await page.waitForTimeout(900);
  await shot("desk-how-much");
  await page.getByRole("button", { name: "Enough?" }).click();
  await page.waitForTimeout(900);
  await shot("desk-enough");
  await page.mouse.wheel(0, 700);
  await page.waitForTimeout(400);
  await shot("desk-enough2");
  await page.getByRole("button", { name: "Refuel", exact: true }).click();
  await page.waitForTimeout(300);
  await shot("desk-refuel");
  await page.getByRole("button", { name: "Ground, night" }).click();
  await page.waitForTimeout(300);
  await page.getByRole("button", { name: "−1 degrees at the lowest" }).click();
  await page.waitForTimeout(300);
  await shot("desk-night");
  await page.getByRole("button", { name: "Back to the walk" }).click();
  await page.getByTestId("add-oil").click();
  await page.waitForTimeout(500);
  await shot("add-oil");
  await browser.close();
})();
