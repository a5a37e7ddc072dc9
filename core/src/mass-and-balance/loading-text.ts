import { formatNumber } from "../units/format";
import type { LoadFault } from "./check-load";
import type { LoadChange } from "./load-adjustments";
import type { LoadingProfile } from "./loading-profile";

const kg = (value: number) => `${formatNumber(value, value < 10 ? 1 : 0)} kg`;
const mm = (value: number) => `${formatNumber(value, value < 10 ? 1 : 0)} mm`;

/** A loading fault in words. */
export function faultText({ kind, of, kg: over = 0, mm: by = 0, limit }: LoadFault): string {
  const most = limit === undefined ? "" : ` over ${formatNumber(limit)} kg`;
  switch (kind) {
    case "too heavy":
      return of === "zero fuel"
        ? `${kg(over)}${most} at zero fuel.`
        : `${kg(over)}${most} at ${of === "start" ? "engine start" : of}.`;
    case "place too heavy":
      return `${kg(over)}${most} in ${of}.`;
    case "seat too light":
      return `${kg(over)} too light on ${of}: at least ${formatNumber(limit ?? 0)} kg is required, ballast included.`;
    case "forward":
      return `Forward of the limit by ${mm(by)}, ${timeText(of)}.`;
    case "aft":
      return `Aft of the limit by ${mm(by)}, ${timeText(of)}.`;
    case "beyond":
      return "Below the minimum mass of the envelope. Add load or ask the maintenance organisation.";
  }
}

const timeText = (of: string) =>
  of === "take-off" || of === "landing"
    ? `at ${of}`
    : of === "zero fuel"
      ? "at zero fuel"
      : of === "after the landing"
        ? "with less fuel than at landing"
        : "during the flight";

/** A change in words. */
export function changeText(change: LoadChange, { stations }: Pick<LoadingProfile, "stations">): string {
  const station = (id: string) => stations.find((one) => one.id === id);
  const name = (id: string) => station(id)?.name ?? id;
  const amount = `${formatNumber(change.kg, Number.isInteger(change.kg) ? 0 : 1)} kg`;
  switch (change.do) {
    case "take out":
      // A person stays or leaves as a whole.
      if (station(change.from)?.kind === "seat")
        return change.all
          ? `Leave ${name(change.from)} empty (${amount}).`
          : `${amount} less on ${name(change.from)}: seat a lighter person there.`;
      return `Remove ${amount} from ${name(change.from)}.`;
    case "move":
      return `Move ${amount} from ${name(change.from)} to ${name(change.to)}.`;
    case "put in ballast":
      return `Add ${amount} of ballast at ${name(change.to)}.`;
    case "less fuel":
      return `Take ${formatNumber(change.litres, Number.isInteger(change.litres) ? 0 : 1)} L less fuel (${amount}).`;
  }
}

/** One or several changes in words. */
export const changesText = (
  changes: readonly LoadChange[],
  profile: Pick<LoadingProfile, "stations">,
): string => changes.map((change) => changeText(change, profile)).join(" Also: ");
