import type { AircraftBundle, CrewMember } from "@cravix/contract/client";
import { MAX_PHOTOGRAPHS, type Photograph } from "@cravix/core/airworthiness/life/photograph";
import { openAfterEvents } from "@cravix/core/checklist/list/open-after-events";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { eventsBeyond } from "../../device/log/event-log";
import type { KnownBundle } from "../state/server-api";

/** Tolerance between request and response times, ms. */
const SLACK_MS = 60_000;

/** Events on this device that the server's data of this aircraft, or of the group, may not include. */
export function unsyncedEvents({ saidAt }: Pick<KnownBundle, "saidAt">): Promise<PreflightEvent[]> {
  return eventsBeyond((saidAt ?? 0) - SLACK_MS);
}

/** Open discrepancies of this aircraft as known here: from the server plus unsent ones. */
export function localOpenDiscrepancies(
  {
    aircraft: { registration },
    openDiscrepancies,
  }: Pick<AircraftBundle, "openDiscrepancies"> & { aircraft: { registration: string } },
  events: readonly PreflightEvent[],
  crew: readonly CrewMember[],
): OpenDiscrepancy[] {
  return openAfterEvents(openDiscrepancies, events, {
    registration,
    nameOf: (crewId) => crew.find((member) => member.id === crewId)?.name ?? crewId,
  });
}

/** Photos taken on this device, by discrepancy. */
export function localPhotographs(events: readonly PreflightEvent[]): Map<string, Photograph[]> {
  const taken = new Map<string, Photograph[]>();
  for (const event of events) {
    if (event.type !== "discrepancy.photographed") continue;
    const { discrepancyId, ...photograph } = event.data;
    taken.set(discrepancyId, [...(taken.get(discrepancyId) ?? []), photograph]);
  }
  return taken;
}

/** Combines the server's photos with local ones, without duplicates, up to the maximum. */
export function withPhotographs(
  known: Photograph[] | undefined,
  here: readonly Photograph[] = [],
): Photograph[] | undefined {
  const more = here.filter(({ photograph }) => !known?.some((one) => one.photograph === photograph));
  return more.length === 0 ? known : [...(known ?? []), ...more].slice(0, MAX_PHOTOGRAPHS);
}
