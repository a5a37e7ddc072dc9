import type { AircraftBundle, CrewMember } from "@cravix/contract/client";
import { contentHash, newId } from "@cravix/contract/client";
import {
  type ComposedList,
  composeList,
  foldDiscrepancies,
  type OpenDiscrepancy,
  type PreflightEvent,
} from "@cravix/core";
import {
  ChangedElsewhere,
  eventsBeyond,
  eventsOfPreflight,
  keepTogether,
  listOf,
} from "../../device/log/event-log";
import { tellTabs } from "../../device/tabs";
import type { AppDispatch, RootState } from "../root-state";
import type { KnownBundle } from "../server/server-api";
import { bundleOf, fleetOf } from "../server/server-state";
import { sendAgain } from "../sync/sync-actions";
import { fetchWalk } from "./fetch-walk";
import { fluidMemoryHere } from "./fluid-memory-here";
import { begun, changeOpenWalks, OPEN_WALKS } from "./open-walks";
import { NOTHING_PLANNED, planUsed } from "./planned-slice";
import { preferencesOf } from "./preferences-of";
import {
  eventsRecorded,
  eventsSeen,
  type OpenPreflight,
  openPreflightsKnown,
  preflightOpened,
} from "./preflight-slice";
import { type Happening, makeEvents } from "./record";

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
    .filter((d) => !d.closed && !d.withdrawn)
    .map((d) => ({
      id: d.id,
      stationId: d.stationId,
      text: d.text,
      grade: d.grade,
      openedAt: d.openedAt,
      openedBy: name(d.openedBy),
      ...(d.cause !== undefined && { cause: d.cause }),
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

/** Composes today's list as it has been planned, pins it, and begins: kept together or not at all. Returns the new preflight's id. */
export function beginPreflight(registration: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<string> => {
    const { planned, session } = getState();
    const bundle = bundleOf(getState(), registration);
    if (!bundle) throw new Error(`Nothing is known of ${registration} on this device yet.`);
    const { conditions, flightMin, celsius, secondCrewId } =
      planned.byRegistration[registration] ?? NOTHING_PLANNED;
    const preferences = preferencesOf(bundle, session.crewId, planned.preferences);
    // The walk has the id of the event that begins it: nobody else can begin it.
    const id = newId(Date.now());
    const events = await eventsHere(bundle);
    const list: ComposedList = composeList({
      ...composeInput(bundle, openDiscrepanciesHere(bundle, events, fleetOf(getState())?.crew ?? [])),
      memory: fluidMemoryHere(bundle, events),
      conditions,
      preferences,
      // What is asked by its value follows from the walk's own id: nobody knows it before.
      seed: id,
    });
    const listHash = contentHash(list);
    const happenings: Happening[] = [
      {
        type: "preflight.started",
        data: {
          registration,
          listHash,
          conditions,
          plannedFlightMin: flightMin,
          preferences,
          ...(celsius !== undefined && { celsius }),
        },
      },
    ];
    if (secondCrewId && secondCrewId !== session.crewId)
      happenings.push({ type: "crew.joined", data: { crewId: secondCrewId } });
    dispatch(preflightOpened({ id, list, events: [] }));
    const first = dispatch(makeEvents(id, happenings, { firstId: id }));
    let open: OpenPreflight[] = [];
    await keepTogether({
      events: first,
      list: { hash: listHash, list },
      note: {
        key: OPEN_WALKS,
        change: (before) => {
          open = begun(id, registration)((before as OpenPreflight[] | undefined) ?? []);
          return open;
        },
      },
    });
    dispatch(eventsSeen(first));
    dispatch(openPreflightsKnown(open));
    tellTabs({ kind: "open walks" });
    dispatch(planUsed(registration));
    dispatch(sendAgain());
    return id;
  };
}

/**
 * Signs: what is logged with it and the signature, all of it or nothing, and only on what is really on the disk. Resolves to false where another
 * window of this device has answered something since; then that is on the screen now, and nothing was signed.
 */
export function signPreflight(id: string, happenings: readonly Happening[]) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<boolean> => {
    const { preflight } = getState();
    const events = dispatch(makeEvents(id, happenings));
    const known = new Set(preflight.events.map((event) => event.id));
    try {
      await keepTogether({ events, ifUnchanged: { streamId: id, known } });
    } catch (error) {
      if (error instanceof ChangedElsewhere) {
        dispatch(eventsSeen(await eventsOfPreflight(id)));
        return false;
      }
      // A full disk: held here, said, and tried again, like any answer.
      dispatch(eventsRecorded(events));
      return true;
    }
    dispatch(eventsSeen(events));
    tellTabs({ kind: "events", events });
    dispatch(sendAgain());
    return true;
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

/**
 * Brings a preflight to the screen: from this device's disk, or from the server where it was begun on another device. Resolves to false where
 * neither has it.
 */
export function openPreflight(id: string) {
  return async (dispatch: AppDispatch): Promise<boolean> => {
    const events = await eventsOfPreflight(id);
    const started = events.find((event) => event.type === "preflight.started");
    const list = started && (await listOf(started.data.listHash));
    if (!list) return dispatch(fetchWalk(id));
    dispatch(preflightOpened({ id, list, events }));
    // What another device answered in the same walk comes as soon as there is a network.
    void dispatch(fetchWalk(id));
    return true;
  };
}

/** Signed and flying: what is left of it is to put the aircraft away. */
export function flyPreflight(id: string) {
  return changeOpenWalks((open) => open.map((p) => (p.preflightId === id ? { ...p, flying: true } : p)));
}

/** A signed preflight is no longer offered for going on. */
export function closePreflight(id: string) {
  return changeOpenWalks((open) => open.filter((p) => p.preflightId !== id));
}
