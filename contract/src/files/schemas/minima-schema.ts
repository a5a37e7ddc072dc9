import { MINIMA_FIELDS, MINIMA_OF } from "@cravix/core/minima/minima";
import { array, boolean, object, string } from "yup";
import { anyNumber, key } from "../../bounds/fields";
import { day } from "./airworthiness-schema";
import { source } from "./parts";

/** Personal minimums; absent fields are not limited. */
export const minimaSchema = object({
  ...Object.fromEntries(
    Object.entries(MINIMA_FIELDS).map(([field, { min, max }]) => [field, anyNumber(min, max)]),
  ),
  noNight: boolean().oneOf([true]),
  noUnknown: boolean().oneOf([true]),
  noPassengers: boolean().oneOf([true]),
}).noUnknown();

/** Limits with their origin, as pinned in a checklist. */
export const minimaSetSchema = object({
  of: string().required().oneOf(MINIMA_OF),
  minima: minimaSchema.required(),
  source: source.required(),
  aircraft: array().of(key()).max(50),
  until: day(),
}).noUnknown();
