import { parametersIn } from "@cravix/core/parts/fill-template";
import type { PartItem, PartParameter, PartSheet } from "@cravix/core/parts/part-sheet";
import type { FileFault } from "./validate-file";

/** What a part sheet contradicts in itself: it names a parameter, an option or a limit that it does not have. */
export function partFaults(sheet: PartSheet): FileFault[] {
  const { parameters = {}, items, rules = [], place } = sheet;
  const undeclared = (value: unknown, path: string): FileFault[] =>
    [...parametersIn(value)]
      .filter((name) => !Object.hasOwn(parameters, name))
      .map((name) => ({ path, expected: `only parameters of this sheet; {${name}} is not among them` }));
  const ids = new Map<string, number>();
  items.forEach(({ id }, i) => {
    if (!ids.has(id)) ids.set(id, i);
  });
  return [
    ...Object.entries(parameters).flatMap(([name, parameter]) => parameterFaults(name, parameter)),
    ...undeclared(place, "place"),
    ...items.flatMap((item, i) => [
      ...undeclared(item, `items[${i}]`),
      ...(ids.get(item.id) === i
        ? []
        : [{ path: `items[${i}].id`, expected: `a unique id; ${item.id} is used twice` }]),
      ...slotFaults(sheet, item, `items[${i}]`),
    ]),
    ...rules.flatMap((rule, i) => undeclared(rule, `rules[${i}]`)),
  ];
}

function slotFaults({ options = {}, limits = {} }: PartSheet, item: PartItem, path: string): FileFault[] {
  const { if: option, limitFrom } = item;
  return [
    ...(option !== undefined && !Object.hasOwn(options, option)
      ? [{ path: `${path}.if`, expected: `an option of this sheet; ${option} is not among them` }]
      : []),
    ...(limitFrom !== undefined && !Object.hasOwn(limits, limitFrom)
      ? [{ path: `${path}.limitFrom`, expected: `a limit of this sheet; ${limitFrom} is not among them` }]
      : []),
    ...(limitFrom !== undefined && item.limit
      ? [{ path: `${path}.limit`, expected: 'either "limit" or "limitFrom"' }]
      : []),
  ];
}

function parameterFaults(name: string, { of, number, words }: PartParameter): FileFault[] {
  const path = `parameters.${name}`;
  if ([of, number, words].filter((kind) => kind !== undefined).length !== 1)
    return [{ path, expected: 'one of "of", "number" and "words"' }];
  return number && number.least > number.most
    ? [{ path: `${path}.number`, expected: '"least" not greater than "most"' }]
    : [];
}
