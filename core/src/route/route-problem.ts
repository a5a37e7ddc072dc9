import type { AircraftType, OrderRule, Station } from "../aircraft/aircraft-type";
import type { OrderProblem } from "./best-order";
import { walkingDistances } from "./walking-distance";

type Stations = readonly Station[];
type WithRoute = Pick<AircraftType, "plan" | "stations" | "items" | "rules">;

export interface RouteProblem extends OrderProblem {
  stations: Station[];
}

/**
 * Route problem of a type: stations with walking distances in metres, the door, and the rules between stations. Undefined if the
 * plan has no scale, or a station has no position.
 */
export function routeProblem({ plan, stations, items, rules }: WithRoute): RouteProblem | undefined {
  const lap = stations.filter((s) => s.phase === "lap");
  if (!plan?.metresPerUnit || lap.length === 0 || lap.some((s) => s.x === undefined || s.y === undefined))
    return undefined;
  const spots = lap.map(({ x = 0, y = 0 }) => ({ x, y }));
  const all = walkingDistances(plan, plan.door ? [...spots, plan.door] : spots);
  const distances = all.slice(0, lap.length).map((row) => row.slice(0, lap.length));
  const door = plan.door && all[lap.length]?.slice(0, lap.length);
  return {
    stations: lap,
    distances,
    ...(door && { door }),
    precedence: stationPrecedence(lap, items, rules ?? []),
  };
}

/** Station precedence implied by item rules. A rule within one station is ignored. */
export function stationPrecedence(
  stations: Stations,
  items: WithRoute["items"],
  rules: readonly OrderRule[],
): [number, number][] {
  const at = (itemId: string) => {
    const item = items.find((i) => i.id === itemId);
    return stations.findIndex((s) => s.id === item?.station);
  };
  const pairs = new Map<string, [number, number]>();
  for (const rule of rules) {
    const first = at(rule.first);
    if (first < 0) continue;
    const waiting = items.filter(
      (i) =>
        rule.waits.items?.includes(i.id) || (rule.waits.touches && i.touches?.includes(rule.waits.touches)),
    );
    for (const item of waiting) {
      const then = stations.findIndex((s) => s.id === item.station);
      if (then >= 0 && then !== first) pairs.set(`${first}>${then}`, [first, then]);
    }
  }
  return [...pairs.values()];
}

export interface ActualRoute {
  metres: number;
  /** Metres beyond visiting each station once in the order of first visits. */
  backtrackMetres: number;
  /** Number of returns to a station. */
  returns: number;
}

/**
 * Actual route from the stations in order of answers. Valid range: station ids of the problem; others (cockpit, documents) are
 * skipped. Complexity: O(visits).
 */
export function actualRoute(problem: RouteProblem, visits: readonly string[]): ActualRoute {
  const indices = visits
    .map((id) => problem.stations.findIndex((s) => s.id === id))
    .filter((i) => i >= 0)
    .filter((i, k, all) => i !== all[k - 1]);
  const firsts = [...new Set(indices)];
  const length = (order: readonly number[]) =>
    order.slice(1).reduce((sum, to, i) => sum + (problem.distances[order[i] as number]?.[to] ?? 0), 0);
  const ends = (order: readonly number[]) =>
    order.length === 0
      ? 0
      : (problem.door?.[order[0] as number] ?? 0) + (problem.door?.[order.at(-1) as number] ?? 0);
  const metres = length(indices) + ends(indices);
  return {
    metres,
    backtrackMetres: Math.max(0, metres - length(firsts) - ends(firsts)),
    returns: indices.length - firsts.length,
  };
}
