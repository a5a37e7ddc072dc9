import type { PlanView } from "../aircraft/aircraft-type";

export interface Spot {
  x: number;
  y: number;
}

type Polygon = readonly Spot[];
const EPSILON = 1e-9;

/**
 * Walking distances between positions around obstacles (a low wing, the fuselage), in metres. Positions and walls are in plan
 * units; `metresPerUnit` is the plan's scale. Shortest paths among polygons turn only at corners, so they are found in the
 * visibility graph with Dijkstra's algorithm (Lozano-Pérez & Wesley, Comm. ACM 22, 1979). A position inside a wall is connected
 * straight.
 * Valid range: a plan with a positive scale; throws RangeError otherwise. Symmetric; the diagonal is zero.
 * Complexity: O((n + c)² · e) for n positions, c corners and e wall edges.
 */
export function walkingDistances(plan: PlanView, spots: readonly Spot[]): number[][] {
  const scale = plan.metresPerUnit;
  if (scale === undefined || !(scale > 0)) throw new RangeError("This plan has no scale. Add metresPerUnit.");
  const { walls, corners, sight: among } = wallsOf(plan);
  const nodes = [...spots, ...corners];
  const n = spots.length;
  const sight: number[][] = nodes.map(() => []);
  nodes.forEach((a, i) => {
    const row = sight[i] as number[];
    for (let k = 0; k < nodes.length; k++) {
      const known = i >= n && k >= n ? among[i - n]?.[k - n] : sight[k]?.[i];
      row[k] = known ?? (i === k ? 0 : seen(a, nodes[k] as Spot, walls));
    }
  });
  return spots.map((from, i) => {
    const ways = shortestFrom(i, sight);
    return spots.map((to, k) => {
      const way = ways[k] ?? Number.POSITIVE_INFINITY;
      return (Number.isFinite(way) ? way : distance(from, to)) * scale;
    });
  });
}

interface Walls {
  walls: Polygon[];
  corners: Spot[];
  /** Distances between mutually visible corners. */
  sight: number[][];
}

/** Plans are immutable, so the visibility between corners is computed once. */
const wallsOfPlan = new WeakMap<PlanView, Walls>();

function wallsOf(plan: PlanView): Walls {
  const before = wallsOfPlan.get(plan);
  if (before) return before;
  const walls = (plan.walls ?? []).map((wall) => wall.map(([x, y]) => ({ x, y })));
  const corners = walls.flat();
  const sight = corners.map((a) => corners.map((b) => (a === b ? 0 : seen(a, b, walls))));
  const made = { walls, corners, sight };
  wallsOfPlan.set(plan, made);
  return made;
}

function seen(a: Spot, b: Spot, walls: readonly Polygon[]): number {
  return isClear(a, b, walls) ? distance(a, b) : Number.POSITIVE_INFINITY;
}

function shortestFrom(start: number, edges: readonly (readonly number[])[]): number[] {
  const best = edges.map(() => Number.POSITIVE_INFINITY);
  const done = edges.map(() => false);
  best[start] = 0;
  for (;;) {
    let at = -1;
    for (let i = 0; i < best.length; i++)
      if (!done[i] && (at < 0 || (best[i] ?? 0) < (best[at] ?? 0))) at = i;
    const here = best[at];
    if (at < 0 || here === undefined || !Number.isFinite(here)) return best;
    done[at] = true;
    edges[at]?.forEach((length, i) => {
      if (here + length < (best[i] ?? 0)) best[i] = here + length;
    });
  }
}

function distance(a: Spot, b: Spot): number {
  return Math.hypot(a.x - b.x, a.y - b.y);
}

/** True if the straight line is clear; touching a wall or a corner is allowed. */
function isClear(a: Spot, b: Spot, walls: readonly Polygon[]): boolean {
  for (const wall of walls) {
    // Split the line where it crosses wall edges; each part is inside or outside.
    const cuts = [0, 1];
    wall.forEach((from, i) => {
      const to = wall[(i + 1) % wall.length] as Spot;
      cuts.push(...meetings(a, b, from, to));
    });
    cuts.sort((p, q) => p - q);
    for (let i = 1; i < cuts.length; i++) {
      const [from = 0, to = 0] = [cuts[i - 1], cuts[i]];
      if (to - from < EPSILON) continue;
      const middle = (from + to) / 2;
      if (isInside({ x: a.x + (b.x - a.x) * middle, y: a.y + (b.y - a.y) * middle }, wall)) return false;
    }
  }
  return true;
}

/** Parameters (0 to 1) at which the line from a to b crosses an edge. */
function meetings(a: Spot, b: Spot, from: Spot, to: Spot): number[] {
  const way = { x: b.x - a.x, y: b.y - a.y };
  const edge = { x: to.x - from.x, y: to.y - from.y };
  const cross = way.x * edge.y - way.y * edge.x;
  if (Math.abs(cross) < EPSILON) return [];
  const away = { x: from.x - a.x, y: from.y - a.y };
  const onWay = (away.x * edge.y - away.y * edge.x) / cross;
  const onEdge = (away.x * way.y - away.y * way.x) / cross;
  return onWay >= 0 && onWay <= 1 && onEdge >= -EPSILON && onEdge <= 1 + EPSILON ? [onWay] : [];
}

/**
 * True if a point is inside a polygon, not on its edge. Plan units; valid for walls with at least three corners.
 * Source: even–odd rule (Shimrat, CACM 5, 1962).
 */
export function isInside({ x, y }: Spot, wall: Polygon): boolean {
  let inside = false;
  for (let i = 0; i < wall.length; i++) {
    const a = wall[i] as Spot;
    const b = wall[(i + 1) % wall.length] as Spot;
    const offEdge = (b.x - a.x) * (y - a.y) - (b.y - a.y) * (x - a.x);
    const along = (x - a.x) * (x - b.x) + (y - a.y) * (y - b.y);
    if (Math.abs(offEdge) < 1e-6 && along <= 0) return false;
    if (a.y > y !== b.y > y && x < ((b.x - a.x) * (y - a.y)) / (b.y - a.y) + a.x) inside = !inside;
  }
  return inside;
}
