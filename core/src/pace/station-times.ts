import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { answerTimes } from "./answer-times";

/** Seconds spent at each station, interruptions left out. A station flowed from memory counts with its flow. */
export function stationTimes(list: ComposedList, state: PreflightState): Record<string, number> {
  const seconds: Record<string, number> = {};
  for (const { item, seconds: took } of answerTimes(list, state))
    seconds[item.station] = (seconds[item.station] ?? 0) + took;
  for (const [station, flow] of Object.entries(state.flowed))
    seconds[station] = (seconds[station] ?? 0) + flow.seconds;
  return seconds;
}

/** The stations of the lap in the order in which somebody stood there, with every return. */
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

/** One earlier walk as far as pace and order go. */
export interface EarlierWalk {
  preflightId: string;
  crewId: string;
  at: string;
  stations: Record<string, number>;
  visits: string[];
}

export interface StationPace {
  stationId: string;
  seconds: number;
  /** The middle of this pilot's own earlier times, and of everybody's; absent with fewer than three. */
  ownSeconds?: number;
  groupSeconds?: number;
  /** Less than half of one's own usual time: something may have been left out. */
  quick: boolean;
}

/** So many earlier walks make a usual value. */
const USUAL_FROM = 3;

/**
 * Time at each station against the pilot's own usual time and the group's: medians, since one long talk must not set it.
 * Valid range: any walks of the same aircraft type; those of the walk itself are to be left out by the caller.
 */
export function comparePace(
  now: Readonly<Record<string, number>>,
  walks: readonly EarlierWalk[],
  crewId: string | undefined,
): StationPace[] {
  return Object.entries(now).map(([stationId, seconds]) => {
    const times = (own: boolean) =>
      walks
        .filter((walk) => !own || walk.crewId === crewId)
        .flatMap((walk) => walk.stations[stationId] ?? []);
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
