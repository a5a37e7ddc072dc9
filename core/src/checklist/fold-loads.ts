import type { Item } from "../aircraft/aircraft-type";
import type { ElectricalLoad, LoadSpan } from "../electrical/battery";
import type { ComposedList } from "./list/compose-list";
import type { PreflightState } from "./stream/preflight-state";

export interface LoadsState {
  on: ElectricalLoad[];
  amps: number;
  /** Time since which anything is on, milliseconds of the device clock; absent while all is off. */
  onSince?: number;
  /** All periods with something on, up to `now`. */
  spans: LoadSpan[];
}

/**
 * Calculates which electrical loads were on, and for how long, from the answers to items that switch something, up to `now`
 * (milliseconds). An item answered with a problem switched nothing. With the engine running the battery charges, so nothing
 * counts from the run-up onward. Complexity: O(items + answers · log answers).
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
    // ISO 8601 in UTC sorts as text.
    const at = state.answers[item.id]?.at;
    if (at !== undefined && (first === undefined || at < first)) first = at;
  }
  return first === undefined ? undefined : Date.parse(first);
}
