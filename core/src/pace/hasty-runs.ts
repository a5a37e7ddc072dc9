import type { Item } from "../checklist/aircraft-type";
import type { ComposedList } from "../checklist/compose-list";
import type { PreflightState } from "../checklist/fold-preflight";
import { answerTimes, type TimedAnswer } from "./answer-times";
import { leastSeconds } from "./look-time";

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

/**
 * Runs of at least four answers in a row that came faster than a person can look: together at least two seconds less than the least
 * time for each. Of overlapping runs the one that lacks most. Looks made in a flow from memory were done before the list was read, so
 * their reading is not hasty. Complexity: O(n) after the order by time.
 */
export function hastyRuns(list: ComposedList, state: PreflightState): HastyRun[] {
  const runs: HastyRun[] = [];
  let run: TimedAnswer[] = [];
  let lacking = 0;
  let best: { length: number; lacking: number } = { length: 0, lacking: 0 };
  const close = () => {
    if (best.length >= FEWEST && best.lacking >= LACKING_SECONDS) runs.push(asRun(run.slice(0, best.length)));
    run = [];
    lacking = 0;
    best = { length: 0, lacking: 0 };
  };
  for (const answer of answerTimes(list, state)) {
    if (state.flowed[answer.item.station]) {
      close();
      continue;
    }
    lacking += leastSeconds(answer.item) - answer.seconds;
    run.push(answer);
    if (lacking <= 0) close();
    else if (lacking > best.lacking) best = { length: run.length, lacking };
  }
  close();
  return runs;
}

function asRun(run: readonly TimedAnswer[]): HastyRun {
  return {
    items: run.map(({ item }) => item),
    seconds: run.reduce((sum, { seconds }) => sum + seconds, 0),
    leastSeconds: run.reduce((sum, { item }) => sum + leastSeconds(item), 0),
    stationIds: [...new Set(run.map(({ item }) => item.station))],
  };
}

/** A run in one kind sentence: what was seen, and what it means. */
export function hastyText({ items, seconds }: HastyRun): string {
  return `${items.length} items in ${Math.max(1, Math.round(seconds))} s: that is quicker than an eye can look.`;
}
