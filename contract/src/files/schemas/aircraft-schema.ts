import { array, object, string } from "yup";
import { bounded, name, text } from "../../bounds/fields";
import { isName, isPlainText } from "../../bounds/plain-text";
import { ownItemSchema } from "./item-schema";
import { id, optional, words } from "./parts";

/** A small dictionary of texts only. */
function isText(value: object | undefined): boolean {
  const facts = Object.entries(value ?? {});
  return (
    facts.length <= 200 &&
    facts.every(
      ([fact, words]) =>
        isName(fact) &&
        fact.length <= 120 &&
        typeof words === "string" &&
        words.length <= 200 &&
        isPlainText(words),
    )
  );
}

/** Values printed on an aircraft, by name. */
export const factsSchema = object()
  .test("words", 'must map each name to a text, such as "06/2028"', isText)
  .meta({ jsonSchema: { additionalProperties: { type: "string", maxLength: 200 } } });

export const aircraftSchema = object({
  format: string().required().oneOf(["cravix.aircraft/2"]),
  registration: string()
    .required()
    .matches(/^[A-Z0-9]{1,3}-[A-Z0-9]{2,5}$/, "must be a registration such as QX-TAR"),
  typeId: id(),
  year: bounded(1900, 2100).integer(),
  base: words(80),
  story: text(400),
  ownItems: array().of(ownItemSchema.required()).required().max(200),
  facts: optional(factsSchema),
  /** Rule set of this aircraft, if not the airfield's. */
  rules: name(),
}).noUnknown();
