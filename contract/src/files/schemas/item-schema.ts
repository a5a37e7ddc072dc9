import {
  CONDITIONS,
  DRILLS,
  ITEM_KINDS,
  LEDGER_WAYS,
  NEVER_GROUPED,
  TOPICS,
  TRACED_STEPS,
} from "@cravix/core/aircraft/aircraft-type";
import { FINDING_GRADES } from "@cravix/core/judgement/judgement";
import { UNITS } from "@cravix/core/units/convert";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, name, text } from "../../bounds/fields";
import { method } from "./method";
import { id, limit, optional, words, years } from "./parts";

/** Either something goes out, with its state, or something comes back. */
const ledger = optional(
  object({
    back: text(80),
    out: text(80),
    how: string().oneOf(LEDGER_WAYS),
    count: anyNumber(1, 20).integer(),
    stow: text(120),
    after: text(120),
  })
    .noUnknown()
    .test("out-or-back", 'must have either "out" with "how", or "back" alone', (value) => {
      if (!value) return true;
      const { back, out, how, count, stow, after } = value;
      const goes = out !== undefined && out !== "" && how !== undefined;
      const comes =
        back !== undefined && back !== "" && [how, count, stow, after].every((x) => x === undefined);
      return out === undefined ? comes : goes && back === undefined;
    })
    .meta({
      jsonSchema: {
        oneOf: [
          { required: ["out", "how"], not: { required: ["back"] } },
          {
            required: ["back"],
            not: { anyOf: ["out", "how", "count", "stow", "after"].map((name) => ({ required: [name] })) },
          },
        ],
      },
    }),
);

const asked = object({ ask: words(200), fact: id(), until: boolean() }).noUnknown();

/** Fields of an item in a file. */
export const itemFields = {
  id: id(),
  station: id(),
  kind: string()
    .required()
    .oneOf(ITEM_KINDS.filter((kind) => kind !== "observe")),
  part: name(80),
  topic: string().oneOf(TOPICS),
  title: words(200),
  good: words(),
  bad: text(400),
  why: words(600),
  caution: text(400),
  miss: string().required().oneOf(FINDING_GRADES),
  missWhen: optional(
    object({
      when: string().required().oneOf(CONDITIONS),
      miss: string().required().oneOf(FINDING_GRADES),
    }).noUnknown(),
  ),
  done: text(40),
  /** Due items that answer it; "*" for the whole record. */
  due: array().of(id()).max(20),
  when: array().of(string().required().oneOf(CONDITIONS)),
  years: optional(years),
  expected: anyNumber(1, 60).integer(),
  reading: optional(
    object({
      key: id(),
      unit: string().required().oneOf(UNITS),
      decimals: bounded(0, 3).integer(),
      plausible: optional(
        object({ min: anyNumber().required(), max: anyNumber().required(), why: words() }).noUnknown(),
      ),
      feel: boolean(),
    }).noUnknown(),
  ),
  limit: optional(limit),
  choices: array()
    .of(
      object({ value: id(), label: words(60) })
        .noUnknown()
        .required(),
    )
    .max(12),
  choicesFrom: string().oneOf(["runways"]),
  ledger,
  touches: array().of(words(40)).max(10),
  seconds: anyNumber(1, 600).integer(),
  confirm: optional(asked),
  proof: optional(asked),
  traced: string().oneOf(TRACED_STEPS),
  drill: string().oneOf(DRILLS),
  method: method(),
  second: boolean(),
  loads: optional(object({ on: array().of(id()).max(30), off: array().of(id()).max(30) }).noUnknown()),
  spot: name(),
  alone: string().oneOf(NEVER_GROUPED),
  turnaround: string().oneOf(["always", "refuelled"]),
};

export const itemSchema = object(itemFields).noUnknown();
const DAY = /^\d{4}-\d{2}-\d{2}$/;
export const ownItemSchema = object({
  ...itemFields,
  retired: string().matches(DAY, "must be a date, such as 2026-05-01"),
}).noUnknown();
