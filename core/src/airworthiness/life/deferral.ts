import type { LocalDate } from "../calendar/local-date";
import type { FlightKind } from "../due/due-item";

/** How somebody was asked. */
export const ASKED_BY = ["in person", "telephone", "message"] as const;
export type AskedBy = (typeof ASKED_BY)[number];

/** A discrepancy that was lawfully put off. */
export interface DiscrepancyDeferral {
  /** The rule set, and what its questions came to, in words: what a pilot shows who asks. */
  basis: string;
  rules: string;
  /** Which piece of equipment it is, where the list knows it: then another kind of flight is answered by it. */
  equipment?: string;
  /** For which kinds of flight it was decided; any other asks anew. */
  for: FlightKind[];
  /** The last day, where the rules set one. */
  until?: LocalDate;
  /** The meter's total at which it ends, where it was limited so. */
  reading?: { meter: string; at: number };
  placard?: string;
  deactivated?: string;
  operations?: string;
  /** In whose name: certificate and number where a mechanic signs. */
  certificate?: string;
}

/** A deferral as it stands on one day for one flight. */
export type DeferralStanding =
  | { state: "holds"; words: string }
  | { state: "ended"; words: string }
  | { state: "asked anew"; words: string };

/**
 * Whether a deferral holds for this flight: not after its day, not for a kind of flight that it was not decided for. `date` is the day of the flight's end, at the
 * aircraft's base; `totals` what its meters will have come to.
 */
export function deferralStanding(
  deferral: DiscrepancyDeferral,
  {
    date,
    kinds,
    totals = {},
  }: { date: LocalDate; kinds: readonly FlightKind[]; totals?: Readonly<Record<string, number>> },
): DeferralStanding {
  const { until, reading, for: decided, placard } = deferral;
  if (until !== undefined && date > until)
    return { state: "ended", words: `The deferral expired on ${until}.` };
  const total = reading && totals[reading.meter];
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

/** Kinds of flight by which equipment is required or not; who sits in it changes nothing, but hire does. */
const MATTERS: readonly FlightKind[] = ["day", "night", "instrument", "hire"];
