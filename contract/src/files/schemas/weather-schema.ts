import { CLEAR_SKIES, CLOUD_COVERS, SPAN_KINDS } from "@cravix/core/weather/report";
import { RUNWAY_CONDITIONS, WEATHER_FROM } from "@cravix/core/weather/weather-inputs";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, requiredText, utcTime } from "../../bounds/fields";
import { optional } from "./parts";

const degrees = () => bounded(0, 360);

const station = () =>
  string()
    .required()
    .matches(/^[A-Z][A-Z0-9]{3}$/, "must be a station identifier of four characters, such as QXMP");

/** Sky conditions, reported or forecast. */
const skyFields = {
  wind: optional(
    object({
      fromDeg: anyNumber(0, 360),
      kt: bounded(0, 250),
      gustKt: anyNumber(0, 300),
      between: array().of(degrees()).length(2),
    })
      .noUnknown()
      .test("gust", "gust speed must not be less than wind speed", (value) => {
        const { kt = 0, gustKt } = (value ?? {}) as { kt?: number; gustKt?: number };
        return gustKt === undefined || gustKt >= kt;
      }),
  ),
  visibilityM: anyNumber(0, 20_000),
  visibilityIs: string().oneOf(["less", "more"]),
  leastVisibility: optional(object({ m: bounded(0, 20_000), toward: requiredText(2) }).noUnknown()),
  clear: string().oneOf(CLEAR_SKIES),
  cloudUnknown: boolean().oneOf([true]),
  hiddenClouds: array()
    .of(string().required().oneOf(["CB", "TCU"]))
    .max(12),
  noWeather: boolean().oneOf([true]),
  weatherUnknown: boolean().oneOf([true]),
  clouds: array()
    .of(
      object({
        cover: string().required().oneOf(CLOUD_COVERS),
        baseFt: bounded(0, 99_900),
        kind: string().oneOf(["CB", "TCU"]),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(12),
  weather: array().of(requiredText(12)).required().max(12),
};

const unread = () => array().of(requiredText(40)).max(100);
const windShear = () => array().of(requiredText(60)).max(12);

/** A change in a trend or a forecast. */
const span = () =>
  object({
    kind: string().required().oneOf(SPAN_KINDS),
    from: utcTime().required(),
    to: utcTime().required(),
    percent: anyNumber(0, 100),
    windShear: windShear(),
    unread: unread(),
    ...skyFields,
  })
    .noUnknown()
    .required();

/** A decoded weather report, with its text. */
export const weatherReportSchema = object({
  raw: requiredText(2000),
  station: station(),
  at: utcTime().required(),
  ...skyFields,
  celsius: anyNumber(-80, 60),
  dewPointC: anyNumber(-90, 60),
  settingHpa: anyNumber(850, 1090),
  automatic: boolean().oneOf([true]),
  ranges: array()
    .of(
      object({
        runway: requiredText(4),
        m: bounded(0, 20_000),
        is: string().oneOf(["less", "more"]),
        toM: anyNumber(0, 20_000),
      })
        .noUnknown()
        .required(),
    )
    .max(40),
  windShear: windShear(),
  closed: array().of(requiredText(4)).max(40),
  trend: array().of(span()).max(20),
  unread: unread().required(),
})
  .noUnknown()
  .test("dew point", "dew point must not be higher than the temperature", (value) => {
    const { celsius, dewPointC } = (value ?? {}) as { celsius?: number; dewPointC?: number };
    return dewPointC === undefined || (celsius !== undefined && dewPointC <= celsius);
  });

/** A decoded forecast, with its text. */
const forecastSchema = object({
  raw: requiredText(2000),
  station: station(),
  issuedAt: utcTime().required(),
  from: utcTime().required(),
  to: utcTime().required(),
  spans: array().of(span()).required().max(150),
  temperatures: array()
    .of(
      object({ at: utcTime().required(), celsius: bounded(-80, 60) })
        .noUnknown()
        .required(),
    )
    .required()
    .max(200),
  unread: unread().required(),
}).noUnknown();

/** Weather entered for a flight. */
export const weatherToldFields = {
  report: optional(weatherReportSchema),
  forecast: optional(forecastSchema),
  from: string().oneOf(WEATHER_FROM),
  variationDeg: anyNumber(-180, 180),
  ground: string().oneOf(RUNWAY_CONDITIONS),
};
