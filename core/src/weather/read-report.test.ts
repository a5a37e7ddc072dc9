import fc from "fast-check";
import { cloudBaseFt } from "./air-today";
import { forecastAt, temperatureAt } from "./forecast-at";
import { readForecast, readReport } from "./read-weather";
import { weatherText } from "./report";

const NOW = "2026-06-15T14:20:00Z";
const read = (text: string) => readReport(text, NOW);

/**
 * Groups follow WMO-No. 306 (FM 15), from memory; expected values are worked out by hand from the code, not taken from the
 * library. Stations are made up.
 */
test.each([
  [
    "METAR QXMP 151350Z 25012KT 9999 FEW030 18/09 Q1016",
    { wind: { fromDeg: 250, kt: 12 }, visibilityM: 10_000, celsius: 18, dewPointC: 9, settingHpa: 1016 },
  ],
  [
    "QXMP 151350Z 25012G24KT 210V280 9999 SCT030 18/09 Q1016=",
    { wind: { fromDeg: 250, kt: 12, gustKt: 24, between: [210, 280] } },
  ],
  [
    "SPECI QXMP 151402Z 00000KT 0200 FG VV001 05/05 Q1030",
    {
      wind: { fromDeg: 0, kt: 0 },
      visibilityM: 200,
      weather: ["FG"],
      clouds: [{ cover: "sky hidden", baseFt: 100 }],
    },
  ],
  [
    "METAR QXMP 151350Z AUTO VRB02KT CAVOK 21/M03 Q0998",
    { wind: { kt: 2 }, visibilityM: 10_000, dewPointC: -3, settingHpa: 998, automatic: true },
  ],
  [
    "METAR QXMP 151350Z 09008MPS 5000 BR BKN008 OVC015 M01/M02 Q1002",
    { wind: { fromDeg: 90, kt: 15.6 }, visibilityM: 5000, celsius: -1, dewPointC: -2 },
  ],
  [
    "METAR QXMP 151350Z 36015KT 10SM CLR 30/12 A2992",
    { wind: { fromDeg: 360, kt: 15 }, visibilityM: 10_000, settingHpa: 1013.2 },
  ],
  [
    "METAR QXMP 151350Z 18006KT 1 1/2SM -RA BR OVC009 12/11 A2975",
    { visibilityM: 2414, weather: ["-RA", "BR"], settingHpa: 1007.5 },
  ],
  [
    "METAR QXMP 151350Z 18006KT 1/4SM FZFG VV002 M03/M03 A3012",
    { visibilityM: 402, weather: ["FZFG"], celsius: -3 },
  ],
  ["METAR QXMP 151350Z 18006KT M1/4SM FG VV001 08/08 A3012", { visibilityM: 402 }],
  [
    "METAR QXMP 151350Z 18006KT 6000 4000NE HZ NSC 28/15 Q1011",
    { visibilityM: 6000, weather: ["HZ"], clouds: [] },
  ],
  [
    "METAR QXMP 151350Z 27018G32KT 3000 +TSRA BKN012CB 16/15 Q1001",
    { weather: ["+TSRA"], clouds: [{ cover: "broken", baseFt: 1200, kind: "CB" }] },
  ],
  [
    "METAR QXMP 151350Z 27010KT 9999 FEW018TCU SCT040 19/14 Q1009 NOSIG",
    {
      clouds: [
        { cover: "few", baseFt: 1800, kind: "TCU" },
        { cover: "scattered", baseFt: 4000 },
      ],
    },
  ],
  ["METAR QXMP 151350Z 27010KT 9999 VCSH FEW025 19/14 Q1009", { weather: ["VCSH"] }],
  ["METAR QXMP 151350Z 24011KT 9999 R06/1200N FEW020 14/12 Q1013", { visibilityM: 10_000 }],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1013 RERA", { weather: [] }],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1013 WS ALL RWY", { settingHpa: 1013 }],
  [
    "METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1013 TEMPO 30020G35KT 2000 TSRA",
    { wind: { fromDeg: 240, kt: 11 }, weather: [] },
  ],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1013 BECMG 27015KT", { wind: { fromDeg: 240, kt: 11 } }],
  ["METAR COR QXMP 151350Z 24011KT 9999 SKC 14/12 Q1013", { station: "QXMP", clouds: [] }],
  ["METAR QXMP 151350Z COR 24011KT 9999 NCD 14/12 Q1013", { station: "QXMP", clouds: [] }],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1013 RMK AO2 SLP130 T01440122", { celsius: 14 }],
  ["metar qxmp 151350z 24011kt 9999 few020 14/12 q1013", { station: "QXMP", settingHpa: 1013 }],
  ["METAR QXMP 151350Z\n  24011KT 9999\n FEW020 14/12 Q1013", { station: "QXMP", celsius: 14 }],
  ["METAR QXMP 151350Z 24025KMH 9999 FEW020 14/12 Q1013", { wind: { fromDeg: 240, kt: 13.5 } }],
  ["METAR QXMP 151350Z 24011KT 9999 -SN BLSN OVC006 M05/M07 Q0989", { weather: ["-SN", "BLSN"] }],
  ["METAR QXMP 151350Z 24011KT 9999 FZDZ OVC006 M01/M01 Q0989", { weather: ["FZDZ"] }],
  ["METAR QXMP 151350Z 24011KT 9999 MIFG SKC 09/09 Q1020", { weather: ["MIFG"] }],
  ["METAR QXMP 142350Z 24011KT 9999 FEW020 14/12 Q1013", { at: "2026-06-14T23:50:00.000Z" }],
  ["METAR QXMP 312350Z 24011KT 9999 FEW020 14/12 Q1013", { at: "2026-05-31T23:50:00.000Z" }],
])("%s", (text, expected) => {
  const { unread, ...report } = read(text);
  expect(report).toMatchObject(expected);
  expect(unread).toEqual([]);
});

/** Unknown and impossible groups are named and never become numbers. */
test.each([
  ["METAR QXMP 151350Z 40011KT 9999 FEW020 14/12 Q1013", ["40011KT"], "wind"],
  ["METAR QXMP 151350Z 24025G11KT 9999 FEW020 14/12 Q1013", ["24025G11KT"], "wind"],
  ["METAR QXMP 151350Z 2401KT 9999 FEW020 14/12 Q1013", ["2401KT"], "wind"],
  ["METAR QXMP 151350Z 240105KT 9999 FEW020 14/12 Q1013", ["240105KT"], "wind"],
  ["METAR QXMP 151350Z 24011KT 27012KT 9999 FEW020 14/12 Q1013", ["24011KT", "27012KT"], "wind"],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1013 A2970", ["Q1013", "A2970"], "settingHpa"],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 12/14 Q1013", ["12/14"], "celsius"],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q1913", ["Q1913"], "settingHpa"],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 A1013", ["A1013"], "settingHpa"],
  ["METAR QXMP 151350Z 24011KT 9999 FEW020 14/12 Q10", ["Q10"], "settingHpa"],
  ["METAR QXMP 151350Z 24011KT 9999 FEWO20 14/12 Q1013", ["FEWO20"], undefined],
  ["METAR QXMP 151350Z 24011KT 99 FEW020 14/12 Q1013", ["99"], "visibilityM"],
])("%s: %j is not understood", (text, groups, absent) => {
  const report = read(text);
  expect(report.unread).toEqual(groups);
  if (absent) expect(report).not.toHaveProperty(absent);
  // The rest is still decoded.
  expect(report.station).toBe("QXMP");
});

test.each([
  ["", "Enter a METAR or TAF"],
  ["hello there", "Station or time missing"],
  ["METAR QXMP", "Station or time missing"],
  ["METAR QXMP 151350Z", "Enter the complete report"],
  ["METAR QXMP 151350Z NIL", "NIL"],
  ["METAR QXMP 153150Z 24011KT", "is not possible"],
  ["METAR QXMP 451350Z 24011KT", "is not possible"],
  ["151350Z 24011KT 9999", "Station or time missing"],
  ["x".repeat(3000), "Too long for one report"],
])("%s is rejected: %s", (text, why) => {
  expect(() => read(text)).toThrow(why);
});

test("any text is read or rejected with a sentence, and quickly; nothing else happens", () => {
  const part = fc.constantFrom(
    "METAR",
    "QXMP",
    "151350Z",
    "24011KT",
    "VRB99KT",
    "9999",
    "Q1013",
    "A2992",
    "10/10",
    "M05/M99",
    "BKN",
    "RMK",
    "////",
    "FG",
    "R24",
    "TEMPO",
    "=",
    "1",
    "1/2SM",
  );
  fc.assert(
    fc.property(fc.array(fc.oneof(part, fc.string({ maxLength: 8 })), { maxLength: 14 }), (parts) => {
      try {
        const report = read(parts.join(" "));
        expect(report.station).toMatch(/^[A-Z][A-Z0-9]{3}$/);
        expect(Number.isFinite(report.celsius ?? 0)).toBe(true);
        expect((report.dewPointC ?? -99) <= (report.celsius ?? 99)).toBe(true);
      } catch (error) {
        expect((error as Error).name).toBe("ReportError");
      }
    }),
    { numRuns: 400 },
  );
});

const TAF =
  "TAF QXMP 151100Z 1512/1606 24010KT 9999 SCT030 TX24/1515Z TN11/1604Z BECMG 1515/1517 29018G28KT TEMPO 1516/1519 3000 SHRA BKN012 PROB30 1602/1606 0800 FG BKN002 FM152000 32008KT CAVOK";

test("a forecast: its spans, with what holds, what may come and the worst of it", () => {
  const taf = readForecast(TAF, NOW);
  expect(taf).toMatchObject({
    station: "QXMP",
    from: "2026-06-15T12:00:00.000Z",
    to: "2026-06-16T06:00:00.000Z",
    unread: [],
  });
  expect(taf.spans.map(({ kind }) => kind)).toEqual(["first", "becoming", "at times", "chance", "from"]);
  const early = forecastAt(taf, "2026-06-15T13:00:00Z", "2026-06-15T14:00:00Z");
  expect(early.holds.wind).toEqual({ fromDeg: 240, kt: 10 });
  expect(early.besides).toEqual([]);
  const late = forecastAt(taf, "2026-06-15T16:10:00Z", "2026-06-15T17:30:00Z");
  expect(late.holds.wind).toEqual({ fromDeg: 290, kt: 18, gustKt: 28 });
  expect(late.worst).toMatchObject({ visibilityM: 3000, ceilingFt: 1200, wind: { kt: 18, gustKt: 28 } });
  expect(late.besides.map(({ kind }) => kind)).toEqual(["at times"]);
  const night = forecastAt(taf, "2026-06-16T03:00:00Z", "2026-06-16T04:00:00Z");
  expect(night.holds.wind).toEqual({ fromDeg: 320, kt: 8 });
  expect(night.besides[0]).toMatchObject({ kind: "chance", percent: 30, visibilityM: 800 });
  expect(forecastAt(taf, "2026-06-16T05:00:00Z", "2026-06-16T08:00:00Z").partly).toBe(true);
});

test("its temperature goes from the warmest to the coldest and nowhere beyond", () => {
  const taf = readForecast(TAF, NOW);
  expect(temperatureAt(taf, "2026-06-15T15:00:00Z")).toBeCloseTo(24, 6);
  expect(temperatureAt(taf, "2026-06-16T04:00:00Z")).toBeCloseTo(11, 6);
  expect(temperatureAt(taf, "2026-06-15T21:30:00Z")).toBeCloseTo(17.5, 6);
  expect(temperatureAt({ temperatures: [] }, NOW)).toBeUndefined();
});

test.each([
  ["TAF QXMP 151100Z 1512/1606 CNL", "cancelled"],
  ["TAF QXMP", "Station or validity missing"],
  ["METAR QXMP 151350Z 24011KT 9999", "Station or validity missing"],
])("forecast %s: %s", (text, why) => {
  expect(() => readForecast(text, NOW)).toThrow(why);
});

test("groups and words by the code table", () => {
  expect(["-SHRA", "+TSRA", "VCSH", "FZFG", "BLSN", "ABC"].map(weatherText)).toEqual([
    "light showers of rain",
    "heavy thunderstorm with rain",
    "showers in the vicinity",
    "freezing fog",
    "blowing snow",
    "ABC",
  ]);
  expect(cloudBaseFt(20, 12.5)).toBe(3000);
});
