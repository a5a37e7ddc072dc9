import type { AircraftType, Item } from "../../aircraft/aircraft-type";
import { bestOrder } from "../../route/best-order";
import { walkingDistances } from "../../route/walking-distance";

/** Maximum number of places: with more, the battery would run too long. */
const MOST = 12;

/**
 * Orders a station's items that are checked from outside with the power on by the shortest walk from the door and back, to save
 * the battery. Other items keep their places. Without a plan scale or a position the file's order is kept.
 */
export function lightsCheckOrder({ plan, stations }: AircraftType, items: readonly Item[]): Item[] {
  const outside = items.filter((item) => item.spot);
  const spots = outside.map((item) => stations.find((s) => s.id === item.spot));
  if (!plan?.metresPerUnit || outside.length < 3 || outside.length > MOST) return [...items];
  const points = spots.flatMap((s) => (s?.x === undefined || s.y === undefined ? [] : [{ x: s.x, y: s.y }]));
  if (points.length < outside.length) return [...items];
  const all = walkingDistances(plan, plan.door ? [...points, plan.door] : points);
  const distances = all.slice(0, points.length).map((row) => row.slice(0, points.length));
  const door = plan.door && all[points.length]?.slice(0, points.length);
  const { order } = bestOrder({ distances, ...(door && { door }) });
  const queue = order.map((i) => outside[i] as Item);
  return items.map((item) => (item.spot ? (queue.shift() ?? item) : item));
}
