import type { AircraftBundle, CrewMember } from "@cravix/contract";
import { contentHash, newId } from "@cravix/contract";
import {
  type ComposedList,
  type Condition,
  composeList,
  foldDiscrepancies,
  type OpenDiscrepancy,
  type PreflightEvent,
} from "@cravix/core";
import { allEvents, eventsOfPreflight, keepList, listOf } from "../device/event-log";
import { openPreflightsKnown, preflightOpened } from "./preflight-slice";
import { record } from "./record";
import type { AppDispatch, RootState } from "./root-state";

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

/** Composes today's list, pins it, and begins. Returns the new preflight's id. */
export function beginPreflight(
  registration: string,
  conditions: Condition[],
  plannedFlightMin: number | undefined,
) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<string> => {
    const { bundles, fleet } = getState().fleet;
    const bundle = bundles[registration];
    if (!bundle) throw new Error(`Nothing is known of ${registration} on this device yet.`);
    const list: ComposedList = composeList({
      type: bundle.type,
      aircraft: bundle.aircraft,
      conditions,
      openDiscrepancies: openDiscrepanciesHere(bundle, await allEvents(), fleet?.crew ?? []),
      ...(bundle.airfield && { airfield: bundle.airfield }),
      ...(bundle.rules && { rules: bundle.rules }),
    });
    const listHash = contentHash(list);
    await keepList(listHash, list);
    const id = newId(Date.now());
    dispatch(preflightOpened({ id, list, events: [] }));
    dispatch(
      record(id, "preflight.started", {
        registration,
        listHash,
        conditions,
        ...(plannedFlightMin !== undefined && { plannedFlightMin }),
      }),
    );
    dispatch(
      openPreflightsKnown([
        ...getState().preflight.open.filter((p) => p.registration !== registration),
        { preflightId: id, registration },
      ]),
    );
    return id;
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
