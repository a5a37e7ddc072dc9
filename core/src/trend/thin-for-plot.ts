import { QuantityError } from "../units/convert";

/** One point of a plot. */
export interface PlotPoint {
  x: number;
  y: number;
}

/**
 * Reduces points for a plot a given number of columns wide: the first, lowest, highest and last of each column, in order. The
 * plot looks the same. Fewer points are returned unchanged.
 * Valid range: x increasing, columns ≥ 1; throws QuantityError otherwise. Complexity: O(n). Source: Jugel et al., VLDB 2014 (M4),
 * from memory.
 */
export function thinForPlot(points: readonly PlotPoint[], columns: number): PlotPoint[] {
  if (!(columns >= 1)) throw new QuantityError("A plot needs at least one column.");
  const first = points[0];
  const last = points.at(-1);
  if (!first || !last || points.length <= 4 * columns) return [...points];
  const width = (last.x - first.x) / columns || 1;
  const kept: PlotPoint[] = [];
  for (let i = 0; i < points.length; ) {
    const column = Math.min(columns - 1, Math.floor(((points[i] as PlotPoint).x - first.x) / width));
    let end = i;
    let low = i;
    let high = i;
    while (end < points.length) {
      const point = points[end] as PlotPoint;
      if (Math.min(columns - 1, Math.floor((point.x - first.x) / width)) !== column) break;
      if (point.y < (points[low] as PlotPoint).y) low = end;
      if (point.y > (points[high] as PlotPoint).y) high = end;
      end++;
    }
    for (const at of [...new Set([i, low, high, end - 1])].sort((a, b) => a - b))
      kept.push(points[at] as PlotPoint);
    i = end;
  }
  return kept;
}
