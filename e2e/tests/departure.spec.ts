import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { eventsOnDevice, written } from "../support/device";
import { expect, lastNoon, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** Weather, runways, distances and personal minimums; planned at home, recalculated at the holding point. */

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) =>
  page.getByRole("button", { name, ...(typeof name === "string" && { exact: true }) });
const two = (n: number) => String(n).padStart(2, "0");
const stamp = (at: Date) => `${two(at.getUTCDate())}${two(at.getUTCHours())}${two(at.getUTCMinutes())}Z`;

const NOON = lastNoon();
const before = (minutes: number) => stamp(new Date(NOON.getTime() - minutes * 60_000));

async function atNoon(page: Page, who: RegExp): Promise<void> {
  await page.clock.setSystemTime(NOON);
  await page.goto(cravix.url);
  await button(page, who).click();
  await button(page, /^Prepare/).waitFor();
}
async function plan(page: Page, registration: string): Promise<void> {
  await written(page);
  await page.goto(`${cravix.url}/aircraft/${registration}/plan`);
  await page.getByTestId("read-report").waitFor();
}
async function report(page: Page, text: string): Promise<void> {
  await page.getByLabel("METAR or TAF, typed or pasted").fill(text);
  await page.getByTestId("read-report").first().click();
}

test.describe("offline", () => {
  // Offline on pages opened for the first time.
  test.use({ fetchesAhead: true });

  test("a hot day on grass: too short, with what would make it fit; unusable reports are explained; also offline", async ({
    page,
    context,
  }) => {
    // Personal minimums that did not load are reported and loaded again, never ignored.
    await page.route("**/people/ines/due", (route) => route.abort());
    await atNoon(page, /Inês/);
    await page.goto(`${cravix.url}/aircraft/QX-TAR/loading`);
    await page.getByLabel("front seats, kg").fill("160");
    await page.getByLabel("rear seats, kg").fill("60");
    await page.getByLabel("left tank, L").fill("60");
    await page.getByLabel("right tank, L").fill("60");
    await plan(page, "QX-TAR");
    const open = page.getByTestId("open-subjects");
    await expect(open).toContainText("not on this device yet");
    await expect(page.getByTestId("departure-brief")).toHaveText("Not assessed: Personal minimums");
    await page.unroute("**/people/ines/due");
    await page.evaluate(() => window.dispatchEvent(new Event("online")));
    await expect(open).not.toContainText("Personal minimums");
    await page.getByTestId("from-station").click();
    await expect(page.getByTestId("report")).toContainText("simulated station");
    await expect(page.getByTestId("forecast")).toContainText("Forecast for QXMP, ");
    await context.setOffline(true);
    await page.getByTestId("from-station").click();
    await expect(page.getByRole("alert")).toHaveText("No network: type or paste the report.");

    // Incomplete, empty, another field's, yesterday's: each is reported, and the text stays.
    await report(page, "METAR QXMP");
    await expect(page.getByRole("alert")).toContainText("Station or time missing");
    await expect(page.getByLabel("METAR or TAF, typed or pasted")).toHaveValue("METAR QXMP");
    await report(page, `METAR QXKM ${before(20)} 24008KT 9999 SKC 15/05 Q1013`);
    await expect(open).toContainText("The report is from QXKM, not from this field (QXMP)");
    await report(page, `METAR QXMP ${before(1500)} 24008KT 9999 SKC 15/05 Q1013`);
    await expect(open).toContainText("from an earlier day");
    await report(page, `METAR QXMP ${before(20)} 24004MPS 9999 BLAH SKC 15/05 A2992`);
    await expect(page.getByTestId("report")).toContainText("240° 8 kt (true)");
    await expect(page.getByTestId("report")).toContainText("1,013 hPa (29.92 inHg)");
    await expect(page.getByTestId("report")).toContainText("Not understood, read it yourself: BLAH");

    await report(page, `METAR QXMP ${before(20)} 25006KT 9999 SKC 37/14 Q1006`);
    await page.getByTestId("runway-24").click();
    await button(page, "soft").click();
    await expect(page.getByTestId("proposed")).toContainText("Hot: 37 °C at the field");
    const distances = page.getByTestId("distances");
    await expect(distances).toContainText("too short");
    await expect(page.getByTestId("departure-brief")).toContainText("Stop");
    await expect(page.getByTestId("remedies")).toContainText("Use runway 29.");
    await expectAccessible(page, "plan");
    await page.getByTestId("runway-29").click();
    await expect(page.getByTestId("remedies")).toHaveCount(0);
    await expect(distances).toContainText("Abort point: 39 kt by the second windsock, 430 m, or stop.");
    // His own factor is larger than the published one.
    await expect(distances).toContainText("times safety factor 1.40");
    await expect(page.getByTestId("worst-case")).toContainText("in 95 of 100");

    await button(page, "Kelder Moor").last().click();
    await expect(page.getByTestId("landing-there")).toContainText("Landing at Kelder Moor, 1,460 ft");
    const there = page.getByTestId("landing-there");
    await expect(there).toContainText("205 m too short");
    await expect(there).toContainText("No wind, wet runway");
    // A report of the destination gives its wind; one of another field is not used.
    const toldThere = async (text: string) => {
      await page.getByLabel("METAR or TAF for Kelder Moor").fill(text);
      await there.getByTestId("read-report").click();
    };
    await toldThere(`METAR QXMP ${before(10)} 02018KT 9999 SKC 20/10 Q1012`);
    await expect(there).toContainText(
      "The report is from QXMP, not from this field (QXKM). It is not used in the calculation.",
    );
    await expect(there).toContainText("No wind, wet runway");
    await toldThere(`METAR QXKM ${before(10)} 02018KT 9999 SKC 20/10 Q1012`);
    await expect(there).toContainText("Wind from that field's report");
    await expect(there).toContainText("kt headwind");
    await expect(there).toContainText("kt tailwind");
    await expect(there).not.toContainText("205 m too short");
    // A forecast of the destination for the landing time takes precedence over its report.
    const hours = (from: number, to: number) =>
      [from, to].map((hour) => before(-hour * 60).slice(0, 4)).join("/");
    await toldThere(`TAF QXMP ${before(30)} ${hours(-1, 8)} 02030KT 9999 SKC`);
    await expect(there).toContainText(
      "The forecast is for QXMP, not for this field (QXKM). It is not used in the calculation",
    );
    await toldThere(`TAF QXKM ${before(1500)} ${hours(-24, -16)} 02030KT 9999 SKC`);
    await expect(there).toContainText("ends before the landing at");
    await toldThere(
      `TAF QXKM ${before(30)} ${hours(-1, 8)} 02010KT 9999 SKC TEMPO ${hours(0, 3)} 02028G38KT`,
    );
    await expect(there).toContainText("Strongest wind forecast there around");
    await expect(there.getByTestId("forecast")).toContainText("At times");
    // A forecast of thirty-eight knots exceeds his minimums before it happens.
    await report(page, `TAF QXMP ${before(30)} ${hours(-1, 8)} 24038KT 9999 SKC`);
    await expect(page.getByTestId("limits")).toContainText("38 kt: your personal limit is");
    await report(page, `TAF QXMP ${before(30)} ${hours(-1, 8)} 24008KT 9999 SKC`);
    await expect(page.getByTestId("limits")).not.toContainText("38 kt");

    await page.getByLabel("Transponder").fill("7600");
    await expect(page.getByText("7600 means radio failure. Set it only in a real emergency.")).toBeVisible();
    await page.getByLabel("Transponder").fill("7000");
    await page.getByLabel("Frequency, MHz").fill("122.702");
    await expect(page.getByText("Not a valid channel. Check the frequency.")).toBeVisible();
    await page.getByLabel("Frequency, MHz").fill("122.705");

    // One-page summary, offline.
    await page.getByRole("link", { name: "Flight summary to print" }).click();
    const carry = page.getByTestId("carry");
    await expect(carry).toContainText("39 kt by the second windsock");
    await expect(carry).toContainText("Transponder 7000, 122.705 MHz");
    await expect(carry).toContainText("Briefing");
    await expectAccessible(page, "flight summary");
    const pdf = (await page.pdf()).toString("latin1");
    expect(pdf.match(/\/Type \/Page\b(?!s)/g)).toHaveLength(1);
  });
});

test("a tailwind runway is rejected for a student by the authorisation; the plan is assessed again with the observed wind", async ({
  page,
}) => {
  await atNoon(page, /Tomasz/);
  const walker = new Walker(page);
  // Stored on the device: his limits go into the preflight.
  await walker.prepare("QX-TAR");
  await expect(page.getByTestId("pilot-due")).toBeVisible();
  await page.goto(`${cravix.url}/aircraft/QX-TAR/loading`);
  await page.getByLabel("front seats, kg").fill("75");
  await plan(page, "QX-TAR");
  const hours = (from: number, to: number) =>
    [from, to].map((hour) => before(-hour * 60).slice(0, 4)).join("/");
  await report(
    page,
    `METAR QXMP ${before(20)} 25008KT 9999 SKC 15/05 Q1013 TAF QXMP ${before(60)} ${hours(-1, 9)} 25008KT 9999 SKC TEMPO ${hours(-1, 9)} 25035KT 3000 TSRA`,
  );
  await expect(page.getByTestId("limits")).toContainText("Thunderstorm forecast at times");
  await expect(page.getByTestId("runways")).toContainText("Runway 24");
  await page.getByTestId("runway-06").click();
  await expect(page.getByTestId("limits")).toContainText("the authorisation's limit is 0 kt");
  await expect(page.getByTestId("departure-brief")).toContainText("Stop: Tailwind");
  await page.getByTestId("runway-24").click();
  await expect(page.getByTestId("departure-brief")).not.toContainText("Tailwind");
  await page.getByRole("link", { name: "Go to the preflight" }).click();
  const id = await walker.go();
  // The forecast went with the plan into the preflight.
  expect((await eventsOnDevice(page, id))[0]?.event.data).toMatchObject({
    weather: { forecast: { station: "QXMP" } },
  });
  await walker.jumpTo("take-off.briefing");
  const briefing = page.getByTestId("briefing");
  await expect(briefing).toContainText("Runway 2 4, 780 metres, grass.");
  await expect(briefing).not.toContainText("Engine failure below");
  await page.getByTestId("briefing-given").click();
  await expect(page.getByTestId("briefing-given")).toHaveText("Briefing given, saved");
  await expectAccessible(page, "briefing");
  // Everything is on the server's record, nothing rejected.
  await expect
    .poll(async () => (await cravix.eventsOnRecord(id)).map(({ type }) => type))
    .toContain("briefing.given");
  expect((await eventsOnDevice(page, id)).filter(({ sync }) => sync === "refused")).toEqual([]);
});

test("after sunset it is a night flight, shown before the preflight; on a longer evening it is a day flight", async ({
  page,
}) => {
  const evening = new Date(NOON);
  // Sunset there is at twenty past nine in summer, much earlier in winter.
  evening.setUTCHours(21, 30);
  if (evening.getTime() > Date.now()) evening.setTime(evening.getTime() - 86_400_000);
  await page.clock.setSystemTime(evening);
  await page.goto(cravix.url);
  await button(page, /Inês/).click();
  const walker = new Walker(page);
  await walker.prepare("QX-TAR");
  await expect(page.getByTestId("night-flight")).toContainText("at night (sunset). Choose “night” above");
  await button(page, /^night/i).click();
  await expect(page.getByTestId("night-flight")).toHaveCount(0);
});

test("passengers read the briefing themselves, each line once, and it is recorded", async ({ page }) => {
  await atNoon(page, /Inês/);
  const walker = new Walker(page);
  await walker.prepare("QX-TAR");
  await button(page, /^passengers/i).click();
  const id = await walker.go();
  await walker.jumpTo("board.brief");
  await page.getByTestId("passengers").click();
  await expect(page.getByTestId("passenger-line")).toContainText("fasten and release");
  await expectAccessible(page, "passengers");
  for (let line = 0; line < 9; line++) await page.getByTestId("primary").click();
  await expect(page.getByTestId("passengers")).toHaveText("Passengers briefed: show again");
  await expect
    .poll(async () => (await cravix.eventsOnRecord(id)).map(({ type }) => type))
    .toContain("briefing.given");
});

test("a glider on the winch, and a twin on one engine", async ({ page }) => {
  await atNoon(page, /Maren/);
  await plan(page, "QX-DOV");
  await page.goto(`${cravix.url}/aircraft/QX-DOV/loading`);
  await page.getByLabel("front seats, kg").fill("170");
  await page.getByLabel("rear seats, kg").fill("150");
  await plan(page, "QX-DOV");
  await report(page, `METAR QXMP ${before(20)} 28012KT 9999 SKC 36/18 Q1002`);
  await expect(page.getByTestId("distances")).toContainText("Accelerate-stop distance");
  await expect(page.getByTestId("distances")).toContainText("Climb on one engine");
  await page.goto(`${cravix.url}/aircraft/QX-ANS/plan`);
  await report(page, `METAR QXMP ${before(20)} 20022G31KT 9999 SKC 16/08 Q1002`);
  await expect(page.getByTestId("limits")).toContainText("Crosswind");
  await expect(page.getByTestId("distances")).toHaveCount(0);
});
