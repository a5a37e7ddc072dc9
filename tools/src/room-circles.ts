/** Imports between rooms: who imports whom. */
export type RoomGraph = ReadonlyMap<string, ReadonlySet<string>>;

const ROOM = /^(?:(?:core|contract|server)\/src|app\/(?:features|store|device|ui))\/[^/]+(?=\/)/;
const NO_ROOM = /\.test\.tsx?$|\/testing\//;

/** Room of a file: its folder right below the sources, whatever lies between. Undefined for files outside, and for tests. */
export const roomOf = (path: string): string | undefined =>
  NO_ROOM.test(path) ? undefined : ROOM.exec(path)?.[0];

/** Rooms and their imports, from files and theirs. */
export function roomGraph(files: readonly { source: string; imports: readonly string[] }[]): RoomGraph {
  const graph = new Map<string, Set<string>>();
  for (const { source, imports } of files) {
    const from = roomOf(source);
    if (from === undefined) continue;
    const to = graph.get(from) ?? new Set();
    for (const path of imports) {
      const room = roomOf(path);
      if (room !== undefined && room !== from) to.add(room);
    }
    graph.set(from, to);
  }
  return graph;
}

/** Rooms that reach themselves through others, each circle as the shortest way round. */
export function roomCircles(graph: RoomGraph): string[][] {
  const found = new Map<string, string[]>();
  for (const start of graph.keys()) {
    const way = wayBack(graph, start);
    const key = way && [...way].sort().join();
    if (key && !found.has(key)) found.set(key, way);
  }
  return [...found.values()];
}

function wayBack(graph: RoomGraph, start: string): string[] | undefined {
  const before = new Map<string, string>();
  const open = [start];
  for (let room = open.shift(); room !== undefined; room = open.shift())
    for (const next of graph.get(room) ?? []) {
      if (next === start) {
        const way = [room];
        for (let at = room; at !== start; ) {
          at = before.get(at) as string;
          way.unshift(at);
        }
        return way;
      }
      if (!before.has(next)) {
        before.set(next, room);
        open.push(next);
      }
    }
  return undefined;
}
