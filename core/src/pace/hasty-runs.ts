import type { Item } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { answerTimes } from "./answer-times";
import { minimumSeconds } from "./look-time";

export interface HastyRun {
  items: Item[];
  /** How long they took together. */
  seconds: number;
  /** How long they take at the least. */
  leastSeconds: number;
  stationIds: string[];
}

/** So few answers in a row say nothing about a person: a thumb may have waited for the eye. */
const FEWEST = 4;
/** And so little time lacking: clocks and thumbs are not that exact. */
const LACKING_SECONDS = 2;

/** What is written down within so long of a trace came out of it, milliseconds. */
const OUT_OF_A_TRACE_MS = 1500;

/** Something that was done in one go: one answer, or a whole station from memory. */
interface Doing {
  items: Item[];
  at: number;
  seconds: number;
  least: number;
}

/**
 * Runs of at least four items in a row that came faster than a person can look: together at least two seconds less than the least
 * time for each. Of overlapping runs the one that lacks most. A station done from memory counts with its flow; reading it afterwards
 * is quick, and rightly so; what was read out of an engine's trace asked no eye. Complexity: O(n log n).
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
  // One answer to several parts is one doing: as long as all of its looks, and no hasty row of answers.
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

/** A run in one kind sentence: what was seen, and what it means. */
export function hastyText({ items, seconds }: HastyRun): string {
  return `${items.length} items in ${Math.max(1, Math.round(seconds))} s: too fast to have looked at each one.`;
}
