import type { DeferralOutcome, DeferralReply } from "@cravix/core/airworthiness/deferral/may-be-deferred";
import type { FlightKind } from "@cravix/core/airworthiness/due/due-item";
import type { DiscrepancyDeferral } from "@cravix/core/airworthiness/life/deferral";

export const TOLD_WORDS: Record<DeferralReply, string> = { yes: "Yes", no: "No", unknown: "I don't know" };

/** The deferral as recorded: with the questions and answers in words. */
export function deferralOf(
  { why, trail, equipment, until, placard, deactivate, operations }: DeferralOutcome,
  told: { rules: string; flight: FlightKind[]; broken?: number; until?: string },
): DiscrepancyDeferral {
  const answers = trail.map(
    ({ ask, answer, because }) => `${ask} ${TOLD_WORDS[answer]}.${because ? ` ${because}` : ""}`,
  );
  // A person may set an earlier day than the rules.
  const last = [until, told.until].filter((day) => day !== undefined).sort()[0];
  return {
    basis: [why, ...answers].join(" ").slice(0, 2000),
    rules: told.rules,
    for: told.flight,
    ...(told.broken !== undefined && { broken: told.broken }),
    ...(equipment && { equipment: equipment.id }),
    ...(last && { until: last }),
    ...(placard && { placard }),
    ...(deactivate && { deactivated: deactivate }),
    ...(operations && { operations }),
  };
}
