import type { AircraftBundle, CrewMember } from "@cravix/contract/client";
import { foldDiscrepancies, type OpenDiscrepancy, type PreflightEvent } from "@cravix/core";
import { eventsBeyond } from "../../device/log/event-log";
import type { KnownBundle } from "../server/server-api";

/** Clocks of one device may differ by this much between asking and hearing, ms. */
const SLACK_MS = 60_000;

/** What happened on this device that the server's word on this aircraft, or on the group, does not have in it yet. */
export function eventsHere({ saidAt }: Pick<KnownBundle, "saidAt">): Promise<PreflightEvent[]> {
  return eventsBeyond((saidAt ?? 0) - SLACK_MS);
}

/** What is open on this aircraft as this device knows it: the server's word, and what was found here since and has not been sent. */
export function openDiscrepanciesHere(
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
    }));
  return [
    ...byServer
      .filter((known) => !closedHere.has(known.id))
      .map((known) => {
        const measure = measuredHere.get(known.id);
        const deferral = deferredHere.get(known.id);
        const grade = gradedHere.get(known.id);
        if (!measure && !deferral && !grade) return known;
        return {
          ...known,
          ...(measure && { measure }),
          ...(deferral && { deferral }),
          ...(grade && { grade }),
        };
      }),
    ...fromHere,
  ];
}
