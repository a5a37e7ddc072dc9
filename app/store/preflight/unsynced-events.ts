import type { AircraftBundle, CrewMember } from "@cravix/contract/client";
import { MAX_PHOTOGRAPHS, type Photograph } from "@cravix/core/airworthiness/life/photograph";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/compose-list";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import { foldDiscrepancies } from "@cravix/core/checklist/stream/fold-discrepancies";
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
  const name = (crewId: string) => crew.find((member) => member.id === crewId)?.name ?? crewId;
  const here = foldDiscrepancies(events).filter((d) => d.registration === registration);
  const byServer = openDiscrepancies.filter((known) => !here.some((d) => d.id === known.id));
  const closedHere = new Set(
    events.flatMap((e) =>
      e.type === "discrepancy.closed" || e.type === "discrepancy.merged" ? [e.data.discrepancyId] : [],
    ),
  );
  const deferredHere = new Map(
    events.flatMap((e) => {
      if (e.type !== "discrepancy.deferred") return [];
      const { discrepancyId, ...deferral } = e.data;
      return [[discrepancyId, deferral] as const];
    }),
  );
  const gradedHere = new Map(
    events.flatMap((e) =>
      e.type === "discrepancy.regraded" ? [[e.data.discrepancyId, e.data.grade] as const] : [],
    ),
  );
  const measuredHere = new Map(
    events.flatMap((e) =>
      e.type === "discrepancy.observed" && e.data.measure
        ? [[e.data.discrepancyId, e.data.measure] as const]
        : [],
    ),
  );
  const limitedHere = new Map(
    events.flatMap((e) => {
      if (e.type !== "discrepancy.limited") return [];
      const { discrepancyId, ...limit } = e.data;
      return [[discrepancyId, limit] as const];
    }),
  );
  const taken = localPhotographs(events);
  const fromHere = here
    .filter((d) => !d.closed && !d.withdrawn && !d.merged)
    .map((d) => ({
      id: d.id,
      stationId: d.stationId,
      text: d.text,
      grade: d.grade,
      openedAt: d.openedAt,
      openedBy: name(d.openedBy),
      ...(d.cause !== undefined && { cause: d.cause }),
      ...(d.measure !== undefined && { measure: d.measure }),
      ...(d.deferred && { deferral: d.deferred }),
      ...(d.limit && { limit: d.limit }),
      ...(d.photographs && { photographs: d.photographs }),
    }));
  return [
    ...byServer
      .filter((known) => !closedHere.has(known.id))
      .map((known) => {
        const measure = measuredHere.get(known.id);
        const deferral = deferredHere.get(known.id);
        const grade = gradedHere.get(known.id);
        const limit = limitedHere.get(known.id);
        const photographs = withPhotographs(known.photographs, taken.get(known.id));
        if (!measure && !deferral && !grade && !limit && photographs === known.photographs) return known;
        return {
          ...known,
          ...(measure && { measure }),
          ...(deferral && { deferral }),
          ...(grade && { grade }),
          ...(limit && { limit }),
          ...(photographs && { photographs }),
        };
      }),
    ...fromHere,
  ];
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
