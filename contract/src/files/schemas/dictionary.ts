import { type AnySchema, object, ValidationError } from "yup";
import { isKey } from "../../bounds/plain-text";
import { jsonSchemaPart } from "../json-schema";

/** Most entries of a dictionary in a file. */
const MOST = 300;

/** An object whose keys are names and whose values all have one schema. Faults carry the path of the value. */
export function dictionary(schema: AnySchema) {
  return object()
    .test("entries", `must have at most ${MOST} entries with names`, function check(value) {
      const entries = Object.entries(value ?? {});
      if (entries.length > MOST || entries.some(([name]) => !isKey(name) || name.length > 120)) return false;
      const faults = entries.flatMap(([name, one]) => faultsOf(schema, one, `${this.path}.${name}`));
      return faults.length === 0 || new ValidationError(faults, value, this.path);
    })
    .meta({ jsonSchema: { additionalProperties: jsonSchemaPart(schema) } });
}

function faultsOf(schema: AnySchema, value: unknown, path: string): ValidationError[] {
  try {
    schema.validateSync(value, { strict: true, abortEarly: false, disableStackTrace: true });
    return [];
  } catch (error) {
    if (!(error instanceof ValidationError)) throw error;
    return (error.inner.length > 0 ? error.inner : [error]).map((one) => {
      const at = one.path ? `${path}.${one.path}` : path;
      return new ValidationError(one.errors[0] ?? one.message, one.value, at, one.type);
    });
  }
}
