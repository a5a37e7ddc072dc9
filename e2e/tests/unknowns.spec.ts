import { HEALTHY } from "../../demo/src/healthy-readings";
import { expectAccessible } from "../support/accessibility";
import { Cravix } from "../support/cravix";
import { written } from "../support/device";
import { expect, lastNoon, type Page, test } from "../support/test";
import { Walker } from "../support/walker";

/** What is missing, unreadable or contradictory is shown and judged, never an absent line. */

let cravix: Cravix;
test.beforeAll(async () => {
  cravix = await Cravix.launch();
});
test.afterAll(() => cravix.remove());

const button = (page: Page, name: string | RegExp) => page.getByRole("button", { name });
const two = (n: number) => String(n).padStart(2, "0");
function ago(minutes: number): string {
  const at = new Date(lastNoon().getTime() - minutes * 60_000);
  return `${two(at.getUTCDate())}${two(at.getUTCHours())}${two(at.getUTCMinutes())}Z`;
}
async function begin(page: Page, who: RegExp, registration: string, readings = { ...HEALTHY }) {
  await page.goto(cravix.url);
  const walker = new Walker(page, "thumb", readings);
  const id = await walker.begin(who, { registration });
  return { walker, id };
}
async function report(page: Page, text: string): Promise<void> {
  await page.getByLabel("METAR or TAF, typed or pasted").fill(text);
  await page.getByTestId("read-report").first().click();
}

test("a walk without weather and load asks, until the pilot goes without them, on record", async ({
  page,
}) => {
  const { walker, id } = await begin(page, /Inês/, "QX-TAR");
  await walker.jumpToVerdict();
  await expect(page.getByTestId("verdict")).toContainText("Ask first");
  const open = page.getByTestId("not-assessed");
  for (const subject of ["Mass and balance", "Ceiling", "Visibility", "Take-off and landing distance"])
    await expect(open).toContainText(subject);
  await expect(open).toContainText("Not checked: no weather report.");
  await expectAccessible(page, "verdict with what was not assessed");
  await page.getByLabel("Or in your own words").fill("Clear sky, seen from the tower.");
  await page.getByTestId("waive").click();
  await expect(open).toHaveCount(0);
  await expect(page.getByTestId("verdict")).toContainText("Go, with notes");
  await expect(page.getByText("Going without: “Clear sky, seen from the tower.”").first()).toBeVisible();
  await expect
    .poll(async () => (await cravix.eventsOnRecord(id)).map(({ type }) => type))
    .toContain("assessment.waived");
});

test("a student cannot go without: the instructor is asked", async ({ page }) => {
  const { walker } = await begin(page, /Tomasz/, "QX-TAR");
  await walker.jumpToVerdict();
  await expect(page.getByTestId("verdict")).toContainText("Ask first");
  await expect(page.getByTestId("not-waivable")).toContainText("ask your instructor");
  await expect(page.getByTestId("go-without")).toHaveCount(0);
});

test("a glider with two heavy people is overweight by the masses read at the seats", async ({ page }) => {
  const { walker } = await begin(page, /Maren/, "QX-ANS", {
    ...HEALTHY,
    "mass.front": "110",
    "mass.rear": "110",
  });
  await walker.jumpToVerdict();
  await expect(page.getByTestId("verdict")).toContainText("Stop");
  await expect(page.getByText(/26 kg over 590 kg at take-off/).first()).toBeVisible();
});

test("the plan, one tap from the first page: another station, unreadable cloud, a thunderstorm now, no altimeter setting", async ({
  page,
}) => {
  await page.goto(cravix.url);
  await button(page, /Inês/).click();
  await button(page, /^Prepare/).waitFor();
  await page.getByRole("link", { name: "Plan", exact: true }).click();
  await expect(page.getByRole("heading", { level: 1 })).toHaveText("Plan");
  await button(page, "QX-TAR").first().click();
  const open = page.getByTestId("open-subjects");
  await expect(open).toContainText("Not checked: no weather report.");
  await expectAccessible(page, "plan of the house");

  await report(page, `METAR QXKM ${ago(20)} 24008KT 9999 SKC 15/05 Q1013`);
  await expect(open).toContainText("The report is from QXKM, not from this field (QXMP). It is not used.");

  await report(page, `METAR QXMP ${ago(20)} 24008KT 9999 FEW030 BKN0O3 15/05 Q1013`);
  await expect(open).toContainText("cloud was not observed, or could not be read");
  await expect(page.getByTestId("report-groups").first()).toContainText("not understood");

  await report(page, `METAR QXMP ${ago(20)} 24008KT 9999 +TSRA BKN030CB 15/12 Q1013`);
  await expect(page.getByTestId("limits")).toContainText("Reported now: heavy thunderstorm with rain.");
  await expect(page.getByTestId("departure-brief")).toContainText("Stop: Thunderstorm");

  // Several reports at once: the field's own is taken, the others are listed.
  await report(
    page,
    `METAR QXKM ${ago(25)} 20010KT CAVOK 14/04 Q1012= METAR QXMP ${ago(25)} 24008KT CAVOK 15/05`,
  );
  await expect(page.getByTestId("report")).toContainText("240° 8 kt (true)");
  await expect(page.getByTestId("other-reports")).toContainText("QXKM");
  await expect(open).not.toContainText("Ceiling");

  await page.goto(`${cravix.url}/aircraft/QX-TAR/loading`);
  await page.getByLabel("front seats, kg").fill("150");
  for (const tank of ["left tank", "right tank"]) await page.getByLabel(`${tank}, L`).fill("60");
  await written(page);
  await page.goto(`${cravix.url}/plan?aircraft=QX-TAR`);
  await expect(page.getByTestId("distances")).toContainText("Take-off needs");
  await expect(page.getByTestId("distances")).toContainText("assumed standard pressure (1,013 hPa)");
});
