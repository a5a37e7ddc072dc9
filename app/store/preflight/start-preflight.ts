import type { AircraftBundle } from "@cravix/contract/client";
import { newId } from "@cravix/contract/client";
import { contentHash } from "@cravix/contract/content-hash";
import { airworthinessSnapshot, toldFlight } from "@cravix/core/airworthiness/airworthiness-snapshot";
import { type ComposedList, composeList } from "@cravix/core/checklist/list/compose-list";
import type { OpenDiscrepancy } from "@cravix/core/checklist/list/open-discrepancy";
import type { PreflightEvent } from "@cravix/core/checklist/stream/events";
import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { saveAtomically } from "../../device/log/event-log";
import { notifyTabs } from "../../device/tabs";
import { bundleOf, fleetOf } from "../server/server-state";
import { todayIn } from "../server/today";
import { NOTHING_PLANNED, planUsed } from "../state/planned-slice";
import {
  eventsSeen,
  type OpenPreflight,
  openPreflightsKnown,
  preflightOpened,
} from "../state/preflight-slice";
import type { AppDispatch, RootState } from "../state/root-state";
import { sendAgain } from "../state/sync-actions";
import { localAirworthiness } from "./local-airworthiness";
import { localFluidMemory } from "./local-fluid-memory";
import { localPilot } from "./local-pilot";
import { localTurnaroundReason } from "./local-turnaround";
import { begun, OPEN_PREFLIGHTS } from "./open-preflights";
import { preferencesOf } from "./preferences-of";
import { type EventInput, makeEvents } from "./record";
import { localOpenDiscrepancies, unsyncedEvents } from "./unsynced-events";

/** Composes today's checklist as planned, pins it, and starts the preflight, in one transaction. Returns the new preflight's id. */
export function beginPreflight(registration: string) {
  return async (dispatch: AppDispatch, getState: () => RootState): Promise<string> => {
    const { planned, session } = getState();
    const bundle = bundleOf(getState(), registration);
    if (!bundle)
      throw new Error(`No data for ${registration} on this device yet. Connect once to download it.`);
    const {
      conditions,
      flightMin,
      landings,
      launch,
      load,
      purpose,
      celsius,
      secondCrewId,
      departure,
      ...told
    } = planned.byRegistration[registration] ?? NOTHING_PLANNED;
    const crew = fleetOf(getState())?.crew ?? [];
    const preferences = preferencesOf(bundle, session.crewId, planned.preferences, crew);
    // The preflight has the id of its first event, so nobody else can start it.
    const id = newId(Date.now());
    const events = await unsyncedEvents(bundle);
    const problem = conditions.includes("turnaround")
      ? localTurnaroundReason(bundle, events, session.crewId, Date.now())
      : undefined;
    if (problem) throw new Error(`Turnaround not available. ${problem}`);
    const list: ComposedList = composeList({
      ...composeInput(bundle, localOpenDiscrepancies(bundle, events, crew), events),
      ...atField(bundle, departure?.fieldId),
      ...(await localPilot(dispatch, session.crewId, bundle, events, {
        conditions,
        minutes: flightMin,
        ...toldFlight(told),
      })),
      memory: localFluidMemory(bundle, events),
      conditions,
      preferences,
      // The preflight's id selects the items asked by value, so they are unknown beforehand.
      seed: id,
    });
    const listHash = contentHash(list);
    const happenings: EventInput[] = [
      {
        type: "preflight.started",
        data: {
          registration,
          listHash,
          conditions,
          plannedFlightMin: flightMin,
          ...(landings !== undefined && { plannedLandings: landings }),
          ...(launch && { plannedLaunch: launch }),
          ...(load && { plannedLoad: load }),
          ...(purpose && { purpose }),
          ...toldFlight(told),
          preferences,
          ...(celsius !== undefined && { celsius }),
          ...(departure?.weather && { weather: departure.weather }),
          ...(departure?.turnBackFt && { turnBackFt: departure.turnBackFt }),
        },
      },
    ];
    if (secondCrewId && secondCrewId !== session.crewId)
      happenings.push({ type: "crew.joined", data: { crewId: secondCrewId } });
    dispatch(preflightOpened({ id, list, events: [] }));
    const first = dispatch(makeEvents(id, happenings, { firstId: id }));
    let open: OpenPreflight[] = [];
    await saveAtomically({
      events: first,
      list: { hash: listHash, list },
      note: {
        key: OPEN_PREFLIGHTS,
        change: (before) => {
          open = begun(id, registration)((before as OpenPreflight[] | undefined) ?? []);
          return open;
        },
      },
    });
    dispatch(eventsSeen(first));
    dispatch(openPreflightsKnown(open));
    notifyTabs({ kind: "open walks" });
    dispatch(planUsed(registration));
    dispatch(sendAgain());
    return id;
  };
}

/** The planned departure field, if not the aircraft's own. */
function atField({ fields }: AircraftBundle, fieldId: string | undefined) {
  // Older bundles have no other fields.
  const airfield = (fields ?? []).find(({ id }) => id === fieldId);
  return airfield ? { airfield } : {};
}

/** Input for composing a checklist, besides today's conditions. */
export function composeInput(
  bundle: AircraftBundle,
  openDiscrepancies: OpenDiscrepancy[],
  events: readonly PreflightEvent[] = [],
) {
  const papers = localAirworthiness(bundle, events);
  return {
    type: bundle.type,
    aircraft: bundle.aircraft,
    openDiscrepancies,
    ...(bundle.airfield && { airfield: bundle.airfield }),
    ...(bundle.rules && { rules: bundle.rules }),
    ...(papers && { papers: airworthinessSnapshot(papers.record, { ...papers, daily: dailyOf(papers) }) }),
    ...(bundle.loading && { loading: bundle.loading }),
    ...(bundle.equipment && { equipment: bundle.equipment }),
  };
}

/** Today's signature of the daily inspection, if any. */
function dailyOf({ daily, record }: AirworthinessOnFile): AirworthinessOnFile["daily"] {
  return daily && daily.date === todayIn(record.timeZone) ? daily : null;
}
