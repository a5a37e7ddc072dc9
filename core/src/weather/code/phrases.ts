/** What belongs together although it is written as several groups: "1 1/2SM", "WS ALL RWY", "PROB30 TEMPO". */
const JOINED: readonly RegExp[] = [
  /^\d \d\/\d{1,2}SM$/,
  /^WS (?:ALL RWY|R(?:WY)?\d\d[LCR]?)$/,
  /^PROB\d\d (?:TEMPO|INTER)$/,
  /^AMD NOT SKED$/,
];
const LONGEST = 3;
/** Groups that may begin such a phrase: most do not, and need no search. */
const MAY_BEGIN = /^(?:\d|WS|PROB\d\d|AMD)$/;

/** Joins groups that belong together; the others stay alone, and their order is kept. Complexity: O(groups). */
export function phrasesOf(groups: readonly string[]): string[] {
  const phrases: string[] = [];
  for (let i = 0; i < groups.length; ) {
    let take = 1;
    const longest = MAY_BEGIN.test(groups[i] as string) ? LONGEST : 1;
    for (let length = longest; length > 1; length--) {
      if (i + length > groups.length) continue;
      const phrase = groups.slice(i, i + length).join(" ");
      if (JOINED.some((shape) => shape.test(phrase))) {
        take = length;
        break;
      }
    }
    phrases.push(groups.slice(i, i + take).join(" "));
    i += take;
  }
  return phrases;
}
