import type { EventHandler } from "../event-handler";

/** One counts: a second start of the same preflight changes nothing. */
export const preflightStarted: EventHandler<"preflight.started"> = (
  walk,
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
    preferences,
    celsius,
    weather,
    turnBackFt,
  } = data;
  walk.put({
    registration,
    listHash,
    conditions,
    ...(plannedFlightMin !== undefined && { plannedFlightMin }),
    ...(plannedLandings !== undefined && { plannedLandings }),
    ...(plannedLaunch && { plannedLaunch }),
    ...(plannedLoad && { plannedLoad }),
    ...(purpose && { purpose }),
    ...(preferences && { preferences }),
    // What the report measured is nearer to the truth than what was guessed at home.
    ...((weather?.report?.celsius ?? celsius) !== undefined && {
      celsius: (weather?.report?.celsius ?? celsius) as number,
    }),
    ...(turnBackFt !== undefined && { turnBackFt }),
    ...(weather && { weather: { ...weather, at } }),
    crewId,
    startedAt: at,
  });
};
