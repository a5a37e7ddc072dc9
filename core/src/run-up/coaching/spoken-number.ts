const DIGITS: Record<string, number> = {
  zero: 0,
  oh: 0,
  o: 0,
  one: 1,
  two: 2,
  to: 2,
  too: 2,
  three: 3,
  tree: 3,
  four: 4,
  for: 4,
  fower: 4,
  five: 5,
  fife: 5,
  six: 6,
  seven: 7,
  eight: 8,
  ate: 8,
  nine: 9,
  niner: 9,
};
const TEENS: Record<string, number> = {
  ten: 10,
  eleven: 11,
  twelve: 12,
  thirteen: 13,
  fourteen: 14,
  fifteen: 15,
  sixteen: 16,
  seventeen: 17,
  eighteen: 18,
  nineteen: 19,
};
const TENS: Record<string, number> = {
  twenty: 20,
  thirty: 30,
  forty: 40,
  fifty: 50,
  sixty: 60,
  seventy: 70,
  eighty: 80,
  ninety: 90,
};

/**
 * Parses a number as spoken in a cockpit: digit by digit ("one seven four zero"), in pairs ("seventeen forty"), in full ("one
 * thousand seven hundred and forty"), with "decimal" or "point", or in figures. Undefined if ambiguous.
 * Source: spelling of digits, ICAO Annex 10 volume II (from memory); pairs and full numbers are common practice.
 * @example spokenNumber("one seven tree zero") // 1730
 */
export function spokenNumber(text: string): number | undefined {
  const words = text
    .toLowerCase()
    .replace(/(\d),(\d{3})/g, "$1$2")
    .replace(/[^a-z0-9. ]+/g, " ")
    .split(/\s+/)
    .filter((word) => word !== "" && word !== "and" && word !== "rpm" && word !== "about");
  if (words.length === 0) return undefined;
  const dot = words.findIndex((word) => word === "decimal" || word === "point");
  if (dot >= 0) {
    const whole = dot === 0 ? 0 : spokenNumber(words.slice(0, dot).join(" "));
    const digits = words
      .slice(dot + 1)
      .map((word) => DIGITS[word] ?? (/^\d$/.test(word) ? Number(word) : undefined));
    if (whole === undefined || digits.length === 0 || digits.includes(undefined)) return undefined;
    return Number(`${whole}.${digits.join("")}`);
  }
  if (words.length === 1 && /^\d+(\.\d+)?$/.test(words[0] as string)) return Number(words[0]);
  if (words.some((word) => word === "thousand" || word === "hundred")) return inFull(words);
  const parts: string[] = [];
  for (let i = 0; i < words.length; i++) {
    const word = words[i] as string;
    const tens = TENS[word];
    const next = DIGITS[words[i + 1] ?? ""];
    if (DIGITS[word] !== undefined) parts.push(String(DIGITS[word]));
    else if (TEENS[word] !== undefined) parts.push(String(TEENS[word]));
    else if (tens !== undefined && next !== undefined && next > 0) {
      parts.push(String(tens + next));
      i++;
    } else if (tens !== undefined) parts.push(String(tens));
    else if (/^\d+$/.test(word)) parts.push(word);
    else return undefined;
  }
  return Number(parts.join(""));
}

function inFull(words: readonly string[]): number | undefined {
  let total = 0;
  let part = 0;
  for (const word of words) {
    const small =
      DIGITS[word] ?? TEENS[word] ?? TENS[word] ?? (/^\d+$/.test(word) ? Number(word) : undefined);
    if (small !== undefined) part += small;
    else if (word === "hundred") part = (part || 1) * 100;
    else if (word === "thousand") {
      total += (part || 1) * 1000;
      part = 0;
    } else return undefined;
  }
  return total + part;
}

/** Reads back an rpm value digit by digit, as on the radio. */
export function readBack(value: number): string {
  const names = ["zero", "one", "two", "three", "four", "five", "six", "seven", "eight", "niner"];
  return [...String(Math.round(value))].map((digit) => names[Number(digit)] ?? digit).join(" ");
}
