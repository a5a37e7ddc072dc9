import type { AircraftBundle, CrewMember } from "@cravix/contract";
import { contentHash, newId } from "@cravix/contract";
import {
  type ComposedList,
  composeList,
  foldDiscrepancies,
  type OpenDiscrepancy,
  type PreflightEvent,
} from "@cravix/core";
import { allEvents, eventsOfPreflight, keepList, listOf } from "../device/event-log";
import { fluidMemoryHere } from "./fluid-memory-here";
import { NOTHING_PLANNED, planUsed } from "./planned-slice";
import { openPreflightsKnown, preflightOpened } from "./preflight-slice";
import { record } from "./record";
import type { AppDispatch, RootState } from "./root-state";
import { schoolOf } from "./school-of";

/** What is open on this aircraft as this device knows it: the server's word, and what was found here since and has not been sent. */
export function openDiscrepanciesHere(
  bundle: AircraftBundle,
  events: readonly PreflightEvent[],
  crew: readonly CrewMember[],
): OpenDiscrepancy[] {
  const registration = bundle.aircraft.registration;
  const name = (crewId: string) => crew.find((member) => member.id === crewId)?.name ?? crewId;
  const here = foldDiscrepancies(events).filter((d) => d.registration === registration);
  const byServer = bundle.openDiscrepancies.filter((known) => !here.some((d) => d.id === known.id));
  const closedHere = new Set(
    events.flatMap((e) => (e.type === "discrepancy.closed" ? [e.data.discrepancyId] : [])),
  );
  const measuredHere = new Map(
    events.flatMap((e) =>
      e.type === "discrepancy.observed" && e.data.measure
        ? [[e.data.discrepancyId, e.data.measure] as const]
        : [],
    ),
  );
  const fromHere = here
    .filter((d) => !d.closed)
    .map((d) => ({
      id: d.id,
      stationId: d.stationId,
      text: d.text,
      grade: d.grade,
      openedAt: d.openedAt,
      openedBy: name(d.openedBy),
      ...(d.measure !== undefined && { measure: d.measure }),
    }));
  return [
    ...byServer
      .filter((known) => !closedHere.has(known.id))
      .map((known) => {
        const measure = measuredHere.get(known.id);
        return measure ? { ...known, measure } : known;
      }),
    ...fromHere,
  ];
}

/** Composes today's list as it has been planned, pins it, and begins. Returns the new preflight's id. */
export function beginPreflight(registration: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<string> => {
    const { fleet, planned, session } = getState();
    const bundle = fleet.bundles[registration];
    if (!bundle) throw new Error(`Nothing is known of ${registration} on this device yet.`);
    const { conditions, flightMin, celsius, secondCrewId } =
      planned.byRegistration[registration] ?? NOTHING_PLANNED;
    const school = schoolOf(bundle, session.crewId, planned.schools);
    const id = newId(Date.now());
    const events = await allEvents();
    const list: ComposedList = composeList({
      ...composeInput(bundle, openDiscrepanciesHere(bundle, events, fleet.fleet?.crew ?? [])),
      memory: fluidMemoryHere(bundle, events),
      conditions,
      school,
      // What is asked by its value follows from the walk's own id: nobody knows it before.
      seed: id,
    });
    const listHash = contentHash(list);
    await keepList(listHash, list);
    dispatch(preflightOpened({ id, list, events: [] }));
    dispatch(
      record(id, "preflight.started", {
        registration,
        listHash,
        conditions,
        plannedFlightMin: flightMin,
        school,
        ...(celsius !== undefined && { celsius }),
      }),
    );
    if (secondCrewId && secondCrewId !== session.crewId)
      dispatch(record(id, "crew.joined", { crewId: secondCrewId }));
    dispatch(planUsed(registration));
    dispatch(
      openPreflightsKnown([
        ...getState().preflight.open.filter((p) => p.registration !== registration),
        { preflightId: id, registration },
      ]),
    );
    return id;
  };
}

/** What a list is made from, besides what is different today. */
export function composeInput(bundle: AircraftBundle, openDiscrepancies: OpenDiscrepancy[]) {
  return {
    type: bundle.type,
    aircraft: bundle.aircraft,
    openDiscrepancies,
    ...(bundle.airfield && { airfield: bundle.airfield }),
    ...(bundle.rules && { rules: bundle.rules }),
  };
}

/** Brings a preflight of this device back to the screen. Resolves to false when the device does not have it. */
export function openPreflight(id: string) {
  return async (dispatch: AppDispatch): Promise<boolean> => {
    const events = await eventsOfPreflight(id);
    const started = events.find((event) => event.type === "preflight.started");
    const list = started && (await listOf(started.data.listHash));
    if (!list) return false;
    dispatch(preflightOpened({ id, list, events }));
    return true;
  };
}

/** Signed and flying: what is left of it is to put the aircraft away. */
export function flyPreflight(id: string) {
  return (dispatch: AppDispatch, getState: () => RootState) => {
    dispatch(
      openPreflightsKnown(
        getState().preflight.open.map((p) => (p.preflightId === id ? { ...p, flying: true } : p)),
      ),
    );
  };
}

/** A signed preflight is no longer offered for going on. */
export function closePreflight(id: string) {
  return (dispatch: AppDispatch, getState: () => RootState) => {
    dispatch(openPreflightsKnown(getState().preflight.open.filter((p) => p.preflightId !== id)));
  };
}
