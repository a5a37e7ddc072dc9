import type { Verdict } from "@cravix/core/judgement/judgement";
import type { LastFluids } from "@cravix/core/logs/last-fluids";
import { formatNumber } from "@cravix/core/units/format";
import { formatDistanceToNowStrict } from "date-fns/formatDistanceToNowStrict";

/** Status labels of an aircraft before a preflight: never a promise. */
export const STANDING: Record<Verdict, string> = {
  go: "No known problems",
  "go with notes": "With notes",
  "ask first": "Ask first",
  stop: "Stop",
};

export const ago = (at: string): string => `${formatDistanceToNowStrict(new Date(at))} ago`;

/** "118 L", with any reservation. */
export function fuelUnits({ fuel }: LastFluids): string | undefined {
  if (!fuel) return undefined;
  const more = [
    fuel.measured < fuel.tanks && `${fuel.measured} of ${fuel.tanks} tanks`,
    fuel.putInL !== undefined && `${formatNumber(fuel.putInL)} L added since`,
  ].filter(Boolean);
  return [`${formatNumber(fuel.litres)} L`, ...more].join(", ");
}

/** "6.5 qt", for a twin each side. */
export function oilText({ oil }: LastFluids): string | undefined {
  if (oil.length === 0) return undefined;
  return oil
    .map(
      ({ engine, qt, putInQt }) =>
        `${engine ? `${engine} ` : ""}${formatNumber(qt, 1)} qt${putInQt === undefined ? "" : `, ${formatNumber(putInQt, 1)} added since`}`,
    )
    .join(" · ");
}
