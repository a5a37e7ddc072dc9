import type { CompositionFault, ItemMove } from "./type-composition";

/** An item to be put in order, and what it comes after if the station does not name it. */
export interface Placed {
  id: string;
  station: string;
  follows?: string;
}

/**
 * The items of one station in the order in which they are asked: first as the station names them; an item that it does not name
 * comes after the one it says, or else after the one before it. Complexity: O(items²) for unnamed items.
 */
export function orderStation<T extends Placed>(items: readonly T[], order: readonly string[]): T[] {
  const rank = new Map(order.map((id, i) => [id, i]));
  const named = items.filter(({ id }) => rank.has(id));
  const ordered = named.sort((a, b) => (rank.get(a.id) ?? 0) - (rank.get(b.id) ?? 0));
  items.forEach((item, i) => {
    if (rank.has(item.id)) return;
    const before = item.follows ?? items[i - 1]?.id;
    const at = ordered.findIndex(({ id }) => id === before);
    ordered.splice(at >= 0 ? at + 1 : ordered.length, 0, item);
  });
  return ordered;
}

/**
 * Moves items from their usual place, one after the other. Faults: an item that does not exist, one at another station, and moves
 * that wait for each other.
 */
export function moveItems<T extends Placed>(
  items: T[],
  moves: readonly ItemMove[],
): { items: T[]; faults: CompositionFault[] } {
  const faults = moveFaults(items, moves);
  if (faults.length > 0) return { items, faults };
  const moved = [...items];
  for (const { item, after } of moves) {
    const [one] = moved.splice(
      moved.findIndex(({ id }) => id === item),
      1,
    ) as [T];
    const at =
      after === undefined
        ? moved.findIndex(({ station }) => station === one.station)
        : moved.findIndex(({ id }) => id === after) + 1;
    moved.splice(at < 0 ? moved.length : at, 0, one);
  }
  return { items: moved, faults };
}

function moveFaults(items: readonly Placed[], moves: readonly ItemMove[]): CompositionFault[] {
  const byId = new Map(items.map((item) => [item.id, item]));
  const followed = new Map<string, string>();
  return moves.flatMap(({ item, after }, i): CompositionFault[] => {
    const at = `order[${i}]`;
    const own = byId.get(item);
    if (!own) return [{ path: `${at}.item`, expected: `an item of this type; ${item} does not exist` }];
    if (followed.has(item)) return [{ path: `${at}.item`, expected: `one place for ${item}` }];
    if (after === undefined) return [];
    const other = byId.get(after);
    if (!other) return [{ path: `${at}.after`, expected: `an item of this type; ${after} does not exist` }];
    if (other.station !== own.station)
      return [{ path: `${at}.after`, expected: `an item of the station ${own.station}` }];
    followed.set(item, after);
    const circle = circleFrom(item, followed);
    return circle
      ? [{ path: at, expected: `an order without a circle; ${circle.join(" waits for ")} do` }]
      : [];
  });
}

function circleFrom(start: string, followed: ReadonlyMap<string, string>): string[] | undefined {
  const path = [start];
  for (let next = followed.get(start); next !== undefined; next = followed.get(next)) {
    path.push(next);
    if (next === start) return path;
  }
  return undefined;
}
