import type { ParameterValue } from "./part-sheet";

export type Binding = Readonly<Record<string, ParameterValue>>;

const IN_WORDS = "zero one two three four five six seven eight nine ten eleven twelve".split(" ");

/** Fields whose text identifies something: "left aileron" is written "left-aileron" there. */
const ID_FIELDS = new Set([
  ...["id", "station", "key", "fact", "due", "on", "off", "spot", "card", "follows", "first", "items"],
]);

const PARAMETER = /\{(\w+)\}/g;

/**
 * Fills in the parameters of a value, in depth. "{side}" becomes the value of `side`, "{Side}" the same with a capital; a text
 * that is a parameter and nothing else becomes the value itself, so that it can be a number. In sentences, numbers up to twelve
 * are words. A name that the binding does not have stays as it is.
 */
export function fillTemplate<T>(value: T, binding: Binding, field = ""): T {
  if (typeof value === "string") return fillText(value, binding, ID_FIELDS.has(field)) as T;
  if (Array.isArray(value)) return value.map((one) => fillTemplate(one, binding, field)) as T;
  if (typeof value !== "object" || value === null) return value;
  return Object.fromEntries(
    Object.entries(value).map(([name, one]) => [name, fillTemplate(one, binding, name)]),
  ) as T;
}

/** A text as an id: "{side}-aileron" with the side "left" is "left-aileron". */
export function fillId(text: string, binding: Binding): string {
  return String(fillText(text, binding, true));
}

function fillText(text: string, binding: Binding, isId: boolean): ParameterValue {
  const whole = /^\{(\w+)\}$/.exec(text)?.[1];
  const value = whole === undefined ? undefined : parameterValue(binding, whole);
  if (value !== undefined && typeof value !== "string") return value;
  return text.replace(PARAMETER, (found, name: string) => {
    const own = parameterValue(binding, name) ?? parameterValue(binding, uncapitalised(name));
    if (own === undefined) return found;
    if (isId) return String(own).replaceAll(" ", "-");
    const words = inWords(own);
    return Object.hasOwn(binding, name) ? words : capitalised(words);
  });
}

/** A parameter's value; a name that every object has, such as "constructor", is none. */
const parameterValue = (binding: Binding, name: string) =>
  Object.hasOwn(binding, name) ? binding[name] : undefined;

function inWords(value: ParameterValue): string {
  if (typeof value !== "number") return String(value);
  return IN_WORDS[value] ?? value.toLocaleString("en-GB");
}

const capitalised = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
const uncapitalised = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

/** Names of the parameters that a value mentions, in depth. */
export function parametersIn(value: unknown): Set<string> {
  const found = new Set<string>();
  for (const [, name = ""] of JSON.stringify(value ?? null).matchAll(PARAMETER))
    found.add(uncapitalised(name));
  return found;
}
