import type { Item } from "../aircraft/aircraft-type";
import type { ElectricalLoad, LoadSpan } from "../electrical/battery";
import type { ComposedList } from "./list/compose-list";
import type { PreflightState } from "./stream/preflight-state";

export interface LoadsState {
  on: ElectricalLoad[];
  amps: number;
  /** Since when anything is on, as milliseconds of the device's clock; absent while all is off. */
  onSince?: number;
  /** All times with something on, up to `now`. */
  spans: LoadSpan[];
}

/**
 * Which loads are on, and what was on for how long: from the answers to items that switch something, in the order of their times, up
 * to `now` (milliseconds; what is on counts until then). An item found wrong switched nothing. Once the engine runs the battery is
 * charged: what is on from the run-up onward does not count. Complexity: O(items + answers · log answers).
 */
export function foldLoads(list: ComposedList, state: PreflightState, now: number): LoadsState {
  const known = new Map((list.type.electrical?.loads ?? []).map((load) => [load.id, load]));
  const engineRuns = new Set(
    list.stations.filter((s) => s.phase === "run-up" || s.phase === "line-up").map((s) => s.id),
  );
  const switches = list.items
    .filter((item) => item.loads && !engineRuns.has(item.station))
    .flatMap((item) => {
      const answer = state.answers[item.id];
      return answer?.outcome === "checked" ? [{ item, at: Date.parse(answer.at) }] : [];
    })
    .sort((a, b) => a.at - b.at);
  const end = Math.min(now, engineStart(list, state, engineRuns) ?? now);
  const on = new Map<string, ElectricalLoad>();
  const spans: LoadSpan[] = [];
  let since = 0;
  let onSince: number | undefined;
  const close = (at: number) => {
    const amps = sum(on);
    const seconds = Math.max(0, (Math.min(at, end) - since) / 1000);
    if (amps > 0 && seconds > 0) spans.push({ amps, seconds });
    since = at;
  };
  for (const { item, at } of switches) {
    close(at);
    apply(item, on, known);
    if (on.size === 0) onSince = undefined;
    else onSince ??= at;
  }
  close(end);
  return { on: [...on.values()], amps: sum(on), ...(onSince !== undefined && { onSince }), spans };
}

function apply(
  { loads }: Item,
  on: Map<string, ElectricalLoad>,
  known: ReadonlyMap<string, ElectricalLoad>,
): void {
  for (const id of loads?.off ?? []) {
    if (id === "all") on.clear();
    else on.delete(id);
  }
  for (const id of loads?.on ?? []) {
    const load = known.get(id);
    if (load) on.set(id, load);
  }
}

const sum = (on: ReadonlyMap<string, ElectricalLoad>) => {
  let amps = 0;
  for (const load of on.values()) amps += load.amps;
  return amps;
};

function engineStart(
  list: ComposedList,
  state: PreflightState,
  engineRuns: ReadonlySet<string>,
): number | undefined {
  let first: string | undefined;
  for (const item of list.items) {
    if (!engineRuns.has(item.station)) continue;
    // ISO 8601 in UTC: the earlier is the smaller text.
    const at = state.answers[item.id]?.at;
    if (at !== undefined && (first === undefined || at < first)) first = at;
  }
  return first === undefined ? undefined : Date.parse(first);
}
