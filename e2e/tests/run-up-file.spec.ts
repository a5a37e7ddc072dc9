import { once } from "node:events";
import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { traceCsv } from "@cravix/contract/trace";
import { type SimulatedFault, simulateRunUp, usualPlan } from "@cravix/core/engine-model";
import { traceOf } from "@cravix/core/run-up";
import type { Locator } from "@playwright/test";
import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { readings, settled, toTheRunUp } from "../support/run-up-page";
import { expect, type Page, test } from "../support/test";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const TRAINER = {
  shape: {
    cylinders: 4,
    fuelSystem: "carburettor",
    propeller: "fixed",
    volts: 28,
    ratedRpm: 2700,
    vacuumPump: true,
  },
  runUpRpm: 1800,
  clearRpm: 2000,
  air: { pressureHpa: 1013, celsius: 15, humidity: 0.5 },
  fault: { kind: "none" },
  severity: 0,
  seed: 21,
} as const;

/** The trainer's run-up as another program's file. */
function foreignFile(): string {
  const { samples } = simulateRunUp(TRAINER, usualPlan(TRAINER));
  const clock = (t: number) => new Date(Date.UTC(2026, 4, 1, 9, 0, 0) + t * 1000).toISOString().slice(11, 23);
  const head =
    "Logger 7;unit 12\nLcl Time;E1 RPM;Intake [kPa];E1 OilT [deg C];E1 OilP [bar];Volt1;E1 EGT1 [C];E1 EGT2 [C];E1 EGT3 [C];E1 EGT4 [C]";
  const c = (f: number) => ((f - 32) / 1.8).toFixed(1);
  return `${head}\n${samples
    .map((s) =>
      [
        clock(s.t),
        s.rpm,
        ((s.map ?? 0) * 3.38639).toFixed(2),
        c(s.oilTemperature),
        (s.oilPressure / 14.5038).toFixed(2),
        s.volts,
        ...s.egt.map(c),
      ]
        .join(";")
        .replaceAll(".", ","),
    )
    .join("\n")}\n`;
}

test("a file with unknown headers: known columns are used, others assigned by hand, and the drops are read", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix);
  await page.getByTestId("way-file").click();
  const chosen = page.waitForEvent("filechooser");
  await page.getByTestId("pick-trace").click();
  await (await chosen).setFiles({
    name: "logger.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(foreignFile()),
  });
  await expect(page.getByTestId("file-read")).toContainText("lines");
  // One column has an unknown name: the user chooses.
  await page.getByRole("button", { name: "Intake [kPa]: not used" }).click();
  await page.getByRole("button", { name: "Manifold pressure", exact: true }).click();
  await page.getByRole("button", { name: "kPa", exact: true }).click();
  await page.getByRole("button", { name: "Done" }).click();
  await expectAccessible(page, "columns of a file");
  await page.getByTestId("read-trace").click();
  await expect(page.getByTestId("diagnosis")).toContainText("No fault found");
  // Sides not identified: none is named, and none would be logged.
  const sides = [page.getByTestId("check-right"), page.getByTestId("check-left")] as const;
  await expect(sides[0]).toContainText("the first side");
  await expect(sides[1]).toContainText("the second side");
  await expect(page.getByTestId("use-numbers")).toHaveText("Log the other numbers");
  const [first, second] = [await dropIn(sides[0]), await dropIn(sides[1])];
  await expectAccessible(page, "sides that nobody named");
  await page.getByTestId("ask-order").getByRole("button", { name: "Left" }).click();
  await expect(sides[1]).toContainText("left");
  expect([await dropIn(sides[0]), await dropIn(sides[1])]).toEqual([second, first]);
  await expect(page.getByTestId("ask-order")).toBeHidden();
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect((read["magneto.base"] ?? 0) - (read["magneto.left"] ?? 0)).toBe(first);
});

/** Drop in a result row, rpm. */
const dropIn = async (row: Locator) => Number(/−(\d+)/.exec((await row.textContent()) ?? "")?.[1]);

test("a file without side names: the sides are entered by hand, and everything else is logged", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix);
  await readFile(page, { kind: "none" });
  await page.getByTestId("ask-order").waitFor();
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect(Object.keys(read)).toEqual(expect.arrayContaining(["magneto.base", "idle"]));
  expect(Object.keys(read).filter((key) => /magneto\.(right|left)/.test(key))).toEqual([]);
});

test("a side missing from the trace: known values are filled in, and the pilot enters the rest", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, cravix);
  await readHotMagnetoFile(page);
  await page.getByTestId("ask-which-side").getByRole("button", { name: "Left" }).click();
  await page
    .getByTestId("ask-other-side")
    .getByRole("button", { name: "It dropped, but not in the trace" })
    .click();
  // A trace showing one side only is not called healthy.
  await expect(page.getByTestId("diagnosis")).toContainText("No reading: right");
  await expect(page.getByTestId("file-alone")).toContainText("The file does not show right.");
  await expectAccessible(page, "a side that was not read");
  await page.getByTestId("file-type").click();
  const base = Number((await page.getByTestId("field-0").textContent())?.replace(/\D/g, ""));
  expect(base).toBeGreaterThan(1700);
  await expect(page.getByTestId("field-3")).toContainText(/Left1,7\d\d/);
  await expect(page.getByTestId("field-1")).toContainText("–");
  // The first missing number is active.
  await page.keyboard.type(String(base - 60));
  await page.getByTestId("typed-done").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect(read["magneto.right"]).toBe(base - 60);
  expect((read["magneto.base"] ?? 0) - (read["magneto.left"] ?? 0)).toBeGreaterThan(20);
});

test("an ambiguous unit is asked once and remembered for this monitor", async ({ page }) => {
  await toTheRunUp(page, cravix);
  await page.getByTestId("way-file").click();
  const { samples } = simulateRunUp(TRAINER, usualPlan(TRAINER));
  const give = async () => {
    const chosen = page.waitForEvent("filechooser");
    await page.getByTestId("pick-trace").click();
    await (await chosen).setFiles({
      name: "plain.csv",
      mimeType: "text/csv",
      buffer: Buffer.from(
        `time,rpm,egt 1,egt 2,suction\ns,rpm,°C,°C,\n${samples
          .map(({ t, rpm, egt }) =>
            [t, rpm, ...egt.slice(0, 2).map((f) => ((f - 32) / 1.8).toFixed(1)), 3.2].join(","),
          )
          .join("\n")}\n`,
      ),
    });
    await expect(page.getByTestId("file-read")).toContainText("lines");
  };
  await give();
  // The units line is read; suction has no unit, and 3.2 fits two.
  await expect(page.getByRole("button", { name: "egt 1: EGT 1, °C" })).toBeVisible();
  const asked = page.getByTestId("unit-asked-suction");
  await expect(asked).toContainText("The file gives no unit, and the numbers could be inHg or psi.");
  await expect(page.getByTestId("read-trace")).toBeDisabled();
  await expectAccessible(page, "a unit that converts to is asked about");
  await asked.getByRole("button", { name: "inHg" }).click();
  await expect(page.getByTestId("read-trace")).toBeEnabled();
  await give();
  await expect(asked).toHaveCount(0);
  await expect(page.getByTestId("read-trace")).toBeEnabled();
  await page.getByTestId("read-trace").click();
  await expect(page.getByTestId("diagnosis")).toBeVisible();
});

test("a damaged file and a very large one: errors reported, the rest used, and the page stays responsive", async ({
  page,
}) => {
  await toTheRunUp(page, cravix);
  await page.getByTestId("way-file").click();
  const give = async (name: string, buffer: Buffer) => {
    const chosen = page.waitForEvent("filechooser");
    await page.getByTestId("pick-trace").click();
    await (await chosen).setFiles({ name, mimeType: "text/csv", buffer });
  };
  await give("notes.csv", Buffer.from("hello\nworld\n"));
  await expect(page.getByText(/column names/)).toBeVisible();
  await expect(page.getByTestId("read-trace")).toBeDisabled();
  // Five hours at ten samples per second, forty megabytes: only the first hour is read.
  const line =
    ",1000,18,5,70,160,28,4,5,1200,1210,1220,1230,300,310,320,330,1,2,3,4,5,6,7,8,9,10,11,12,13,14,15,16,17,18,19,20,21,22,23,24,25\n".repeat(
      1,
    );
  const long = [
    "time,rpm,map,fuel flow,oil pressure,oil temperature,volts,amps,suction,egt 1,egt 2,egt 3,egt 4,cht 1,cht 2,cht 3,cht 4\n",
  ];
  for (let i = 0; i < 180_000; i++) long.push(`${i / 10}${line}`);
  await give("flight.csv", Buffer.from(long.join("")));
  await expect(page.getByTestId("file-read")).toContainText("The first hour of running was read", {
    timeout: 120_000,
  });
  await page.getByTestId("read-trace").click();
  await expect(page.getByTestId("diagnosis")).toBeVisible({ timeout: 120_000 });
});

test("half a gigabyte, and an unclosed quotation mark: both reported within seconds", async ({ page }) => {
  const folder = await mkdtemp(join(tmpdir(), "cravix-e2e-"));
  const write = async (name: string, head: string, part: string, megabytes: number) => {
    const path = join(folder, name);
    const out = createWriteStream(path);
    out.write(head);
    const piece = part.repeat(Math.ceil((1 << 20) / part.length));
    for (let i = 0; i < megabytes; i++) if (!out.write(piece)) await once(out, "drain");
    out.end();
    await once(out, "close");
    return path;
  };
  try {
    await toTheRunUp(page, cravix);
    await page.getByTestId("way-file").click();
    const give = async (path: string) => {
      const chosen = page.waitForEvent("filechooser");
      await page.getByTestId("pick-trace").click();
      await (await chosen).setFiles(path);
    };
    const samples = simulateRunUp(TRAINER, usualPlan(TRAINER)).samples;
    const runUp = traceCsv(traceOf(samples));
    // After the run-up the clock stops for the rest of the file, so the hour never ends.
    const lastLine = `${runUp.trim().split("\n").at(-1)}\n`;
    await give(await write("flight.csv", runUp, lastLine, 500));
    await expect(page.getByTestId("file-read")).toContainText("lines", { timeout: 120_000 });
    await page.getByTestId("read-trace").click();
    await expect(page.getByTestId("check-right")).toContainText("−", { timeout: 120_000 });
    await page.getByRole("button", { name: "Repeat run-up" }).click();
    await page.getByTestId("way-file").click();
    await give(await write("quote.csv", 'time,rpm\n1,"', "1800 and so on\n", 40));
    await expect(page.getByText(/quotation mark/)).toBeVisible({ timeout: 120_000 });
    await give(await write("endless.csv", "time", "1800,", 20));
    await expect(page.getByText(/a text file; this one is not/)).toBeVisible({ timeout: 120_000 });
    await expect(page.getByTestId("read-trace")).toBeDisabled();
  } finally {
    await rm(folder, { recursive: true });
  }
});

/** An unprompted file of an engine with an ungrounded left magneto: only one side drops. */
const readHotMagnetoFile = (page: Page) => readFile(page, { kind: "hot magneto", side: "left" });

/** Loads an unprompted file of the trainer. */
async function readFile(page: Page, fault: SimulatedFault) {
  await page.getByTestId("way-file").click();
  const engine = { ...TRAINER, fault };
  const chosen = page.waitForEvent("filechooser");
  await page.getByTestId("pick-trace").click();
  await (await chosen).setFiles({
    name: "run-up.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(traceCsv(traceOf(simulateRunUp(engine, usualPlan(engine)).samples))),
  });
  await page.getByTestId("read-trace").click();
}

test("a file with a drop on one side only: the side is asked, and the other is not assumed healthy", async ({
  page,
}) => {
  await toTheRunUp(page, cravix);
  await readHotMagnetoFile(page);
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("not checked, or the key was not turned far enough");
  // Visible at the top of the page.
  await expect(page.getByTestId("ask-which-side")).toBeInViewport();
  await expectAccessible(page, "a question about a file");
  await page.getByTestId("ask-which-side").getByRole("button", { name: "Left" }).click();
  await page.getByTestId("ask-other-side").getByRole("button", { name: "Checked: no drop" }).click();
  await expect(diagnosis).toContainText("left magneto not grounded by the switch");
  await expect(page.getByTestId("ask-other-side")).toBeHidden();
});

test("a page closed before saving: the trace and every answer are still there", async ({ page }) => {
  const { id } = await toTheRunUp(page, cravix);
  await readHotMagnetoFile(page);
  await page.getByTestId("ask-which-side").getByRole("button", { name: "Left" }).click();
  await page.getByTestId("ask-other-side").waitFor();
  await page.reload();
  await expect(page.getByTestId("saved-run-up")).toContainText("not logged yet");
  // The first question was answered; continue from there.
  await expect(page.getByTestId("ask-which-side")).toBeHidden();
  await page.getByTestId("ask-other-side").getByRole("button", { name: "Checked: no drop" }).click();
  await expect(page.getByTestId("diagnosis")).toContainText("left magneto not grounded by the switch");
  await expect(page.getByTestId("saved-run-up")).toBeHidden();
  await page.reload();
  await expect(page.getByTestId("diagnosis")).toContainText("left magneto not grounded by the switch");
  await expectAccessible(page, "a run-up that was kept");
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await settled(page, id);
  // Recorded: the next visit starts again.
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-live").waitFor();
  await page.waitForTimeout(500);
  await expect(page.getByTestId("diagnosis")).toBeHidden();
});

test("a page closed while saving: everything is saved, or everything is still there", async ({ page }) => {
  const { id } = await toTheRunUp(page, cravix, "seed=4");
  await page.getByTestId("way-live").click();
  await page.getByTestId("use-numbers").waitFor();
  await page.evaluate(() => {
    (document.querySelector('[data-testid="use-numbers"]') as HTMLElement).click();
    window.location.href = "about:blank";
  });
  await page.waitForURL("about:blank");
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-live").or(page.getByTestId("saved-run-up")).first().waitFor();
  await page.waitForTimeout(1500);
  const kept = await page.getByTestId("saved-run-up").isVisible();
  const types = (await eventsOnDevice(page, id)).map(({ event }) => event.type);
  // Either one, never part of it.
  expect(types.filter((type) => type === "run-up.read")).toHaveLength(kept ? 0 : 1);
  if (kept) expect(types).not.toContain("reading.taken");
  else expect(types.filter((type) => type === "reading.taken").length).toBeGreaterThan(5);
});
