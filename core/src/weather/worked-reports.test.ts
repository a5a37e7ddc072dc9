import fc from "fast-check";
import { groupsOfText, readForecast, readReport, readWeather, weatherFor } from "./read-weather";
import type { Sky, WeatherReport } from "./report";
import { WORKED_REPORTS } from "./worked-reports";

const NOW = "2026-06-15T14:20:00Z";
const SIGN = { less: "<", more: "+" } as const;

function windText({ wind }: Sky): string[] {
  if (!wind) return [];
  const { fromDeg, kt, gustKt, between } = wind;
  return [
    `${fromDeg ?? "VRB"}/${kt}${gustKt === undefined ? "" : `G${gustKt}`}${between ? `V${between.join("-")}` : ""}`,
  ];
}

function skyText(sky: Sky): string[] {
  const { visibilityM, visibilityIs, leastVisibility, clouds, cloudUnknown, clear, weather } = sky;
  return [
    ...windText(sky),
    ...(visibilityM === undefined ? [] : [`v${visibilityM}${visibilityIs ? SIGN[visibilityIs] : ""}`]),
    ...(leastVisibility ? [`(${leastVisibility.m} to ${leastVisibility.toward})`] : []),
    ...clouds.map(({ cover, baseFt, kind = "" }) => `${cover}${baseFt}${kind}`),
    ...(cloudUnknown ? ["?"] : []),
    ...(clear ? [clear] : []),
    ...(weather.length > 0 ? [`w${weather.join(",")}`] : []),
  ];
}

/** A report in the notation of the worked ones. */
function summary(report: WeatherReport): string {
  const {
    celsius,
    dewPointC,
    settingHpa,
    ranges = [],
    windShear = [],
    closed = [],
    trend = [],
    unread,
  } = report;
  return [
    ...skyText(report),
    ...(celsius === undefined ? [] : [`t${celsius}${dewPointC === undefined ? "" : `/${dewPointC}`}`]),
    ...(settingHpa === undefined ? [] : [`q${settingHpa}`]),
    ...ranges.map(
      ({ runway, m, is, toM }) =>
        `rR${runway}:${m}${toM === undefined ? "" : `-${toM}`}${is ? SIGN[is] : ""}`,
    ),
    ...(windShear.length > 0 ? [`s${windShear.join(",")}`] : []),
    ...(closed.length > 0 ? [`x${closed.join(",")}`] : []),
    ...(trend.length > 0 ? [`n${trend.length}`] : []),
    ...(unread.length > 0 ? [`!${unread.join(",")}`] : []),
  ].join(" ");
}

const WORKED = WORKED_REPORTS.trim()
  .split("\n")
  .map((line) => line.split(" | ") as [string, string]);

test.each(WORKED)("%s", (body, expected) => {
  expect(summary(readReport(`METAR QXMP 151350Z ${body}`, NOW))).toBe(expected);
});

/** Tokens of a report as they came; a report's own end mark aside. */
const tokensOf = (text: string) => text.toUpperCase().replace(/=/g, " ").split(/\s+/).filter(Boolean);
const accounted = (text: string) =>
  readWeather(text, NOW).reports.flatMap(({ groups }) => groups.flatMap((group) => group.text.split(" ")));

test.each(WORKED)("every group of %s is accounted for, in its order", (body) => {
  const text = `METAR QXMP 151350Z ${body}`;
  expect(accounted(text)).toEqual(tokensOf(text));
});

test("written out from its groups and read again, a report is the same; so is it in small letters and across lines", () => {
  for (const [body] of WORKED) {
    const text = `METAR QXMP 151350Z ${body}`;
    const report = readReport(text, NOW);
    expect(readReport(accounted(text).join(" "), NOW)).toEqual(report);
    expect(readReport(`  ${text.toLowerCase().replaceAll(" ", "\n ")}=`, NOW)).toEqual(report);
  }
});

/** Mutations of the worked reports: letters changed, groups dropped, doubled, moved, split. */
const mutated = fc
  .record({
    at: fc.nat({ max: WORKED.length - 1 }),
    second: fc.nat({ max: WORKED.length - 1 }),
    changes: fc.array(
      fc.record({
        how: fc.constantFrom("letter", "drop", "double", "swap", "split", "join", "other"),
        place: fc.nat({ max: 40 }),
        letter: fc.constantFrom(..."ABCDEFGKMNPQRSTVWXZ0123456789/=+- "),
      }),
      { minLength: 1, maxLength: 4 },
    ),
  })
  .map(({ at, second, changes }) => {
    const groups = `METAR QXMP 151350Z ${WORKED[at]?.[0]}`.split(" ");
    const others = (WORKED[second]?.[0] ?? "").split(" ");
    for (const { how, place, letter } of changes) {
      const i = place % Math.max(1, groups.length);
      const group = groups[i] ?? "";
      if (how === "letter") {
        const k = place % Math.max(1, group.length);
        groups[i] = group.slice(0, k) + letter + group.slice(k + 1);
      } else if (how === "drop") groups.splice(i, 1);
      else if (how === "double") groups.splice(i, 0, group);
      else if (how === "swap") groups.push(...groups.splice(i, 1));
      else if (how === "split") groups.splice(i, 1, group.slice(0, 2), group.slice(2));
      else if (how === "join") groups.splice(i, 2, group + (groups[i + 1] ?? ""));
      else groups.splice(i, 0, others[place % others.length] ?? "");
    }
    return groups.join(" ");
  });

test("a hundred thousand mutated reports are read without an error, and lose no group", () => {
  fc.assert(
    fc.property(mutated, (text) => {
      let read: ReturnType<typeof readWeather>;
      try {
        read = readWeather(text, NOW);
      } catch (error) {
        return (error as Error).name === "ReportError";
      }
      const { reports, forecasts, faults } = read;
      const all = [
        ...[...reports, ...forecasts].flatMap(({ groups }) =>
          groups.flatMap((group) => group.text.split(" ")),
        ),
        ...faults.flatMap((fault) => fault.text.split(" ")),
      ].sort();
      const wanted = tokensOf(text).sort();
      // A doubted change appears once for its missing period: nothing may be missing.
      return wanted.every((token) => all.includes(token)) && all.length >= wanted.length;
    }),
    { numRuns: 100_000 },
  );
});

const TAF = "TAF QXMP 151100Z 1512/1606 24010KT 9999 SCT030";

/** Forecasts, worked out by hand: the conditions at the end of the last change. */
test.each([
  ["BECMG 1514/1515 CAVOK", 2, { clear: "CAVOK", noWeather: true }],
  ["TEMPO 1514/1518 3000 SHRA BKN012", 2, { weather: ["SHRA"], visibilityM: 3000 }],
  ["PROB30 1514/1518 0800 FG", 2, { kind: "chance", percent: 30 }],
  ["PROB40 TEMPO 1514/1518 TSRA BKN015CB", 2, { kind: "chance", percent: 40, weather: ["TSRA"] }],
  ["FM151800 32008KT P6SM SKC", 2, { kind: "from", from: "2026-06-15T18:00:00.000Z", clear: "SKC" }],
  ["FM151830 32008KT P6SM BKN040 WS010/24060KT", 2, { windShear: ["at 1,000 ft: 240° 60 kt"] }],
  ["BECMG 1514/1515 27015G25KT 5000 BR", 2, { wind: { fromDeg: 270, kt: 15, gustKt: 25 } }],
  ["BECMG 1523/1524 NSW", 2, { to: "2026-06-16T00:00:00.000Z", noWeather: true }],
  ["QNH2992INS BECMG 1514/1515 VRB05KT QNH2990INS", 2, { wind: { kt: 5 } }],
  ["620304 530405 FM151800 32008KT 9999 NSC", 2, { clear: "NSC" }],
  ["BECMG 1514/1515 BKN0O3", 2, { unread: ["BKN0O3"], cloudUnknown: true }],
  ["BECMG 32008KT", 2, { kind: "becoming", unread: ["BECMG"] }],
  ["FM159900 32008KT", 2, { kind: "from", unread: ["FM159900"] }],
  ["TEMPO 1540/1541 SHRA", 2, { unread: ["1540/1541"] }],
])("a forecast with %s", (change, count, last) => {
  const { spans } = readForecast(`${TAF} ${change}`, NOW);
  expect(spans).toHaveLength(count);
  expect(spans.at(-1)).toMatchObject(last);
});

test.each([
  ["TAF AMD QXMP 151100Z 1512/1606 24010KT CAVOK", "QXMP"],
  ["TAF COR QXMP 151100Z 1512/1606 24010KT CAVOK", "QXMP"],
  ["TAF TAF QXMP 151100Z 1512/1606 24010KT CAVOK TX24/1515Z TNM02/1604Z", "QXMP"],
  ["QXMP 151100Z 1512/1606 24010KT CAVOK RMK NXT FCST BY 18Z", "QXMP"],
  ["TAF QXMP 1512/1606 24010KT CAVOK AMD NOT SKED", "QXMP"],
])("%s is the forecast of %s, completely understood", (text, station) => {
  expect(readForecast(text, NOW)).toMatchObject({ station, unread: [], from: "2026-06-15T12:00:00.000Z" });
});

test("several reports in one text are several, each under its own station and hour; the field's newest is taken", () => {
  const read = readWeather(
    `METAR QXAB 151320Z 24011KT CAVOK 14/12 Q1013=
     METAR QXMP 151320Z 25012KT 9999 FEW030 18/09 Q1016 NOSIG=
     SPECI QXMP 151402Z 26022G35KT 4000 +TSRA BKN012CB 16/15 Q1015
     QXKM 151350Z 00000KT 0200 FG VV001 05/05 Q1030
     TAF QXMP 151100Z 1512/1606 24010KT CAVOK
     TAF QXAB 151100Z 1512/1606 24010KT CAVOK
     METAR QXZZ NIL`,
    NOW,
  );
  expect(read.reports.map(({ report }) => `${report.station} ${report.at.slice(11, 16)}`)).toEqual([
    "QXAB 13:20",
    "QXMP 13:20",
    "QXMP 14:02",
    "QXKM 13:50",
  ]);
  expect(read.forecasts.map(({ forecast }) => forecast.station)).toEqual(["QXMP", "QXAB"]);
  expect(read.faults).toHaveLength(1);
  expect(weatherFor(read, "QXMP")).toMatchObject({
    report: { station: "QXMP", at: "2026-06-15T14:02:00.000Z", weather: ["+TSRA"] },
    forecast: { station: "QXMP" },
  });
  expect(weatherFor(read, "QXXX").report?.at).toBe("2026-06-15T14:02:00.000Z");
});

test("each group of a report on record has its words, and exact temperatures of remarks are spelt out", () => {
  const text = "METAR QXMP 151350Z AUTO 24012KT 10SM ////// 14/12 A2992 RMK AO2 T01440122";
  const groups = groupsOfText(text, NOW);
  const of = (token: string) => groups.find((group) => group.text === token);
  expect(of("//////")).toMatchObject({ status: "not observed", words: "cloud not observed" });
  expect(of("T01440122")?.words).toBe("remark: 14.4 °C, dew point 12.2 °C");
  expect(of("A2992")?.words).toBe("altimeter setting 29.92 inHg");
  expect(groupsOfText("nonsense", NOW)).toEqual([]);
});
