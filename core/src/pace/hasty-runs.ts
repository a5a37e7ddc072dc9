import type { Item } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { answerTimes } from "./answer-times";
import { minimumSeconds } from "./look-time";

export interface HastyRun {
  items: Item[];
  /** Total duration. */
  seconds: number;
  /** Minimum duration. */
  leastSeconds: number;
  stationIds: string[];
}

/** Minimum number of answers; fewer say nothing about a person. */
const FEWEST = 4;
/** Minimum shortfall in seconds, given the accuracy of clocks and thumbs. */
const LACKING_SECONDS = 2;

/** Answers within this time of a trace came from it, milliseconds. */
const OUT_OF_A_TRACE_MS = 1500;

/** One action: an answer, or a whole station from memory. */
interface Doing {
  items: Item[];
  at: number;
  seconds: number;
  least: number;
}

/**
 * Finds runs of at least four items answered faster than a person can look: at least two seconds below their summed minimum
 * times. Of overlapping runs, the one with the largest shortfall. A station done from memory counts with its flow, its quick
 * reading afterwards does not; answers from a trace are exempt. Complexity: O(n log n).
 */
export function rushedSequences(list: ComposedList, state: PreflightState): HastyRun[] {
  const runs: HastyRun[] = [];
  let run: Doing[] = [];
  let lacking = 0;
  let best: { length: number; lacking: number } = { length: 0, lacking: 0 };
  const close = () => {
    const found = asRun(run.slice(0, best.length));
    if (found.items.length >= FEWEST && best.lacking >= LACKING_SECONDS) runs.push(found);
    run = [];
    lacking = 0;
    best = { length: 0, lacking: 0 };
  };
  for (const doing of doings(list, state)) {
    lacking += doing.least - doing.seconds;
    run.push(doing);
    if (lacking <= 0) close();
    else if (lacking > best.lacking) best = { length: run.length, lacking };
  }
  close();
  return runs;
}

function doings(list: ComposedList, state: PreflightState): Doing[] {
  const traces = Object.values(state.runUps).map(({ at }) => Date.parse(at));
  const given = answerTimes(list, state)
    .filter(({ item }) => !state.flowed[item.station])
    .filter(({ at }) => !traces.some((read) => at >= read && at - read <= OUT_OF_A_TRACE_MS))
    .map(({ item, at, seconds, card }) => ({
      items: [item],
      at,
      seconds,
      least: minimumSeconds(item),
      card: card && `${card} ${at}`,
    }));
  // One answer to several parts is one action with the minimum time of all its parts.
  const single: (Doing & { card?: string | undefined })[] = [];
  for (const one of given) {
    const last = single.at(-1);
    if (last && one.card && last.card === one.card) {
      last.items.push(...one.items);
      last.seconds += one.seconds;
      last.least += one.least;
    } else single.push(one);
  }
  const flows = Object.entries(state.flowed).map(([station, { at, seconds }]): Doing => {
    const items = list.items.filter((item) => item.station === station);
    const least = items.reduce((sum, item) => sum + minimumSeconds(item), 0);
    return { items, at: Date.parse(at), seconds, least };
  });
  return [...single, ...flows].sort((a, b) => a.at - b.at);
}

function asRun(run: readonly Doing[]): HastyRun {
  const items = run.flatMap((doing) => doing.items);
  return {
    items,
    seconds: run.reduce((sum, { seconds }) => sum + seconds, 0),
    leastSeconds: run.reduce((sum, { least }) => sum + least, 0),
    stationIds: [...new Set(items.map((item) => item.station))],
  };
}

/** One friendly sentence about a run. */
export function hastyText({ items, seconds }: HastyRun): string {
  return `${items.length} items in ${Math.max(1, Math.round(seconds))} s: too fast to have looked at each one.`;
}
