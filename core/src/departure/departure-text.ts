import type { LoadingProfile } from "../mass-and-balance/loading-profile";
import { formatNumber, formatQuantity } from "../units/format";
import type { Departure, DistanceCheck } from "./calculate-departure";
import type { Remedy } from "./remedies";

const m = (metres: number) => `${formatNumber(Math.ceil(metres))} m`;

/** Distance needed, available and to spare, in a sentence. */
export function distanceText(
  what: "Take-off" | "Landing",
  { declared, declaredNeededM, availableM, leftM, rollM, over50M, safety }: DistanceCheck,
): string {
  const verdict = leftM >= 0 ? `${formatNumber(Math.floor(leftM))} m to spare` : `${m(-leftM)} too short`;
  const run = declared === "take-off run";
  return `${what} ${leftM >= 0 ? "needs" : "would need"} ${m(declaredNeededM)}${run ? " of take-off run" : ""}, ${formatNumber(availableM)} m available: ${m(run ? rollM : over50M)} ${run ? "ground roll " : ""}from the handbook with corrections, times safety factor ${formatNumber(safety.by, 2)}. ${verdict}.`;
}

/** Abort point in spoken words. */
export function abortText({ abort }: Departure): string | undefined {
  if (!abort) return undefined;
  const where = abort.mark
    ? `${abort.mark.name}, ${formatNumber(abort.mark.atM)} m`
    : `${formatNumber(abort.atM)} m down the runway`;
  return `${formatNumber(Math.round(abort.speedKt))} kt by ${where}, or stop.`;
}

const hour = (at: string) => `${at.slice(11, 16)} UTC`;

/** A remedy as a sentence. */
export function remedyText(
  remedy: Remedy,
  stations: readonly LoadingProfile["stations"][number][] = [],
): string {
  switch (remedy.do) {
    case "other runway":
      return `Use runway ${remedy.runway.id}.`;
    case "cooler hour":
      return `Depart at ${hour(remedy.at)}: ${formatQuantity({ value: Math.round(remedy.celsius), unit: "°C" })} forecast.`;
    case "less fuel":
      return `Take ${formatNumber(Math.ceil(remedy.litres))} L less fuel.`;
    case "leave behind":
      return `Leave ${formatNumber(Math.ceil(remedy.kg))} kg behind: ${stations.find(({ id }) => id === remedy.station)?.name ?? remedy.station}.`;
  }
}
