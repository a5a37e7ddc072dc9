import { OIL_HEATS } from "@cravix/core/oil/judge-oil";
import { array, boolean, object, string } from "yup";
import { anyNumber, bounded } from "../../bounds/fields";
import { optional, source, words } from "./parts";

/** Oil of a type's engine, or of each engine. */
export const oilSchema = optional(
  object({
    minimumQt: anyNumber(0, 30),
    longFlightMinimumQt: anyNumber(0, 30),
    maximumQt: anyNumber(0, 30),
    containerQt: bounded(0.05, 10),
    throwsOffQt: anyNumber(0, 30),
    markedFor: string().oneOf(OIL_HEATS),
    hotReadsLowerQt: anyNumber(0, 5),
    grades: array().of(words(40)).min(1).max(8),
    drySump: boolean(),
    source: source.required(),
  }).noUnknown(),
);
