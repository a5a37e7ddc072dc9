import { STATION_PHASES, STATION_ROLES } from "@cravix/core/aircraft/aircraft-type";
import { array, mixed, object, string } from "yup";
import { anyNumber, name, text } from "../../bounds/fields";
import { dictionary } from "./dictionary";
import { itemFields } from "./item-schema";
import { cardSchema, parameterValue, partItemFields, placing } from "./part-schema";
import { id, limit, optional } from "./parts";
import { profileFields, variantSchema } from "./type-schema";

/** One value, or one for each of several parts. */
const values = mixed()
  .required()
  .test("values", "must be a text, a number, or a list of them", (value) => {
    const list = Array.isArray(value) ? value : [value];
    return list.length > 0 && list.length <= 20 && list.every((one) => parameterValue().isValidSync(one));
  })
  .meta({ jsonSchema: { anyOf: [{ type: "number" }, { type: "string" }, { type: "array" }] } });

/** Any field of an item, or null to leave it out. The composed item is validated as a whole. */
const change = object(
  Object.fromEntries(
    Object.keys(partItemFields)
      .filter((field) => field !== "if")
      .map((field) => [field, mixed().nullable().notRequired()]),
  ),
).noUnknown();

const { stub: _stub, rules, ...profile } = profileFields;

export const compositionSchema = object({
  format: string().required().oneOf(["cravix.aircraft-type/3"]),
  ...profile,
  rules,
  stations: array()
    .of(
      object({
        id: id(),
        name: text(80),
        phase: string().oneOf(STATION_PHASES),
        role: string().oneOf(STATION_ROLES),
        x: anyNumber(),
        y: anyNumber(),
        cards: array().of(cardSchema.required()).max(20),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(300),
  parts: array()
    .of(
      object({
        part: id(),
        with: optional(dictionary(values)),
        has: array().of(id()).max(100),
        limits: optional(dictionary(limit.required())),
        without: array().of(id()).max(100),
        changes: optional(dictionary(change.required())),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .min(1)
    .max(500),
  items: array()
    .of(
      object({ ...itemFields, ...placing })
        .noUnknown()
        .required(),
    )
    .max(500),
  order: array()
    .of(object({ item: id(), after: name() }).noUnknown().required())
    .max(500),
  variants: array().of(variantSchema.required()).max(20),
}).noUnknown();
