import { sValidator } from "@hono/standard-validator";
import type { ValidationTargets } from "hono";
import type { AnySchema } from "yup";
import { problem } from "../access/problem";

/** Yup throws for fields named like something of the language, such as "constructor": also a fault of the request. */
function neverThrowing<S extends AnySchema>(schema: S): Pick<S, "~standard"> {
  const own = schema["~standard"];
  const validate: typeof own.validate = async (value) => {
    try {
      return await own.validate(value);
    } catch {
      return { issues: [{ message: "only fields that are known here" }] };
    }
  };
  return { "~standard": { ...own, validate } } as Pick<S, "~standard">;
}

/** Validates part of a request with a Yup schema; faults are returned with their paths, invalid path parameters give 404. */
export function valid<T extends keyof ValidationTargets, S extends AnySchema>(
  target: T,
  schema: S,
  detail = "The request is not valid. Nothing was changed.",
) {
  return sValidator(target, neverThrowing(schema), (result, c) => {
    if (result.success) return undefined;
    if (target === "param") return problem(c, 404, "Nothing found at this address.");
    const faults = result.error.slice(0, 100).map(({ path = [], message }) => ({
      path: path.map((part) => String(typeof part === "object" ? part.key : part)).join("."),
      expected: message,
    }));
    return problem(c, 422, detail, faults);
  });
}
