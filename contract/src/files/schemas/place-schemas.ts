import { NIGHT_BEGINS } from "@cravix/core/weather/night-begins";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, name } from "../../bounds/fields";
import { deferralSchema } from "./deferral-schema";
import { id, optional, source, words } from "./parts";

const metres = () => bounded(0, 10_000);

const declared = () =>
  object({ toraM: metres(), todaM: metres(), asdaM: metres(), ldaM: metres() })
    .noUnknown()
    .test(
      "declared",
      "take-off run available must not exceed take-off distance available or accelerate-stop distance available",
      (value) => {
        const { toraM = 0, todaM = 0, asdaM = 0 } = (value ?? {}) as Record<string, number>;
        return toraM <= todaM && toraM <= asdaM;
      },
    );
/** Runways of a file; a checklist also pins each intersection as one. */
const MAX_RUNWAYS = 20;
const MAX_INTERSECTIONS = 6;

export const airfieldSchema = object({
  format: string().required().oneOf(["cravix.airfield/1"]),
  id: id(),
  name: words(80),
  elevationFt: bounded(-1500, 20_000),
  lat: anyNumber(-90, 90),
  lon: anyNumber(-180, 180),
  station: string().matches(
    /^[A-Z][A-Z0-9]{3}$/,
    "must be a station identifier of four characters, such as QXMP",
  ),
  /** Rule set of this airfield. */
  rules: name(),
  runways: array()
    .of(
      object({
        id: id(),
        headingDeg: bounded(0, 360),
        lengthM: bounded(1, 10_000),
        surface: words(40),
        declared: optional(declared()),
        intersections: array()
          .of(
            object({
              name: string()
                .required()
                .matches(/^[A-Za-z0-9]{1,6}$/, "must be a name of up to six letters and digits, such as B2"),
              declared: declared().required(),
            })
              .noUnknown()
              .required(),
          )
          .max(MAX_INTERSECTIONS),
        slopePercent: anyNumber(-15, 15),
        marks: array()
          .of(
            object({ name: words(60), atM: metres() })
              .noUnknown()
              .required(),
          )
          .max(20),
        beyond: optional(
          object({ what: words(60), heightFt: bounded(0, 3000), distanceM: bounded(0, 10_000) }).noUnknown(),
        ),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(MAX_RUNWAYS * (1 + MAX_INTERSECTIONS)),
}).noUnknown();

export const ruleSetSchema = object({
  format: string().required().oneOf(["cravix.rule-set/1"]),
  id: id(),
  name: words(),
  reserves: array()
    .of(
      object({
        when: string().required().oneOf(["day", "night", "instrument"]),
        minutes: bounded(0, 600),
        source: source.required(),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(20),
  altimeter: optional(object({ feet: bounded(1, 1000), source: source.required() }).noUnknown()),
  night: optional(
    object({ begins: string().required().oneOf(NIGHT_BEGINS), source: source.required() }).noUnknown(),
  ),
  runwayFactors: optional(
    object({ takeOff: bounded(1, 4), landing: bounded(1, 4), source: source.required() }).noUnknown(),
  ),
  minima: optional(
    object({
      visibilityM: anyNumber(0, 10_000),
      ceilingFt: anyNumber(0, 10_000),
      noUnknown: boolean().oneOf([true]),
      source: source.required(),
    }).noUnknown(),
  ),
  deferral: optional(deferralSchema),
  /** Rule that allows preventive maintenance by a pilot. */
  preventive: optional(object({ source: source.required() }).noUnknown()),
}).noUnknown();
