import { array, object, string } from "yup";
import { bounded, name } from "../../bounds/fields";
import { deferralSchema } from "./deferral-schema";
import { id, optional, source, words } from "./parts";

export const airfieldSchema = object({
  format: string().required().oneOf(["cravix.airfield/1"]),
  id: id(),
  name: words(80),
  elevationFt: bounded(-1500, 20_000),
  /** The rule set of this place. */
  rules: name(),
  runways: array()
    .of(
      object({ id: id(), headingDeg: bounded(0, 360), lengthM: bounded(1, 10_000), surface: words(40) })
        .noUnknown()
        .required(),
    )
    .required()
    .max(20),
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
  deferral: optional(deferralSchema),
  /** That a pilot may do preventive work, and by which rule. */
  preventive: optional(object({ source: source.required() }).noUnknown()),
}).noUnknown();
