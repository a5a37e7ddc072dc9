import { CONDITIONS, type ComposedList, PHASES } from "@cravix/core";
import { array, number, object, string, ValidationError } from "yup";
import type { FileFault } from "./read-file";

const id = () => string().required().max(120);

/** What a composed list must have wherever it is read: its items in words, and the stations they stand at. */
const listSchema = object({
  format: string().required().oneOf(["cravix.list/1"]),
  registration: id(),
  year: number().required(),
  conditions: array().of(string().required().oneOf(CONDITIONS)).required(),
  type: object({ name: string().required().max(80) }).required(),
  stations: array()
    .of(
      object({
        id: id(),
        name: string().required().max(80),
        phase: string().required().oneOf(PHASES),
      }).required(),
    )
    .required()
    .max(300),
  items: array()
    .of(
      object({
        id: id(),
        station: id(),
        kind: string().required().max(20),
        title: string().required().max(2000),
        good: string().required().max(400),
        why: string().required().max(2000),
      }).required(),
    )
    .required()
    .max(6000),
  differences: array()
    .of(object({ itemId: id(), why: string().required().max(80) }).required())
    .required(),
});

/** Reads a composed list that crossed a boundary. Never throws: what is wrong comes back with each fault's path. */
export function readList(value: unknown): { list: ComposedList } | { faults: FileFault[] } {
  try {
    listSchema.validateSync(value, { abortEarly: false, strict: true });
    return { list: value as ComposedList };
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    const faults = error.inner.length > 0 ? error.inner : [error];
    return { faults: faults.map((f) => ({ path: f.path ?? "", expected: f.errors[0] ?? f.message })) };
  }
}
