import { CLOUD_COVERS, GROUND_STATES, WEATHER_FROM } from "@cravix/core";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, moment, words } from "../../bounds/fields";
import { optional } from "./parts";

const degrees = () => bounded(0, 360);

/** A report of the weather, decoded, with the text that it was. */
export const weatherReportSchema = object({
  raw: words(2000),
  station: string()
    .required()
    .matches(/^[A-Z][A-Z0-9]{3}$/, "must be a station, like QXMP"),
  at: moment().required(),
  wind: optional(
    object({
      fromDeg: anyNumber(0, 360),
      kt: bounded(0, 250),
      gustKt: anyNumber(0, 300),
      between: array().of(degrees()).length(2),
    })
      .noUnknown()
      .test("gust", "needs a gust no weaker than the wind", (value) => {
        const { kt = 0, gustKt } = (value ?? {}) as { kt?: number; gustKt?: number };
        return gustKt === undefined || gustKt >= kt;
      }),
  ),
  visibilityM: anyNumber(0, 20_000),
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
  weather: array().of(words(12)).required().max(12),
  celsius: anyNumber(-80, 60),
  dewPointC: anyNumber(-90, 60),
  settingHpa: anyNumber(850, 1090),
  automatic: boolean().oneOf([true]),
  unread: array().of(words(40)).required().max(100),
})
  .noUnknown()
  .test("dew point", "needs a dew point no higher than the temperature", (value) => {
    const { celsius, dewPointC } = (value ?? {}) as { celsius?: number; dewPointC?: number };
    return dewPointC === undefined || (celsius !== undefined && dewPointC <= celsius);
  });

/** What was said of the weather of a flight. */
export const weatherToldFields = {
  report: optional(weatherReportSchema),
  from: string().oneOf(WEATHER_FROM),
  variationDeg: anyNumber(-180, 180),
  ground: string().oneOf(GROUND_STATES),
};
