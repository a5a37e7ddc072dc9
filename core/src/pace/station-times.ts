import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { answerTimes } from "./answer-times";

/** Seconds spent at each station, without interruptions. A station flowed from memory counts with its flow. */
export function stationTimes(list: ComposedList, state: PreflightState): Record<string, number> {
  const seconds: Record<string, number> = {};
  for (const { item, seconds: took } of answerTimes(list, state))
    seconds[item.station] = (seconds[item.station] ?? 0) + took;
  for (const [station, flow] of Object.entries(state.flowed))
    seconds[station] = (seconds[station] ?? 0) + flow.seconds;
  return seconds;
}

/** Stations of the walkaround in the order visited, with every return. */
export function stationVisits(list: ComposedList, state: PreflightState): string[] {
  const lap = new Set(list.stations.filter((s) => s.phase === "lap").map((s) => s.id));
  const flows = Object.entries(state.flowed).map(([station, flow]) => ({ station, at: Date.parse(flow.at) }));
  const looks = answerTimes(list, state)
    .filter(({ item }) => !state.flowed[item.station])
    .map(({ item, at }) => ({ station: item.station, at }));
  return [...flows, ...looks]
    .filter(({ station }) => lap.has(station))
    .sort((a, b) => a.at - b.at)
    .map(({ station }) => station)
    .filter((station, i, all) => station !== all[i - 1]);
}

/** An earlier preflight, as needed for pace and order. */
export interface EarlierPreflight {
  preflightId: string;
  crewId: string;
  at: string;
  stations: Record<string, number>;
  visits: string[];
}

export interface StationPace {
  stationId: string;
  seconds: number;
  /** Median of this pilot's earlier times, and of everyone's; absent with fewer than three. */
  ownSeconds?: number;
  groupSeconds?: number;
  /** Less than half of the pilot's usual time: something may have been left out. */
  quick: boolean;
}

/** Minimum earlier preflights for a usual value. */
const USUAL_FROM = 3;

/**
 * Compares the time at each station with the pilot's usual time and the group's, by medians, so that one long conversation does
 * not matter.
 * Valid range: any preflights of the same aircraft type; the caller leaves out the present one.
 */
export function comparePace(
  now: Readonly<Record<string, number>>,
  walks: readonly EarlierPreflight[],
  crewId: string | undefined,
): StationPace[] {
  return Object.entries(now).map(([stationId, seconds]) => {
    const times = (own: boolean) =>
      walks
        .filter((preflight) => !own || preflight.crewId === crewId)
        .flatMap((preflight) => preflight.stations[stationId] ?? []);
    const ownSeconds = middle(times(true));
    const groupSeconds = middle(times(false));
    return {
      stationId,
      seconds,
      ...(ownSeconds !== undefined && { ownSeconds }),
      ...(groupSeconds !== undefined && { groupSeconds }),
      quick: ownSeconds !== undefined && seconds < ownSeconds / 2,
    };
  });
}

function middle(values: readonly number[]): number | undefined {
  if (values.length < USUAL_FROM) return undefined;
  const sorted = [...values].sort((a, b) => a - b);
  const half = sorted.length / 2;
  const upper = sorted[Math.floor(half)] as number;
  return sorted.length % 2 === 1 ? upper : ((sorted[half - 1] as number) + upper) / 2;
}
