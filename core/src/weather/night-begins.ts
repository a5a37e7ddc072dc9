/** When night begins, by the rule set. */
export const NIGHT_BEGINS = ["sunset", "30 min after sunset", "civil twilight"] as const;
export type NightBegins = (typeof NIGHT_BEGINS)[number];

/** "end of civil twilight". */
export const nightBeginsText = (begins: NightBegins): string =>
  begins === "civil twilight" ? "end of civil twilight" : begins;
