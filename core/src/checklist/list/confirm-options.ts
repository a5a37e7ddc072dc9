import { hashString } from "./hash-string";

/**
 * Options for a confirm item: the value on file among `decoys` similar values, in an order that differs between preflights. Only
 * a person who reads the plate can choose. `seed` names the preflight and item, so that the options are stable within a
 * preflight. Decoys differ in digits only; a value without digits is offered alone.
 */
export function confirmOptions(fact: string, seed: string, decoys = 3): string[] {
  const options = new Set([fact]);
  for (let turn = 0; options.size <= decoys && turn < 60; turn++)
    options.add(alter(fact, hashString(`${seed}:${turn}`)));
  return [...options].sort((a, b) => hashString(`${seed}|${a}`) - hashString(`${seed}|${b}`));
}

/** Another value of the same form. Months stay valid: the first digit of "06/2028" changes within 01 to 12. */
function alter(fact: string, chance: number): string {
  const date = /^(\d{2})\/(\d{4})$/.exec(fact);
  if (date) {
    const month = ((Number(date[1]) - 1 + 1 + (chance % 11)) % 12) + 1;
    const year = Number(date[2]) + ((chance >>> 8) % 3) - 1;
    return `${String(month).padStart(2, "0")}/${year}`;
  }
  const places = [...fact].flatMap((c, i) => (/\d/.test(c) ? [i] : []));
  const at = places[chance % Math.max(1, places.length)];
  if (at === undefined) return fact;
  const digit = (Number(fact[at]) + 1 + ((chance >>> 8) % 9)) % 10;
  return `${fact.slice(0, at)}${digit}${fact.slice(at + 1)}`;
}
