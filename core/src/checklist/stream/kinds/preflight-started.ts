import { toldFlight } from "../../../airworthiness/airworthiness-snapshot";
import type { EventHandler } from "../event-handler";

/** Only the first start counts. */
export const preflightStarted: EventHandler<"preflight.started"> = (
  preflight,
  { id, at, crewId, data },
  { startId },
) => {
  if (id !== startId) return;
  const {
    registration,
    listHash,
    conditions,
    plannedFlightMin,
    plannedLandings,
    plannedLaunch,
    plannedLoad,
    purpose,
    use,
    airspace,
    fullSeats,
    dayAndNight,
    preferences,
    celsius,
    weather,
    turnBackFt,
  } = data;
  preflight.put({
    registration,
    listHash,
    conditions,
    ...(plannedFlightMin !== undefined && { plannedFlightMin }),
    ...(plannedLandings !== undefined && { plannedLandings }),
    ...(plannedLaunch && { plannedLaunch }),
    ...(plannedLoad && { plannedLoad }),
    ...(purpose && { purpose }),
    ...((use || airspace || fullSeats !== undefined || dayAndNight !== undefined) && {
      flight: toldFlight({ use, airspace, fullSeats, dayAndNight }),
    }),
    ...(preferences && { preferences }),
    // The reported temperature is more reliable than the planned one.
    ...((weather?.report?.celsius ?? celsius) !== undefined && {
      celsius: (weather?.report?.celsius ?? celsius) as number,
    }),
    ...(turnBackFt !== undefined && { turnBackFt }),
    ...(weather && { weather: { ...weather, at } }),
    crewId,
    startedAt: at,
  });
};
