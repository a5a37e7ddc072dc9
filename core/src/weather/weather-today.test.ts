import { Body, Observer, SearchAltitude, SearchRiseSet } from "astronomy-engine";
import fc from "fast-check";
import psychrolib from "psychrolib";
import { densityAltitudeFt } from "../run-up/density-altitude";
import { carburettorIcing, fieldAir, moistDensityAltitudeFt, pressureAltitudeFt } from "./air-today";
import { judgeReport, proposedConditions, reportLines, weatherHints } from "./judge-report";
import { lightOf, sunTimes } from "./light";
import { readReport } from "./read-report";

psychrolib.SetUnitSystem(psychrolib.SI);

/** ICAO Doc 7488 / U.S. Standard Atmosphere 1976 (from memory). */
test.each([
  [0, 1013.25],
  [1000, 898.75],
  [2000, 794.95],
  [3000, 701.09],
  [5000, 540.2],
])("%d m are %d hPa", (metres, hPa) => {
  expect(Math.abs(pressureAltitudeFt(hPa) - metres / 0.3048)).toBeLessThan(8);
  // Library: psychrolib.
  expect(pressureAltitudeFt(psychrolib.GetStandardAtmPressure(metres) / 100)).toBeCloseTo(
    metres / 0.3048,
    -1.3,
  );
});

test("damp air is as much lighter as psychrolib says", () => {
  for (const [celsius, dew] of [
    [35, 28],
    [25, 20],
    [10, 4],
  ] as const) {
    const humidity = psychrolib.GetHumRatioFromTDewPoint(dew, 100_000);
    const dense = psychrolib.GetMoistAirDensity(celsius, humidity, 100_000) * (1 + 0);
    const dry = psychrolib.GetMoistAirDensity(celsius, 0, 100_000);
    // Altitude in the standard atmosphere with the same density ratio: 4.2559 is its exponent.
    const feet = (density: number) => 145_442.16 * (1 - (density / 1.225) ** 0.235);
    const more = moistDensityAltitudeFt(1000, celsius, dew) - moistDensityAltitudeFt(1000, celsius);
    expect(more).toBeGreaterThan(0);
    expect(Math.abs(more - (feet(dense) - feet(dry)))).toBeLessThan(12);
  }
  expect(moistDensityAltitudeFt(1000, 20)).toBeCloseTo(densityAltitudeFt(1000, 20), 6);
});

test("a field's air: 1,013.25 on a standard day is its elevation; what cannot be is rejected", () => {
  const air = fieldAir(1013.25, 2000, 15 - 1.98 * 2);
  expect(air.pressureAltitudeFt).toBeCloseTo(2000, -1);
  expect(Math.abs(air.densityAltitudeFt - 2000)).toBeLessThan(20);
  expect(() => moistDensityAltitudeFt(1000, 10, 12)).toThrow("cannot be above");
  expect(() => moistDensityAltitudeFt(1000, 70)).toThrow("−60 to 60");
  expect(() => pressureAltitudeFt(200)).toThrow("300 to");
});

/** FAA SAIB CE-09-35 and the UK CAA leaflet, read from the charts (from memory). */
test.each([
  [8, 7, "at any power"],
  [18, 12, "in cruise"],
  [28, 19, "at low power"],
  [36, 18, "light"],
  [38, 2, "unlikely"],
  [-20, -22, "unlikely"],
])("carburettor at %d °C, dew point %d: %s", (celsius, dew, risk) => {
  expect(carburettorIcing(celsius, dew)).toBe(risk);
});

test("sun and civil twilight as astronomy-engine has them, within a minute", () => {
  // Two general libraries compared with each other.
  for (const [lat, lon] of [
    [53.4, 2.1],
    [-34, 151],
    [40, -100],
    [5, 20],
  ] as const)
    for (const day of ["2026-03-20", "2026-06-21", "2026-11-27"]) {
      const noon = new Date(Date.parse(`${day}T12:00:00Z`) - lon * 240_000);
      const sun = sunTimes(noon.toISOString(), lat, lon);
      const place = new Observer(lat, lon, 0);
      const from = new Date(noon.getTime() - 43_200_000);
      const minutes = (a: string | undefined, b: Date | undefined) =>
        Math.abs(Date.parse(a ?? "") - (b?.getTime() ?? Number.NaN)) / 60_000;
      expect(minutes(sun.sunset, SearchRiseSet(Body.Sun, place, -1, noon, 1)?.date)).toBeLessThan(1);
      expect(minutes(sun.sunrise, SearchRiseSet(Body.Sun, place, 1, from, 1)?.date)).toBeLessThan(1);
      expect(minutes(sun.dusk, SearchAltitude(Body.Sun, place, -1, noon, 1, -6)?.date)).toBeLessThan(1);
    }
});

/** Over the globe and the year, at every hour of the local day: the sun's times are those of the day there, not of the date in UTC. */
test("the sun's times belong to the local day, within a minute of astronomy-engine", () => {
  for (const lat of [-50, -34, 0, 40, 60])
    for (const lon of [-179, -105, -30, 2, 100, 151, 179])
      for (const day of ["2026-01-05", "2026-03-20", "2026-07-14", "2026-09-23"]) {
        const place = new Observer(lat, lon, 0);
        const midnight = Date.parse(`${day}T00:00:00Z`) - lon * 240_000;
        const rise = SearchRiseSet(Body.Sun, place, 1, new Date(midnight), 1)?.date;
        const set = SearchRiseSet(Body.Sun, place, -1, new Date(midnight + 43_200_000), 1)?.date;
        for (const hour of [0.1, 8, 12, 18.5, 23.9]) {
          const sun = sunTimes(new Date(midnight + hour * 3_600_000).toISOString(), lat, lon);
          const apart = (a: string | undefined, b: Date | undefined) =>
            Math.abs(Date.parse(a ?? "") - (b?.getTime() ?? Number.NaN)) / 60_000;
          expect(apart(sun.sunrise, rise)).toBeLessThan(1);
          expect(apart(sun.sunset, set)).toBeLessThan(1);
        }
      }
});

/** Civil sunset by astronomy-engine: Denver 20:27 local in mid-July, Sydney 16:54 in June. */
test.each([
  ["Denver at half past six in July", "2026-07-15T00:30:00Z", 39.7, -105],
  ["Sydney at eight in the morning in June", "2026-06-14T22:00:00Z", -33.9, 151.2],
])("%s it is day", (_name, from, lat, lon) => {
  const to = new Date(Date.parse(from) + 3_600_000).toISOString();
  expect(lightOf({ from, to }, { lat, lon }, "sunset").night).toBe(false);
});

test("a landing twenty minutes after sunset is at night where the rule says sunset, and not where it says twilight", () => {
  const place = { lat: 53.4, lon: 2.1 };
  const { sunset } = sunTimes("2026-06-15T12:00:00Z", place.lat, place.lon);
  const to = new Date(Date.parse(sunset as string) + 20 * 60_000).toISOString();
  const flight = { from: "2026-06-15T19:00:00Z", to };
  expect(lightOf(flight, place, "sunset")).toMatchObject({ night: true, leftMin: expect.closeTo(-20, 3) });
  expect(lightOf(flight, place, "30 min after sunset")).toMatchObject({
    night: false,
    leftMin: expect.closeTo(10, 3),
  });
  expect(lightOf(flight, place, "civil twilight").night).toBe(false);
  // Beyond the polar circle the sun stays above or below the horizon.
  expect(
    lightOf({ from: "2026-06-21T12:00:00Z", to: "2026-06-21T23:00:00Z" }, { lat: 75, lon: 20 }, "sunset")
      .night,
  ).toBe(false);
  expect(
    lightOf({ from: "2026-12-21T11:00:00Z", to: "2026-12-21T12:00:00Z" }, { lat: 75, lon: 20 }, "sunset")
      .night,
  ).toBe(true);
  expect(() => sunTimes("2026-06-21T12:00:00Z", 91, 0)).toThrow("Latitude");
});

const NOW = "2026-06-15T14:20:00Z";
const report = (text: string) => readReport(text, NOW);
const GOOD = "METAR QXMP 151350Z 25012KT 9999 FEW030 18/09 Q1016";

test.each([
  [GOOD, NOW, "within limits", "30 min old"],
  [GOOD, "2026-06-15T15:00:00Z", "note", "a newer report should be available"],
  [GOOD, "2026-06-15T18:00:00Z", "unjudged", "too old to use"],
  [GOOD, "2026-06-16T13:55:00Z", "unjudged", "from an earlier day"],
  [GOOD, "2026-06-15T13:00:00Z", "unjudged", "dated in the future"],
  [GOOD.replace("QXMP", "QXAB"), NOW, "unjudged", "not from this field"],
  [`${GOOD} BLAH1`, NOW, "unjudged", "Not understood: BLAH1"],
])("%s at %s: %s", (text, now, grade, words) => {
  const judged = judgeReport(report(text), now, "QXMP");
  expect([judged.grade, judged.sentence]).toEqual([grade, expect.stringContaining(words)]);
});

test("conditions are proposed with their reason, hints say what forms", () => {
  const of = (text: string, more = {}) =>
    proposedConditions(report(text), more).map(({ condition }) => condition);
  expect(of(GOOD)).toEqual([]);
  expect(of("METAR QXMP 151350Z 25012KT 9999 -RA FEW030 33/29 Q1016", { night: true })).toEqual([
    "night",
    "hot",
    "rain",
  ]);
  expect(of("METAR QXMP 151350Z 25002KT 9999 SKC 02/01 Q1016")).toEqual(["frost"]);
  expect(of("METAR QXMP 151350Z 25002KT 9999 VCSH 12/01 Q1016", { coldestC: 0 })).toEqual([]);
  expect(weatherHints(report("METAR QXMP 151350Z 25002KT 9999 SKC 09/08 Q1016"))[0]).toContain(
    "fog may form",
  );
  expect(weatherHints(report("METAR QXMP 151350Z 25022KT 9999 VCTS BKN020CB 09/01 Q1016"))[0]).toContain(
    "Thunderstorm",
  );
});

test("what was not reported is shown to be missing", () => {
  const lines = Object.fromEntries(
    reportLines(report("METAR QXMP 151350Z AUTO 25012KT //// ///")).map(({ what, words }) => [what, words]),
  );
  expect(lines).toMatchObject({
    Visibility: "not reported",
    Cloud: "not observed",
    Temperature: "not reported",
    "Altimeter setting": "not reported",
  });
  expect(reportLines(report(GOOD)).find(({ what }) => what === "Altimeter setting")?.words).toBe(
    "1,016 hPa (30.00 inHg)",
  );
});

test("the same report read twice is the same, and whatever a wind does, a colder or drier day never raises the density altitude", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: -20, max: 40 }),
      fc.integer({ min: 0, max: 20 }),
      fc.integer({ min: 950, max: 1050 }),
      (t, spread, hPa) => {
        const here = moistDensityAltitudeFt(hPa, t, t - spread);
        expect(moistDensityAltitudeFt(hPa, t - 1, t - 1 - spread)).toBeLessThan(here);
        expect(moistDensityAltitudeFt(hPa, t, t - spread - 1)).toBeLessThan(here);
      },
    ),
  );
});
