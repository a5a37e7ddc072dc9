import type { SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from "yup";
import { isKey, isMoment, isName, isPlainText } from "../bounds/plain-text";

type Check = (value: unknown) => boolean;
type Test = SchemaDescription["tests"][number];

/** Tests implied by the type check. */
const HELD_BY_TYPE = new Set(["required", "noUnknown", "finite"]);

/**
 * Generates a fast check from a strict Yup schema's description. True means that Yup would accept the value; false means only
 * that Yup must decide (and explain). An unknown kind of test never passes.
 */
export function quickCheck(field: SchemaFieldDescription): Check {
  const schema = field as SchemaDescription;
  const inner = ofType(field);
  const tests = schema.tests.filter((test) => !HELD_BY_TYPE.has(test.name ?? "")).map(ofTest);
  const oneOf = schema.oneOf.length > 0 ? new Set(schema.oneOf) : undefined;
  // If Yup's "required" also rejects an empty string, let Yup decide.
  const required = !schema.optional || schema.tests.some((test) => test.name === "required");
  return (value) => {
    if (value === undefined) return !required;
    if (!inner(value) || (oneOf && !oneOf.has(value))) return false;
    for (const test of tests) if (!test(value)) return false;
    return true;
  };
}

function ofType(field: SchemaFieldDescription): Check {
  switch (field.type) {
    case "string":
      return (value) => typeof value === "string" && value !== "";
    case "number":
      return (value) => typeof value === "number" && Number.isFinite(value);
    case "boolean":
      return (value) => typeof value === "boolean";
    case "array": {
      const { innerType } = field as { innerType?: SchemaFieldDescription };
      const each = innerType && !Array.isArray(innerType) ? quickCheck(innerType) : () => false;
      return (value) => Array.isArray(value) && value.every(each);
    }
    case "object": {
      const fields = Object.entries((field as SchemaObjectDescription).fields);
      const checks = fields.map(([name, inner]) => ({ name, check: quickCheck(inner) }));
      return (value) => {
        if (typeof value !== "object" || value === null || Array.isArray(value)) return false;
        let known = 0;
        for (const { name, check } of checks) {
          const own = (value as Record<string, unknown>)[name];
          if (own !== undefined) known++;
          if (!check(own)) return false;
        }
        // Equal counts mean no unknown fields; counting is cheaper than comparing names.
        for (const _ in value) known--;
        return known === 0;
      };
    }
    default:
      return () => false;
  }
}

function ofTest({ name, params }: Test): Check {
  const given = (params ?? {}) as { min?: unknown; max?: unknown; regex?: unknown };
  const size = (value: unknown) => (typeof value === "number" ? value : (value as { length: number }).length);
  if (name === "min" && typeof given.min === "number") {
    const { min } = given as { min: number };
    return (value) => size(value) >= min;
  }
  if (name === "max" && typeof given.max === "number") {
    const { max } = given as { max: number };
    return (value) => size(value) <= max;
  }
  if (name === "matches" && given.regex instanceof RegExp && !given.regex.global) {
    const { regex } = given as { regex: RegExp };
    return (value) => regex.test(value as string);
  }
  if (name === "plain") return (value) => isPlainText(value as string);
  if (name === "key") return (value) => isKey(value as string);
  if (name === "name") return (value) => isName(value as string);
  if (name === "moment") return (value) => isMoment(value as string);
  if (name === "integer") return Number.isInteger;
  return () => false;
}
