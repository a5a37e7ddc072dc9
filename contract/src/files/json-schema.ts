import type { AnySchema, SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from "yup";

/** Part of a JSON Schema (draft 2020-12). */
export type JsonSchema = { [keyword: string]: unknown };

/** Additions a Yup schema cannot express, from `meta({ jsonSchema })`. */
interface Meta {
  jsonSchema?: JsonSchema;
}

/**
 * JSON Schema of a file format, derived from the Yup schema that validates it, so that they cannot diverge. Rules a schema cannot
 * express (ids that must exist elsewhere in the file) are checked only on reading.
 */
export function jsonSchema(schema: AnySchema, id: string, title: string): JsonSchema {
  return {
    $schema: "https://json-schema.org/draft/2020-12/schema",
    $id: `urn:cravix:${id}`,
    title,
    ...of(schema.describe()),
  };
}

/** JSON Schema of a part of a file, for schemas that a Yup schema cannot describe by itself. */
export const jsonSchemaPart = (schema: AnySchema): JsonSchema => of(schema.describe());

function of(field: SchemaFieldDescription): JsonSchema {
  const description = field as SchemaDescription;
  const { meta, tests = [], oneOf = [] } = description as SchemaDescription & { meta?: Meta };
  const bound = (name: string) => tests.find((test) => test.name === name)?.params as Record<string, unknown>;
  const out: JsonSchema = {};
  if (oneOf.length > 0) out.enum = oneOf;
  switch (field.type) {
    case "string": {
      out.type = "string";
      const least = bound("min")?.min ?? (isRequired(field) ? 1 : undefined);
      if (least !== undefined) out.minLength = least;
      if (bound("max")) out.maxLength = bound("max").max;
      const { regex } = (bound("matches") ?? {}) as { regex?: RegExp };
      if (regex) out.pattern = regex.source;
      break;
    }
    case "number":
      out.type = tests.some((test) => test.name === "integer") ? "integer" : "number";
      if (bound("min")) out.minimum = bound("min").min;
      if (bound("max")) out.maximum = bound("max").max;
      break;
    case "boolean":
      out.type = "boolean";
      break;
    case "array": {
      out.type = "array";
      const { innerType } = field as { innerType?: SchemaFieldDescription };
      if (innerType && !Array.isArray(innerType)) out.items = of(innerType);
      if (bound("min")) out.minItems = bound("min").min;
      if (bound("max")) out.maxItems = bound("max").max;
      if (bound("length"))
        Object.assign(out, { minItems: bound("length").length, maxItems: bound("length").length });
      break;
    }
    case "object": {
      const { fields } = field as SchemaObjectDescription;
      const required = Object.entries(fields)
        .filter(([, inner]) => isRequired(inner))
        .map(([name]) => name);
      out.type = "object";
      out.properties = Object.fromEntries(Object.entries(fields).map(([name, inner]) => [name, of(inner)]));
      if (required.length > 0) out.required = required;
      if (tests.some((test) => test.name === "noUnknown")) out.additionalProperties = false;
      break;
    }
    default:
      break;
  }
  return { ...out, ...meta?.jsonSchema };
}

function isRequired(field: SchemaFieldDescription): boolean {
  const { optional, nullable } = field as SchemaDescription;
  return optional === false && nullable === false;
}
