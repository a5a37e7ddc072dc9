import { DUE_LIMIT_FIELDS, PERSON_LIMIT_FIELDS } from "@cravix/contract/files";
import type { SchemaDescription, SchemaFieldDescription, SchemaObjectDescription } from "yup";
import type { Random } from "./make-walks";

/** Names that values refer to, by field: existing ones, and some that do not exist or are of another kind. */
export type Names = Readonly<Record<string, readonly string[]>>;

export interface Generator {
  random: Random;
  names: Names;
  now: number;
}

const DAY_MS = 86_400_000;
const pickOf = <T>(random: Random, all: readonly T[]): T => all[Math.floor(random() * all.length)] as T;
const isoOf = (ms: number) => new Date(ms).toISOString();

/** Strange texts that every reader must survive. */
const TEXTS = ["x", "=1+1\n=2", "…", "\u{1f6e9}\u{1f6e9}", "Ünïcode", "a".repeat(400), "-", "0"];
const METERS = ["hours", "landings", "cycles", "bananas", "tach", "x"];

/**
 * A value that a schema accepts, from its description: bounds, missing optional fields, references to anything. Undefined if an
 * optional field is left out. `field` is its name.
 */
export function valueFor(given: SchemaFieldDescription, field: string, by: Generator): unknown {
  const schema = given as SchemaDescription;
  const { random } = by;
  const required = !schema.optional || schema.tests.some(({ name }) => name === "required");
  if (!required && random() < 0.5) return undefined;
  if (schema.oneOf.length > 0) return pickOf(random, schema.oneOf as unknown[]);
  switch (schema.type) {
    case "string":
      return textFor(schema, field, by);
    case "number":
      return numberFor(schema, random);
    case "boolean":
      return random() < 0.5;
    case "array":
      return arrayFor(given, field, by);
    case "object":
      return objectFor(given as SchemaObjectDescription, by);
    default:
      return undefined;
  }
}

const bound = (schema: SchemaDescription, name: string): number | undefined => {
  const { params } = schema.tests.find((test) => test.name === name) ?? {};
  const value = (params as Record<string, unknown> | undefined)?.[name === "length" ? "length" : name];
  return typeof value === "number" ? value : undefined;
};

function textFor(schema: SchemaDescription, field: string, by: Generator): string {
  const { random, names, now } = by;
  const tests = new Set(schema.tests.map(({ name }) => name));
  if (tests.has("day")) return dayFor(random, now);
  if (tests.has("moment")) return momentFor(random, now);
  if (tests.has("matches")) return matchFor(schema, field, by);
  const known = names[field];
  const text = known && random() < 0.9 ? pickOf(random, known) : pickOf(random, TEXTS);
  return tests.has("key") || tests.has("name")
    ? text.replace(/\n/g, " ").slice(0, bound(schema, "max") ?? 120)
    : text.slice(0, bound(schema, "max") ?? 400);
}

function matchFor(schema: SchemaDescription, field: string, { random, names }: Generator): string {
  const { regex } = (schema.tests.find(({ name }) => name === "matches")?.params ?? {}) as { regex?: RegExp };
  const words = String(regex);
  const known = names[field] ?? names.id ?? [];
  if (words.includes("sha256")) return pickOf(random, names.hash ?? [`sha256:${"0".repeat(64)}`]);
  if (words.includes("7[0-9a-f]{3}")) return pickOf(random, known);
  return pickOf(random, names.station ?? ["QXMP"]);
}

function dayFor(random: Random, now: number): string {
  const near = isoOf(now + Math.floor((random() - 0.7) * 900) * DAY_MS).slice(0, 10);
  return random() < 0.6
    ? near
    : pickOf(random, ["1900-01-01", "2199-12-31", "2024-02-29", "2100-02-28", near]);
}

function momentFor(random: Random, now: number): string {
  const near = isoOf(now - Math.floor(random() * 400 * DAY_MS));
  return random() < 0.7
    ? near
    : pickOf(random, ["2000-01-01T00:00:00.000Z", "2206-05-01T10:00:00.000Z", "9999-12-31T23:59:59.999Z"]);
}

function numberFor(schema: SchemaDescription, random: Random): number {
  const [min, max] = [bound(schema, "min") ?? -1000, bound(schema, "max") ?? 1000];
  const value = random() < 0.3 ? pickOf(random, [min, max]) : min + random() * Math.min(max - min, 5000);
  return schema.tests.some(({ name }) => name === "integer")
    ? Math.round(value)
    : Math.round(value * 100) / 100;
}

function arrayFor(given: SchemaFieldDescription, field: string, by: Generator): unknown[] {
  const { innerType } = given as { innerType?: SchemaFieldDescription };
  const schema = given as SchemaDescription;
  const length = bound(schema, "length");
  const [min, max] = [bound(schema, "min") ?? 0, bound(schema, "max") ?? 20];
  const size = length ?? Math.min(max, min + Math.floor(by.random() ** 3 * 6));
  if (!innerType) return [];
  return Array.from({ length: size }, () => valueFor(innerType, field, by));
}

/** The fields of an object: always there, unlike an optional value. */
export function objectFor(schema: SchemaObjectDescription, by: Generator): Record<string, unknown> {
  const { random, names } = by;
  const tests = schema.tests.map(({ name }) => name);
  const meters = names.meter ?? METERS;
  if (tests.includes("totals"))
    return Object.fromEntries(some(random, meters).map((meter) => [meter, totalFor(random)]));
  if (tests.includes("meters"))
    return Object.fromEntries(
      some(random, meters).map((meter) => {
        const out = totalFor(random);
        return [
          meter,
          { out, in: random() < 0.8 ? Math.round((out + random() * 3) * 10) / 10 : totalFor(random) },
        ];
      }),
    );
  const fields = Object.entries(schema.fields);
  if (!tests.includes("fits")) return filled(fields, by);
  const kinds = schema.fields.times ? PERSON_LIMIT_FIELDS : DUE_LIMIT_FIELDS;
  const kind = pickOf(random, Object.keys(kinds));
  const { must = [], may = [] } = kinds[kind] ?? {};
  const made = filled(
    fields.filter(([name]) => must.includes(name) || (may.includes(name) && random() < 0.4)),
    by,
  );
  for (const name of must) made[name] ??= forced(schema.fields[name], name, by);
  return { by: kind, ...made };
}

/** A value for a field that may not be left out here. */
function forced(field: SchemaFieldDescription | undefined, name: string, by: Generator): unknown {
  for (let i = 0; field && i < 40; i++) {
    const value = valueFor(field, name, by);
    if (value !== undefined) return value;
  }
  return undefined;
}

function filled(fields: readonly [string, SchemaFieldDescription][], by: Generator): Record<string, unknown> {
  const made: Record<string, unknown> = {};
  for (const [name, field] of fields) {
    const value = valueFor(field, name, by);
    if (value !== undefined) made[name] = value;
  }
  return made;
}

const some = (random: Random, all: readonly string[]) => all.filter(() => random() < 0.5);

/** Totals around those of the demo aircraft, and at the bounds. */
function totalFor(random: Random): number {
  const usual = pickOf(random, [4230.1, 4320.1, 3121.2, 812.4, 10_175, 0, 1_000_000]);
  return Math.max(0, Math.min(1_000_000, Math.round((usual + (random() - 0.5) * 4) * 10) / 10));
}
