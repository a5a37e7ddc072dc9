import { MINIMA_FIELDS, MINIMA_OF } from "@cravix/core";
import { array, boolean, object, string } from "yup";
import { anyNumber, key } from "../../bounds/fields";
import { day } from "./airworthiness-schema";
import { source } from "./parts";

/** Limits of a person: what is absent is not limited. */
export const minimaSchema = object({
  ...Object.fromEntries(
    Object.entries(MINIMA_FIELDS).map(([field, { min, max }]) => [field, anyNumber(min, max)]),
  ),
  noNight: boolean().oneOf([true]),
  noPassengers: boolean().oneOf([true]),
}).noUnknown();

/** Limits and whose they are, as they are pinned in a list. */
export const minimaSetSchema = object({
  of: string().required().oneOf(MINIMA_OF),
  minima: minimaSchema.required(),
  source: source.required(),
  aircraft: array().of(key()).max(50),
  until: day(),
}).noUnknown();
