import type { MinimaSet } from "../minima/minima";
import { readForecast } from "../weather/read-weather";
import { forecastLines, judgeForecast } from "./judge-forecast";

const NOW = "2026-06-15T11:30:00.000Z";
/** Groups follow WMO-No. 306, FM 51 (from memory); the field is made up. */
const TAF =
  "TAF QXMP 151100Z 1512/1606 24010KT 9999 SCT030 BECMG 1515/1517 29018G28KT TEMPO 1516/1519 3000 TSRA BKN012 PROB30 1602/1606 0800 FG BKN002";
const source = { kind: "common practice" as const, text: "set when calm", example: false };
const own: MinimaSet = {
  of: "pilot",
  minima: { windKt: 20, crosswindKt: 10, ceilingFt: 1500, visibilityM: 5000 },
  source,
};
const student: MinimaSet = { of: "authorisation", minima: { windKt: 15 }, source };
const at = (from: string, to: string) => ({
  forecast: readForecast(TAF, NOW),
  from: `2026-06-${from}:00.000Z`,
  to: `2026-06-${to}:00.000Z`,
  station: "QXMP",
  sets: [own],
});
const graded = (day: Parameters<typeof judgeForecast>[0]) =>
  Object.fromEntries(judgeForecast(day).map(({ id, grade }) => [id, grade]));

describe("a forecast over a flight", () => {
  it("before the wind comes nothing is passed, and that is shown", () => {
    const [one, ...more] = judgeForecast(at("15T12:30", "15T13:30"));
    expect(more).toEqual([]);
    expect(one).toMatchObject({ id: "forecast", grade: "within limits" });
    expect(one?.sentence).toBe("From 12:30 to 13:30 UTC the forecast is within all limits.");
  });

  it("what lasts is asked about, what comes at times is watched, and nothing is a stop", () => {
    // Gusts of 28 kt last; the thunderstorm with low cloud is temporary.
    expect(graded(at("15T17:10", "15T18:00"))).toEqual({
      "forecast.windKt": "ask",
      "forecast.ceilingFt": "watch",
      "forecast.visibilityM": "watch",
      "forecast.thunderstorm": "watch",
    });
    // A limit that would stop the flight in actual wind is not yet a stop in a forecast.
    expect(graded({ ...at("15T17:10", "15T18:00"), sets: [student] })["forecast.windKt"]).toBe("ask");
  });

  it("a flight that ends while it is turning has the new wind before it", () => {
    expect(graded(at("15T14:30", "15T15:30"))["forecast.windKt"]).toBe("ask");
  });

  it("crosswind is of the runway, and of every wind of the while; without the variation nothing is shown of it", () => {
    // By hand: 24010KT is along runway 24, 290 at 28 is 28·sin 50° = 21.4 across.
    const late = { ...at("15T17:10", "15T18:00"), headingDeg: 240, variationDeg: 0 };
    const across = judgeForecast(late).find(({ id }) => id === "forecast.crosswindKt");
    expect(across?.reading?.value).toBeCloseTo(28 * Math.sin((50 * Math.PI) / 180), 1);
    expect(graded({ ...at("15T12:30", "15T13:30"), headingDeg: 240, variationDeg: 0 })).toEqual({
      forecast: "within limits",
    });
    expect(graded(at("15T17:10", "15T18:00"))["forecast.crosswindKt"]).toBeUndefined();
  });

  it("fog perhaps is watched", () => {
    expect(graded(at("16T03:00", "16T04:00"))).toMatchObject({
      "forecast.fog": "watch",
      "forecast.visibilityM": "watch",
    });
  });

  it("what it does not forecast and has a limit is not checked, and what could not be read from its hour on", () => {
    const told = (text: string) => ({
      ...at("15T12:30", "15T15:30"),
      forecast: readForecast(`TAF QXMP 151100Z 1512/1606 ${text}`, NOW),
    });
    const open = (text: string) =>
      judgeForecast(told(text))
        .filter(({ grade }) => grade === "unjudged")
        .map(({ cause, sentence }) => [cause, sentence]);
    expect(open("24010KT CAVOK")).toEqual([]);
    expect(open("24010KT SCT030")).toEqual([
      ["unknown.forecast", "Limits not checked: the forecast has no visibility."],
    ]);
    expect(open("9999")).toEqual([
      ["unknown.forecast", "Limits not checked: the forecast has no wind and no cloud."],
    ]);
    expect(open("24010KT CAVOK TEMPO 1514/1518 BKN0O3")).toEqual([
      ["unknown.forecast", "Cannot be checked from 14:00 UTC: BKN0O3 not understood."],
    ]);
    // After the flight it does not matter.
    expect(open("24010KT CAVOK TEMPO 1518/1520 BKN0O3")).toEqual([]);
    expect(judgeForecast({ ...told("24010KT SCT030"), sets: [student] })).toMatchObject([
      { grade: "within limits" },
    ]);
  });

  it("one of another field, of another time, or that ends too early says so", () => {
    expect(judgeForecast({ ...at("15T12:30", "15T13:30"), station: "QXAA" })).toMatchObject([
      { grade: "ask", sentence: "The forecast is for QXMP, not for this field (QXAA)." },
    ]);
    expect(judgeForecast(at("17T12:30", "17T13:30"))).toMatchObject([
      {
        grade: "note",
        sentence:
          "The forecast is valid 15 June 2026 12:00 to 16 June 2026 06:00 UTC and does not cover this flight.",
      },
    ]);
    expect(graded(at("16T05:30", "16T07:00"))["forecast.ends"]).toBe("note");
  });

  it("is reported in plain words, with what comes and when", () => {
    const { forecast, from, to } = at("15T14:30", "15T17:30");
    expect(forecastLines(forecast, from, to)).toEqual([
      { what: "At 14:30", words: "240° 10 kt; 10 km or more; scattered at 3,000 ft" },
      { what: "Becoming, 15:00 to 17:00", words: "290° 18 kt, gusts 28" },
      { what: "At times, 16:00 to 19:00", words: "3,000 m; thunderstorm with rain; broken at 1,200 ft" },
    ]);
    // A change in progress is reported as a change.
    const turning = at("15T15:30", "15T16:30");
    expect(forecastLines(turning.forecast, turning.from, turning.to).slice(0, 2)).toEqual([
      { what: "At 15:30", words: "240° 10 kt; 10 km or more; scattered at 3,000 ft" },
      { what: "Becoming, 15:00 to 17:00", words: "290° 18 kt, gusts 28" },
    ]);
  });
});
