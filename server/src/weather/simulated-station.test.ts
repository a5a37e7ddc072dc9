import { forecastAt } from "@cravix/core/weather/forecast-at";
import { readForecast, readReport } from "@cravix/core/weather/read-weather";
import { airAt, forecastOf, reportOf } from "./simulated-station";

const PLACE = { station: "QXMP", elevationFt: 23, lat: 53.4, lon: 2.1 };
const HALF_HOUR = 1_800_000;
const FROM = Date.UTC(2026, 8, 1);
const times = Array.from({ length: 48 * 14 }, (_, i) => new Date(FROM + i * HALF_HOUR));

test("every report of two weeks is read whole, and is at most half an hour old", () => {
  for (const now of times) {
    const { at, text } = reportOf(PLACE, now);
    const report = readReport(text, now.toISOString());
    expect(report.unread).toEqual([]);
    expect(report.at).toBe(at);
    expect(now.getTime() - Date.parse(at)).toBeLessThan(HALF_HOUR);
    expect(report).toMatchObject({
      station: "QXMP",
      settingHpa: expect.any(Number),
      celsius: expect.any(Number),
    });
  }
});

test("it lives: the wind turns and gusts, pressure falls, rain and fog come and go", () => {
  const airs = times.map((at) => airAt(PLACE, at));
  const some = (what: (air: (typeof airs)[number]) => boolean) => airs.filter(what).length / airs.length;
  expect(new Set(airs.map(({ fromDeg }) => Math.floor(fromDeg / 45))).size).toBeGreaterThan(3);
  expect(some(({ gustKt }) => gustKt !== undefined)).toBeGreaterThan(0.1);
  expect(some(({ weather }) => weather.endsWith("RA"))).toBeGreaterThan(0.05);
  expect(some(({ weather }) => weather === "FG")).toBeGreaterThan(0.01);
  expect(some(({ visibilityM }) => visibilityM >= 10_000)).toBeGreaterThan(0.6);
  const hPa = airs.map((air) => air.hPa);
  expect(Math.max(...hPa) - Math.min(...hPa)).toBeGreaterThan(15);
  expect(airs.every(({ celsius, dewPointC }) => dewPointC <= celsius)).toBe(true);
  expect(airs.every(({ kt, gustKt = kt }) => gustKt >= kt && kt >= 0 && kt < 40)).toBe(true);
  // Deterministic, and different for another station.
  expect(airAt(PLACE, times[7] as Date)).toEqual(airAt(PLACE, times[7] as Date));
  expect(airAt({ ...PLACE, station: "QXSM" }, times[7] as Date)).not.toEqual(airAt(PLACE, times[7] as Date));
});

test("its forecast is read whole, reaches over the next hours, and is not far from what comes", () => {
  let near = 0;
  for (const now of times.filter((_, i) => i % 12 === 0)) {
    const taf = readForecast(forecastOf(PLACE, now).text, now.toISOString());
    expect(taf.unread).toEqual([]);
    expect(taf.temperatures).toHaveLength(2);
    const to = new Date(now.getTime() + 3 * 3_600_000).toISOString();
    const { holds, partly } = forecastAt(taf, now.toISOString(), to);
    expect(partly).toBe(false);
    if (Math.abs((holds.wind?.kt ?? 0) - airAt(PLACE, new Date(to)).kt) <= 10) near++;
  }
  expect(near / 56).toBeGreaterThan(0.85);
});
