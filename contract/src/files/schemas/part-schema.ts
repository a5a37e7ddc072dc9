import { UNITS } from "@cravix/core/units/convert";
import { array, mixed, object, string } from "yup";
import { bounded, name, text } from "../../bounds/fields";
import { dictionary } from "./dictionary";
import { itemFields } from "./item-schema";
import { id, optional, words } from "./parts";
import { ruleSchema, stationFields } from "./type-schema";

/** A number, or the name of a parameter in braces. */
const numberOrParameter = () =>
  mixed<number | string>()
    .test(
      "number-or-parameter",
      "must be a number, or a parameter such as {hinges}",
      (value) =>
        value === undefined ||
        Number.isFinite(value) ||
        (typeof value === "string" && /^\{\w{1,40}\}$/.test(value)),
    )
    .meta({ jsonSchema: { anyOf: [{ type: "number" }, { type: "string" }] } });

export const parameterValue = () =>
  mixed<number | string>()
    .test("value", "must be a text or a number", (value) =>
      value === undefined
        ? true
        : typeof value === "string"
          ? value !== "" && value.length <= 80
          : Number.isFinite(value),
    )
    .required()
    .meta({ jsonSchema: { anyOf: [{ type: "number" }, { type: "string" }] } });

/** What an item has in a part sheet or in a composition, besides its fields. */
export const placing = { card: name(40), follows: name() };

export const partItemFields = {
  ...itemFields,
  expected: numberOrParameter(),
  seconds: numberOrParameter(),
  ...placing,
  if: name(40),
  limitFrom: name(40),
};

const parameterSchema = object({
  what: words(200),
  of: array().of(words(80)).min(1).max(40),
  number: optional(object({ least: bounded(0, 10_000), most: bounded(0, 10_000) }).noUnknown()),
  words: bounded(1, 200).integer().notRequired().default(undefined),
  usual: parameterValue().notRequired(),
}).noUnknown();

export const partSchema = object({
  format: string().required().oneOf(["cravix.part/1"]),
  id: id(),
  name: words(80),
  what: words(400),
  place: text(80),
  parameters: optional(dictionary(parameterSchema)),
  options: optional(dictionary(string().required().max(200))),
  limits: optional(
    dictionary(object({ what: words(200), unit: string().required().oneOf(UNITS) }).noUnknown()),
  ),
  items: array().of(object(partItemFields).noUnknown().required()).required().min(1).max(100),
  rules: array().of(ruleSchema.required()).max(40),
}).noUnknown();

export const cardSchema = object({ id: id(), title: text(80), done: text(40) }).noUnknown();

export const stationsSchema = object({
  format: string().required().oneOf(["cravix.stations/1"]),
  stations: array()
    .of(
      object({
        ...stationFields,
        role: stationFields.role.required(),
        order: array().of(id()).required().max(300),
        cards: array().of(cardSchema.required()).max(20),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(300),
}).noUnknown();
