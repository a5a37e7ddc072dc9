import type { LocalDate } from "../calendar/local-date";
import { AIRSPACE_KINDS, type FlightKind } from "../due/due-item";

/** How advice was obtained. */
export const ASKED_BY = ["in person", "telephone", "message"] as const;
export type AskedBy = (typeof ASKED_BY)[number];

/** A discrepancy deferred under the rules. */
export interface DiscrepancyDeferral {
  /** Rule set and the answers to its questions, in words: what a pilot can show an inspector. */
  basis: string;
  rules: string;
  /** Number of units that do not work, if several are fitted. */
  broken?: number;
  /** Equipment id if the equipment list has it: then the deferral can be checked for another kind of flight. */
  equipment?: string;
  /** Kinds of flight it covers; any other must be decided again. */
  for: FlightKind[];
  /** Last valid day, if the rules set one. */
  until?: LocalDate;
  /** Meter total at which it ends, if limited by usage. */
  reading?: { meter: string; at: number };
  placard?: string;
  deactivated?: string;
  operations?: string;
  /** Certificate kind and number if a mechanic signed. */
  certificate?: string;
}

/** Status of a deferral for one flight on one day. */
export type DeferralStatus =
  | { state: "holds"; words: string }
  | { state: "ended"; words: string }
  | { state: "asked anew"; words: string };

/**
 * Status of a deferral for a flight: it ends after its last day and does not cover other kinds of flight. `date` is the day the
 * flight ends, at the aircraft's base; `totals` are the expected meter totals; `rules` is the rule set in force.
 */
export function deferralStatus(
  deferral: DiscrepancyDeferral,
  {
    date,
    kinds,
    totals = {},
    rules,
  }: {
    date: LocalDate;
    kinds: readonly FlightKind[];
    totals?: Readonly<Record<string, number>>;
    rules?: string;
  },
): DeferralStatus {
  const { until, reading, for: decided, placard } = deferral;
  if (rules !== undefined && deferral.rules !== rules)
    return {
      state: "asked anew",
      words: "It was deferred under another rule set. Go through the deferral questions again.",
    };
  if (until !== undefined && date > until)
    return { state: "ended", words: `The deferral expired on ${until}.` };
  const total = reading && totals[reading.meter];
  if (reading && total === undefined)
    return {
      state: "asked anew",
      words: `The deferral ends at ${reading.at} on a meter whose reading is not known. Ask a mechanic.`,
    };
  if (reading && total !== undefined && total > reading.at)
    return { state: "ended", words: `The deferral expired at ${reading.at} h.` };
  const other = kinds.filter((kind) => !decided.includes(kind) && MATTERS.includes(kind));
  if (other.length > 0)
    return {
      state: "asked anew",
      words: `Deferred for ${decided.join(" and ")} flights only. For ${other.join(" and ")}, go through the deferral questions again.`,
    };
  return {
    state: "holds",
    words: `Deferred${until ? ` until ${until}` : ""}${placard ? `, placard ${placard}` : ""}.`,
  };
}

/** Kinds of flight that change which equipment is required; passengers do not, hire does. */
const MATTERS: readonly FlightKind[] = ["day", "night", "instrument", "hire", ...AIRSPACE_KINDS];
