import { DATA_ANSWERS, DEFERRERS } from "@cravix/core/airworthiness/deferral/deferral-rules";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded, name, text } from "../../bounds/fields";
import { day, flightKinds } from "./airworthiness-schema";
import { id, optional, source, words } from "./parts";

/** Target of an answer: another question, or a result. */
const stepSchema = object({
  ask: name(),
  result: string().oneOf(["not deferrable", "ask first", "deferrable"]),
  why: text(400),
  needs: optional(
    object({
      placard: boolean().required(),
      deactivated: boolean().required(),
      signedBy: array().of(string().required().oneOf(DEFERRERS)).required().min(1).max(DEFERRERS.length),
    }).noUnknown(),
  ),
})
  .noUnknown()
  .test(
    "step",
    'must lead to another question ("ask"), or to a "result" with "why"; a deferrable result also needs "needs"',
    (step) => {
      if (!step) return true;
      if (step.ask !== undefined) return step.result === undefined && step.why === undefined && !step.needs;
      return (
        step.result !== undefined &&
        !!step.why &&
        (step.result === "deferrable") === (step.needs !== undefined)
      );
    },
  )
  .meta({ jsonSchema: { oneOf: [{ required: ["ask"] }, { required: ["result", "why"] }] } });

/** Deferral rules, part of a rule set. */
export const deferralSchema = object({
  questions: array()
    .of(
      object({
        id: id(),
        ask: words(300),
        source: source.required(),
        by: string().oneOf(DATA_ANSWERS),
        yes: stepSchema.required(),
        no: stepSchema.required(),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .min(1)
    .max(60),
  required: array()
    .of(
      object({
        what: words(80),
        for: flightKinds().required(),
        all: boolean().oneOf([true]),
        certifiedAfter: day(),
        builtAfter: day(),
        except: array()
          .of(
            object({ text: words(300), days: anyNumber(1, 400).integer() })
              .noUnknown()
              .required(),
          )
          .min(1)
          .max(20),
        source: source.required(),
      })
        .noUnknown()
        .required(),
    )
    .max(200),
  notRequired: array().of(words(80).required()).max(300),
  categories: array()
    .of(
      object({ id: id(), days: anyNumber(1, 400).integer() })
        .noUnknown()
        .required(),
    )
    .max(20),
}).noUnknown();

/** Equipment of a type, with the items that inspect it. */
export const equipmentSchema = object({
  format: string().required().oneOf(["cravix.equipment-list/1"]),
  id: id(),
  typeId: id(),
  certified: day(),
  equipment: array()
    .of(
      object({
        id: id(),
        name: words(80),
        what: words(80),
        items: array().of(id()).required().max(40),
        requiredFor: flightKinds().required(),
        installed: anyNumber(1, 40).integer(),
        mustWork: anyNumber(0, 40).integer(),
        directive: text(80),
        deactivate: text(300),
        placard: text(120),
        deactivateBy: string().oneOf(["mechanic"]),
      })
        .noUnknown()
        .required(),
    )
    .required()
    .max(300),
  never: array().of(id()).required().max(2000),
  /** An operator's approved minimum equipment list, if there is one. */
  minimum: array()
    .of(
      object({
        equipment: id(),
        category: words(20),
        days: anyNumber(1, 400).integer(),
        installed: bounded(1, 40).integer(),
        required: bounded(0, 40).integer(),
        notFor: flightKinds(),
        operations: text(400),
        maintenance: text(400),
      })
        .noUnknown()
        .required(),
    )
    .max(300),
}).noUnknown();
