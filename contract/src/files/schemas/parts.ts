import { UNITS } from "@cravix/core/units/convert";
import { type AnyObjectSchema, array, boolean, object, string } from "yup";
import { anyNumber, bounded, requiredText as fieldOfWords, key } from "../../bounds/fields";

export const id = () => key();
export const words = (max = 400) => fieldOfWords(max);
/** An optional object: absent or complete. */
export const optional = (schema: AnyObjectSchema) => schema.default(undefined).optional();

export const source = object({
  kind: string().required().oneOf(["handbook", "rule", "common practice", "own limit"]),
  text: words(),
  example: boolean().required(),
}).noUnknown();

export const limit = object({
  min: anyNumber(),
  max: anyNumber(),
  unit: string().required().oneOf(UNITS),
  source: source.required(),
})
  .noUnknown()
  .test("an-end", 'must have "min" or "max"; "min" must not be greater than "max"', (value) => {
    if (!value) return true;
    const { min, max } = value;
    if (typeof min === "number" && typeof max === "number") return min <= max;
    return min !== undefined || max !== undefined;
  })
  .meta({ jsonSchema: { anyOf: [{ required: ["min"] }, { required: ["max"] }] } });

const year = () => anyNumber(1900, 2100).integer();
export const years = object({ from: year(), to: year() }).noUnknown();

/** A scale with readings in litres. */
export const scale = optional(
  object({
    unit: string().required().oneOf(UNITS),
    points: array()
      .of(
        object({ at: bounded(0, 5000), litres: bounded(0, 5000) })
          .noUnknown()
          .required(),
      )
      .required()
      .min(2)
      .max(60),
    source: source.required(),
  }).noUnknown(),
);

export const sourced = (key: string) =>
  optional(object({ [key]: bounded(0, 10_000), source: source.required() }).noUnknown());
