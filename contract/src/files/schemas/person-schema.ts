import { AIRCRAFT_CLASSES, PERSON_DUE_KINDS } from "@cravix/core/airworthiness/people/person-due";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { array, boolean, object, string } from "yup";
import { anyNumber, key } from "../../bounds/fields";
import { day, type FieldsByKind, fitsItsKind, flightKinds } from "./airworthiness-schema";
import { minimaSchema } from "./minima-schema";
import { id, optional, source, words } from "./parts";

export const PERSON_LIMIT_FIELDS: FieldsByKind = {
  months: { must: ["months", "to"], may: ["younger"] },
  days: { must: ["days"], may: [] },
  date: { must: ["date"], may: [] },
  recency: { must: ["times", "days"], may: ["night", "fullStop", "launches"] },
};

const personLimit = object({
  by: string().required().oneOf(Object.keys(PERSON_LIMIT_FIELDS)),
  months: anyNumber(1, 600).integer(),
  to: string().oneOf(["month end", "same day"]),
  days: anyNumber(1, 20_000).integer(),
  date: day(),
  times: anyNumber(1, 200).integer(),
  night: boolean().oneOf([true]),
  fullStop: boolean().oneOf([true]),
  launches: boolean().oneOf([true]),
  younger: optional(
    object({
      born: day().required(),
      under: anyNumber(1, 120).integer().required(),
      months: anyNumber(1, 600).integer().required(),
    }).noUnknown(),
  ),
})
  .noUnknown()
  .test(fitsItsKind(PERSON_LIMIT_FIELDS));

/** A due item of a person. */
export const personDueSchema = object({
  id: id(),
  name: words(120),
  kind: string().required().oneOf(PERSON_DUE_KINDS),
  limits: array().of(personLimit.required()).required().min(1).max(8),
  for: flightKinds(),
  class: string().oneOf(AIRCRAFT_CLASSES),
  aircraft: array().of(key()).max(50),
  miss: string().required().oneOf(FINDING_GRADES),
  source: source.required(),
  minima: optional(minimaSchema),
}).noUnknown();

export const personWorkSchema = object({
  item: id(),
  date: day().required(),
  sets: optional(object({ date: day().required() }).noUnknown()),
}).noUnknown();
