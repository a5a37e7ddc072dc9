import { once } from "node:events";
import { createWriteStream } from "node:fs";
import { mkdtemp, rm } from "node:fs/promises";
import { tmpdir } from "node:os";
import { join } from "node:path";
import { traceCsv } from "@cravix/contract/trace";
import { simulateRunUp, usualPlan } from "@cravix/core/engine-model";
import { traceOf } from "@cravix/core/run-up";
import { expect, type Page, test } from "@playwright/test";
import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice } from "../support/device";
import { Walker } from "../support/walker";

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

/** A walk that was just begun, and the page of its run-up with a stand-in of this kind, eight times as fast as the clock. */
async function toTheRunUp(
  page: Page,
  query = "",
  registration = "QX-TAR",
): Promise<{ walker: Walker; id: string }> {
  await page.goto(cravix.url);
  const walker = new Walker(page);
  const id = await walker.begin(/Inês/, { registration });
  await expect.poll(async () => (await eventsOnDevice(page, id)).length).toBeGreaterThan(0);
  await page.goto(`${cravix.url}/preflight/${id}/run-up?speed=8&${query}`);
  await page.getByTestId("way-live").waitFor();
  return { walker, id };
}

/** What stands on the device once everything that was written down has come there. */
async function settled(page: Page, id: string) {
  let events = await eventsOnDevice(page, id);
  await expect
    .poll(async () => {
      const before = events.length;
      await page.waitForTimeout(300);
      events = await eventsOnDevice(page, id);
      return events.length - before;
    })
    .toBe(0);
  return events;
}

const readings = async (page: Page, id: string) =>
  Object.fromEntries(
    (await settled(page, id)).flatMap(({ event }) =>
      event.type === "reading.taken" ? [[event.data.key, event.data.value] as const] : [],
    ),
  );

test("a healthy run-up from the live monitor: no number is touched, one button writes it all down", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, "seed=4");
  await expectAccessible(page, "ways in");
  await page.getByTestId("way-live").click();
  for (const step of ["run-up", "right", "both", "left", "heat", "idle"])
    await page.getByTestId(`coach-${step}`).waitFor();
  await expect(page.getByTestId("diagnosis")).toContainText("Nothing stands out");
  await expectAccessible(page, "read run-up");
  await page.getByTestId("check-right").click();
  await expect(page.getByTestId("check-right")).toHaveAttribute("aria-expanded", "true");
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect(read["magneto.base"]).toBeGreaterThan(1700);
  const right = (read["magneto.base"] ?? 0) - (read["magneto.right"] ?? 0);
  expect(right).toBeGreaterThan(20);
  expect(right).toBeLessThan(125);
  for (const key of [
    "magneto.left",
    "carburettor-heat.hot",
    "carburettor-heat.cold-again",
    "volts.charging",
    "oil.pressure",
    "oil.temperature",
    "suction",
    "idle",
  ])
    expect(read[key], key).toBeDefined();
  const events = await eventsOnDevice(page, id);
  const traced = events.find(({ event }) => event.type === "run-up.read")?.event;
  expect(traced?.type === "run-up.read" && traced.data.found).toBeUndefined();
  expect(traced?.type === "run-up.read" && traced.data.rpm.length).toBeGreaterThan(50);
  // The items without a number that the trace answers are answered too.
  expect(
    events.some(({ event }) => event.type === "item.answered" && event.data.itemId === "magneto.both"),
  ).toBe(true);
  // And the server takes it.
  await expect
    .poll(async () => (await eventsOnDevice(page, id)).every(({ sync }) => sync === "sent"))
    .toBe(true);
});

test("a fouled plug is named by cylinder and side, cleared in a lean minute, and stays on record", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, "fault=fouled%20plug&side=left&cylinder=3&seed=12");
  await page.getByTestId("way-live").click();
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("fouled plug, cylinder 3, left magneto");
  await expect(page.getByTestId("tells-most")).toContainText("one minute");
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByTestId("coach-number")).toContainText(/^\d{1,2}$/);
  await expect(diagnosis).toContainText("Gone now", { timeout: 60_000 });
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect((read["magneto.base"] ?? 0) - (read["magneto.left"] ?? 0)).toBeLessThan(125);
  const traced = (await eventsOnDevice(page, id)).find(({ event }) => event.type === "run-up.read")?.event;
  expect(traced?.type === "run-up.read" && traced.data.found).toMatchObject({
    fault: "fouled plug",
    grade: "note",
  });
});

test("a dead plug does not come clean: a second try is offered, no third, and it says taxi back", async ({
  page,
}) => {
  await toTheRunUp(page, "fault=dead%20plug&side=right&cylinder=2&severity=1&seed=6");
  await page.getByTestId("way-live").click();
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByTestId("start-minute")).toContainText("Once more", { timeout: 60_000 });
  await page.getByTestId("start-minute").click();
  await page.getByTestId("coach-clear").waitFor();
  await expect(page.getByText("Not cleared in 2 tries: taxi back.")).toBeVisible({ timeout: 60_000 });
  await expect(page.getByTestId("start-minute")).toBeHidden();
  await expect(page.getByTestId("diagnosis")).toContainText("dead plug or lead, cylinder 2, right magneto");
  // It goes back: nothing more is tried.
  await expect(page.getByTestId("tells-most")).toBeHidden();
});

test("a test that tells most is tried, and what it came to changes what is likeliest", async ({ page }) => {
  await toTheRunUp(page, "fault=governor%20slow&severity=1&seed=3", "QX-HLD");
  await page.getByTestId("way-live").click();
  const most = page.getByTestId("tells-most");
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("Most likely: governor slow");
  await expect(most).toContainText("Oil warm, propeller twice more");
  await page.getByTestId("came-quick-now").click();
  await expect(diagnosis).not.toContainText("Most likely: governor slow");
});

test("one thing by itself: idle, leaned for the ground and warmed up, each ends in a judged reading at its item", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, "seed=5");
  await page.getByTestId("procedure-ground-lean").click();
  await page.getByTestId("coach-peak").waitFor();
  await expect(page.getByTestId("judged-ground-lean")).toContainText("Sound");
  await expect(page.getByTestId("judged-ground-lean")).toContainText("past it to");
  await expectAccessible(page, "leaned for the ground");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("procedure-idle").click();
  await expect(page.getByTestId("judged-idle")).toContainText("ran on");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("procedure-warm-up").click();
  await expect(page.getByTestId("judged-warm-up")).toContainText("in its arc");
  await page.getByTestId("use-procedure").click();
  await page.getByTestId("way-live").waitFor();
  const read = await readings(page, id);
  expect(read.idle).toBeGreaterThan(500);
  expect(read["oil.temperature"]).toBeGreaterThan(70);
  expect(
    (await eventsOnDevice(page, id)).some(
      ({ event }) => event.type === "item.answered" && event.data.itemId === "run-up.ground-lean",
    ),
  ).toBe(true);
});

for (const [what, registration, engines] of [
  ["a constant-speed six", "QX-HLD", [""]],
  ["the twin, one engine after the other", "QX-DOV", ["left", "right"]],
  ["the radial", "QX-COR", [""]],
] as const)
  test(`${what}: healthy, it stands out in nothing, with the propeller cycled and the air tried`, async ({
    page,
  }) => {
    const { id } = await toTheRunUp(page, `seed=4&engine=${engines[0]}`, registration);
    for (const engine of engines) {
      await page.goto(`${cravix.url}/preflight/${id}/run-up?speed=8&seed=4&engine=${engine}`);
      await page.getByTestId("way-live").click();
      await page.getByTestId("coach-propeller").waitFor();
      await expect(page.getByTestId("diagnosis")).toContainText("Nothing stands out", { timeout: 60_000 });
      await page.getByTestId("use-numbers").click();
      await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
      await settled(page, id);
    }
    const read = await readings(page, id);
    for (const engine of engines)
      for (const key of ["magneto.base", "magneto.left", "magneto.right", "oil.pressure"])
        expect(read[engine ? `${key}.${engine}` : key], `${key} ${engine}`).toBeGreaterThan(0);
  });

test("a magneto that is not grounded: asked once, then the card, the discrepancy already filled in, and the verdict is stop", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, "fault=hot%20magneto&side=left&seed=8");
  await page.getByTestId("way-live").click();
  await expect(page.getByText("Nothing changed. Is the key on right?")).toBeVisible();
  await page.getByTestId("yes-on-it").click();
  const card = page.getByTestId("emergency-card-no drop");
  await expect(card).toContainText("Nobody near the propeller");
  await expectAccessible(page, "emergency card");
  await expect(page.getByTestId("primary")).toBeEnabled();
  await page.getByTestId("primary").click();
  await page.waitForURL(/verdict$/);
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  const opened = (await eventsOnDevice(page, id)).find(
    ({ event }) => event.type === "discrepancy.opened",
  )?.event;
  expect(opened?.data).toMatchObject({
    grade: "stop",
    itemId: "magneto.right",
    text: expect.stringContaining("No magneto drop on right"),
  });
});

test("an engine that stops on one side, and a fire, each get their card at once", async ({ page }) => {
  await toTheRunUp(page, "fault=dead%20magneto&side=left&seed=5");
  await page.getByTestId("way-live").click();
  // On right nothing changes, since it only ever ran on that one: asked, the key is there, and it goes on to the other side.
  await page.getByText("Nothing changed. Is the key on right?").waitFor();
  await page.getByTestId("skip").click();
  await page.getByTestId("skip").click();
  await expect(page.getByTestId("emergency-card-stops on one")).toContainText("Throttle: idle");
  await page.getByRole("button", { name: "Back" }).click();
  await page.getByTestId("emergency").click();
  await page.getByTestId("emergency-fire").click();
  await expect(page.getByTestId("emergency-card-fire")).toContainText("Fuel: off");
});

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

/** A run-up of the trainer as another program's file has it. */
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

test("a file with foreign headers: what is known is taken, what is not is told by hand, and the drops are read", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page);
  await page.getByTestId("way-file").click();
  const chosen = page.waitForEvent("filechooser");
  await page.getByTestId("pick-trace").click();
  await (await chosen).setFiles({
    name: "logger.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(foreignFile()),
  });
  await expect(page.getByTestId("file-read")).toContainText("lines");
  // One column has a name that nobody knows: it is said what it holds.
  await page.getByRole("button", { name: "Intake [kPa]: not used" }).click();
  await page.getByRole("button", { name: "Manifold pressure", exact: true }).click();
  await page.getByRole("button", { name: "kPa", exact: true }).click();
  await page.getByRole("button", { name: "That is it" }).click();
  await expectAccessible(page, "columns of a file");
  await page.getByTestId("read-trace").click();
  await expect(page.getByTestId("diagnosis")).toContainText("Nothing stands out");
  await expect(page.getByTestId("check-left")).toContainText("−");
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = await readings(page, id);
  expect((read["magneto.base"] ?? 0) - (read["magneto.right"] ?? 0)).toBeGreaterThan(20);
});

test("a broken file, and one of many megabytes: told, the rest used, and the page stays alive", async ({
  page,
}) => {
  await toTheRunUp(page);
  await page.getByTestId("way-file").click();
  const give = async (name: string, buffer: Buffer) => {
    const chosen = page.waitForEvent("filechooser");
    await page.getByTestId("pick-trace").click();
    await (await chosen).setFiles({ name, mimeType: "text/csv", buffer });
  };
  await give("notes.csv", Buffer.from("hello\nworld\n"));
  await expect(page.getByText(/names of the columns/)).toBeVisible();
  await expect(page.getByTestId("read-trace")).toBeDisabled();
  // Five hours at ten lines a second, forty megabytes: only the first hour is read.
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
    timeout: 60_000,
  });
  await page.getByTestId("read-trace").click();
  await expect(page.getByTestId("diagnosis")).toBeVisible({ timeout: 60_000 });
});

test("half a gigabyte, and a quotation mark that is never closed: both are told within seconds", async ({
  page,
}) => {
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
    await toTheRunUp(page);
    await page.getByTestId("way-file").click();
    const give = async (path: string) => {
      const chosen = page.waitForEvent("filechooser");
      await page.getByTestId("pick-trace").click();
      await (await chosen).setFiles(path);
    };
    const samples = simulateRunUp(TRAINER, usualPlan(TRAINER)).samples;
    const runUp = traceCsv(traceOf(samples));
    // Behind the run-up the clock stands still for the rest of the file: no hour ever ends it.
    const lastLine = `${runUp.trim().split("\n").at(-1)}\n`;
    await give(await write("flight.csv", runUp, lastLine, 500));
    await expect(page.getByTestId("file-read")).toContainText("lines", { timeout: 60_000 });
    await page.getByTestId("read-trace").click();
    await expect(page.getByTestId("check-right")).toContainText("−", { timeout: 60_000 });
    await page.getByRole("button", { name: "Again", exact: true }).click();
    await page.getByTestId("way-file").click();
    await give(await write("quote.csv", 'time,rpm\n1,"', "1800 and so on\n", 40));
    await expect(page.getByText(/quotation mark/)).toBeVisible({ timeout: 60_000 });
    await give(await write("endless.csv", "time", "1800,", 20));
    await expect(page.getByText(/text file with lines/)).toBeVisible({ timeout: 60_000 });
    await expect(page.getByTestId("read-trace")).toBeDisabled();
  } finally {
    await rm(folder, { recursive: true });
  }
});

/** A file without prompts of an engine whose left magneto is not grounded: one side only drops in it. */
async function readHotMagnetoFile(page: Page) {
  await page.getByTestId("way-file").click();
  const hot = { ...TRAINER, fault: { kind: "hot magneto", side: "left" } } as const;
  const chosen = page.waitForEvent("filechooser");
  await page.getByTestId("pick-trace").click();
  await (await chosen).setFiles({
    name: "run-up.csv",
    mimeType: "text/csv",
    buffer: Buffer.from(traceCsv(traceOf(simulateRunUp(hot, usualPlan(hot)).samples))),
  });
  await page.getByTestId("read-trace").click();
}

test("a file in which one side only dropped: it is asked which, and the other was not healthy because nothing showed", async ({
  page,
}) => {
  await toTheRunUp(page);
  await readHotMagnetoFile(page);
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("not tried, or the key did not reach it");
  // It stands where the eye is: the page begins at its top.
  await expect(page.getByTestId("ask-which-side")).toBeInViewport();
  await expectAccessible(page, "a question about a file");
  await page.getByTestId("ask-which-side").getByRole("button", { name: "Left" }).click();
  await page.getByTestId("ask-other-side").getByRole("button", { name: "Tried: nothing dropped" }).click();
  await expect(diagnosis).toContainText("left magneto not grounded by the switch");
  await expect(page.getByTestId("ask-other-side")).toBeHidden();
});

test("a page that is closed before it was written down: the trace and every answer are still there", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page);
  await readHotMagnetoFile(page);
  await page.getByTestId("ask-which-side").getByRole("button", { name: "Left" }).click();
  await page.getByTestId("ask-other-side").waitFor();
  await page.reload();
  await expect(page.getByTestId("kept-run-up")).toContainText("not written down yet");
  // The first question was answered; it is gone on from there.
  await expect(page.getByTestId("ask-which-side")).toBeHidden();
  await page.getByTestId("ask-other-side").getByRole("button", { name: "Tried: nothing dropped" }).click();
  await expect(page.getByTestId("diagnosis")).toContainText("left magneto not grounded by the switch");
  await expect(page.getByTestId("kept-run-up")).toBeHidden();
  await page.reload();
  await expect(page.getByTestId("diagnosis")).toContainText("left magneto not grounded by the switch");
  await expectAccessible(page, "a run-up that was kept");
  await page.getByTestId("use-numbers").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await settled(page, id);
  // Written down: the next visit begins anew.
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-live").waitFor();
  await page.waitForTimeout(500);
  await expect(page.getByTestId("diagnosis")).toBeHidden();
});

test("a page that is closed in the very moment of writing down: all of it is on record, or all of it is still there", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page, "seed=4");
  await page.getByTestId("way-live").click();
  await page.getByTestId("use-numbers").waitFor();
  await page.evaluate(() => {
    (document.querySelector('[data-testid="use-numbers"]') as HTMLElement).click();
    window.location.href = "about:blank";
  });
  await page.waitForURL("about:blank");
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-live").or(page.getByTestId("kept-run-up")).first().waitFor();
  await page.waitForTimeout(1500);
  const kept = await page.getByTestId("kept-run-up").isVisible();
  const types = (await eventsOnDevice(page, id)).map(({ event }) => event.type);
  // One or the other, and never a part of it.
  expect(types.filter((type) => type === "run-up.read")).toHaveLength(kept ? 0 : 1);
  if (kept) expect(types).not.toContain("reading.taken");
  else expect(types.filter((type) => type === "reading.taken").length).toBeGreaterThan(5);
});

test("practice with a surprise: the learner says it first, then it is told, and nothing is written down", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page);
  const before = (await settled(page, id)).length;
  // The lot is loaded: there is a trouble, and it is one at which the coach needs no hand.
  const die = await page.evaluateHandle(() => {
    const fair = Math.random;
    Math.random = () => 0.5;
    return fair;
  });
  await page.getByTestId("way-surprise").click();
  await page.evaluate((fair) => {
    Math.random = fair;
  }, die);
  await expect(page.getByText("practice", { exact: true })).toBeVisible();
  const guess = page.getByTestId("guess");
  await guess.waitFor({ timeout: 60_000 });
  await expect(page.getByTestId("diagnosis")).toBeHidden();
  await expectAccessible(page, "a guess");
  await guess.getByRole("button").last().click();
  const planting = page.getByTestId("planting");
  await expect(planting).toContainText("Planted: blocked intake.");
  await expect(planting).toContainText("You said: nothing wrong.");
  await expect(page.getByTestId("diagnosis")).toBeVisible();
  await page.getByTestId("end-practice").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect((await settled(page, id)).length).toBe(before);
  // And it is not offered again as if it had been real.
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-live").waitFor();
  await page.waitForTimeout(500);
  await expect(page.getByTestId("kept-run-up")).toBeHidden();
});

test("a magneto that stops in practice: the card is practised, nothing is logged", async ({ page }) => {
  const { id } = await toTheRunUp(page, "fault=hot%20magneto&side=left&seed=8");
  const before = (await settled(page, id)).length;
  await page.getByTestId("way-practice").click();
  await page.getByTestId("yes-on-it").click();
  await expect(page.getByTestId("emergency-card-no drop")).toContainText("Practice: nothing is logged");
  await page.getByTestId("primary").click();
  await expect(page.getByTestId("planting")).toContainText("Planted: hot magneto, left.");
  await page.getByTestId("end-practice").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect((await settled(page, id)).length).toBe(before);
});

test("the same by typing only: five numbers, a slip told at its place, and a drop of nothing is stopped", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page);
  await page.getByTestId("way-typed").click();
  const type = async (digits: string) => {
    for (const digit of digits) await page.getByRole("button", { name: digit, exact: true }).click();
  };
  await type("9999");
  await expect(page.getByTestId("trouble")).toContainText("tachometer");
  for (let i = 0; i < 4; i++) await page.getByRole("button", { name: "Delete" }).click();
  // Each full number goes on by itself; a page that is closed in between keeps those that were given.
  await type("18001730");
  await expect(page.getByTestId("field-1")).toContainText("1,730");
  await page.reload();
  await page.getByTestId("way-typed").click();
  await expect(page.getByTestId("field-1")).toContainText("1,730");
  await page.getByTestId("field-2").click();
  await type("180017201800");
  await expectAccessible(page, "typed numbers");
  await page.getByTestId("typed-done").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect(await readings(page, id)).toMatchObject({
    "magneto.base": 1800,
    "magneto.right": 1730,
    "magneto.left": 1720,
  });
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await page.getByTestId("way-typed").click();
  await type("18001800180017201800");
  await page.getByTestId("typed-done").click();
  await expect(page.getByTestId("emergency-card-no drop")).toBeVisible();
});

test("typed and over the limit: it asks how it ran, names the plug's side, and the minute by hand is laid beside it", async ({
  page,
}) => {
  const { id } = await toTheRunUp(page);
  const type = async (digits: string) => {
    for (const digit of digits) await page.getByRole("button", { name: digit, exact: true }).click();
  };
  await page.getByTestId("way-typed").click();
  await type("18001730180016401800");
  await page.getByTestId("typed-done").click();
  await page.getByTestId("ask-feel").getByRole("button", { name: "Rough" }).click();
  const diagnosis = page.getByTestId("diagnosis");
  await expect(diagnosis).toContainText("Most likely: fouled plug, left magneto");
  await expect(diagnosis).toContainText("Lean, a little more rpm, one minute");
  await expectAccessible(page, "typed and over the limit");
  const felt = (await settled(page, id)).flatMap(({ event }) =>
    event.type === "reading.taken" && event.data.feel ? [event.data] : [],
  );
  expect(felt).toMatchObject([{ key: "magneto.left", value: 1640, feel: "rough" }]);
  // The page closed here, and again after the minute: what was answered and seen before is still there.
  await page.reload();
  await expect(diagnosis).toContainText("Most likely: fouled plug, left magneto");
  await expect(page.getByTestId("ask-feel")).toBeHidden();
  await page.getByTestId("minute-done").click();
  await expect(page.getByTestId("field-0")).toBeVisible();
  await page.reload();
  await page.getByTestId("way-typed").click();
  await type("18001730180017201800");
  await page.getByTestId("typed-done").click();
  await expect(diagnosis).toContainText("It was most likely: fouled plug, left magneto. Gone now.");
  await page.getByTestId("to-walk").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  const read = (await settled(page, id)).flatMap(({ event }) =>
    event.type === "run-up.read" ? [event.data] : [],
  );
  expect(read.map(({ from, found }) => [from, found?.fault, found?.grade])).toEqual([
    ["typed", expect.any(String), expect.any(String)],
    ["typed", "fouled plug", "ask"],
    ["typed", "fouled plug", "note"],
  ]);
  expect(await readings(page, id)).toMatchObject({ "magneto.left": 1720 });
  // Left by its own way on, it is done: the next time begins with the ways in.
  await page.goto(`${cravix.url}/preflight/${id}/run-up`);
  await expect(page.getByTestId("way-typed")).toBeVisible();
  await expect(diagnosis).toBeHidden();
});

test("the same spoken: each number is heard, read back and put in its place; what is no number is asked again", async ({
  page,
}) => {
  // Chromium has no ears of its own without a network: a stand-in that hears one line after the other.
  await page.addInitScript({
    content: `
      const lines = ["eighteen hundred", "wind is nice", "one seven tree zero", "one eight zero zero", "1720", "1,800"];
      window.SpeechRecognition = function () {
        this.start = () => {
          const line = lines.shift();
          if (line) setTimeout(() => this.onresult({ results: [[{ transcript: line }]] }), 900);
        };
        this.abort = () => {};
      };`,
  });
  const { id } = await toTheRunUp(page);
  await page.getByTestId("way-typed").click();
  await page.getByRole("button", { name: "Speak them" }).click();
  await expect(page.getByTestId("trouble")).toContainText('Heard "wind is nice": no number');
  await expect(page.getByTestId("field-4")).toContainText("1,800");
  await expect(page.getByTestId("field-1")).toContainText("1,730");
  await page.getByTestId("typed-done").click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  expect(await readings(page, id)).toMatchObject({
    "magneto.base": 1800,
    "magneto.right": 1730,
    "magneto.left": 1720,
  });
});

test("the controls corner by corner: first what comes first, then seen as drawn", async ({ page }) => {
  const { walker, id } = await toTheRunUp(page);
  await page.goto(`${cravix.url}/preflight/${id}/controls`);
  await expect(page.getByText("Left aileron up, thumbs at it; elevator down")).toBeVisible();
  await expectAccessible(page, "controls drill");
  await page.goto(`${cravix.url}/preflight/${id}`);
  await page.getByRole("button", { name: /^Run-up/ }).click();
  await walker.jumpTo("run-up.controls");
  await page.getByTestId("controls-drill").click();
  for (let i = 0; i < 6; i++) await page.getByTestId("primary").click();
  await page.getByRole("button", { name: "Free, full, correct" }).click();
  await page.waitForURL(/\/preflight\/[0-9a-f-]+$/);
  await expect
    .poll(async () =>
      (await eventsOnDevice(page, id)).some(
        ({ event }) => event.type === "item.answered" && event.data.itemId === "run-up.controls",
      ),
    )
    .toBe(true);
});

test("practice needs no server: the engine runs on the device", async ({ page, context }) => {
  await toTheRunUp(page, "seed=4");
  // Fetched once, kept on the device.
  await page.getByTestId("way-practice").click();
  await page.getByTestId("coach-run-up").waitFor();
  await page.getByTestId("finish").click();
  await context.setOffline(true);
  await page.getByRole("button", { name: "Again", exact: true }).click();
  await page.getByTestId("way-practice").click();
  await page.getByTestId("coach-right").waitFor();
  await context.setOffline(false);
});
