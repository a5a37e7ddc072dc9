import type { Binding } from "./fill-template";
import type { ParameterValue, PartParameter, PartSheet } from "./part-sheet";
import type { CompositionFault, PartUse } from "./type-composition";

/**
 * Values of all parameters of one part: one binding, or one for each value of its lists. A parameter without a value
 * is only a fault where an item needs it. Faults: a parameter that the sheet does not have, a value it cannot have, lists of
 * different lengths.
 */
export function bindParameters(
  { parameters = {}, id }: PartSheet,
  { with: given = {} }: PartUse,
  path: string,
): { bindings: Binding[]; faults: CompositionFault[] } {
  const faults: CompositionFault[] = [];
  const lists: string[] = [];
  const fixed: Record<string, ParameterValue> = {};
  for (const name of Object.keys(given))
    if (!Object.hasOwn(parameters, name))
      faults.push({ path: `${path}.with.${name}`, expected: `a parameter of the part "${id}"` });
  for (const [name, parameter] of Object.entries(parameters)) {
    const at = `${path}.with.${name}`;
    const value = given[name] ?? parameter.usual;
    if (value === undefined) continue;
    if (Array.isArray(value)) {
      lists.push(name);
      value.forEach((one, i) => {
        faults.push(...valueFaults(one, parameter, `${at}[${i}]`));
      });
    } else {
      fixed[name] = value;
      faults.push(...valueFaults(value, parameter, at));
    }
  }
  const several = (name: string) => given[name] as ParameterValue[];
  const [first] = lists;
  const length = first === undefined ? 1 : several(first).length;
  for (const name of lists)
    if (several(name).length !== length)
      faults.push({ path: `${path}.with.${name}`, expected: `as many values as ${first}: ${length}` });
  if (faults.length > 0) return { bindings: [], faults };
  const bindings = Array.from({ length }, (_, i) => ({
    ...fixed,
    ...Object.fromEntries(lists.map((name) => [name, several(name)[i] as ParameterValue])),
  }));
  return { bindings, faults };
}

function valueFaults(value: ParameterValue, parameter: PartParameter, path: string): CompositionFault[] {
  const expected = expectedValue(value, parameter);
  return expected ? [{ path, expected }] : [];
}

/** What a parameter expects, if the value is not that. */
function expectedValue(value: ParameterValue, { of, number, words }: PartParameter): string | undefined {
  if (of) return of.includes(value as string) ? undefined : `one of ${of.join(", ")}`;
  if (number) {
    const { least, most } = number;
    const fits = Number.isInteger(value) && (value as number) >= least && (value as number) <= most;
    return fits ? undefined : `a whole number from ${least} to ${most}`;
  }
  if (words !== undefined)
    return typeof value === "string" && value !== "" && value.length <= words
      ? undefined
      : `words, at most ${words} characters`;
  return undefined;
}
