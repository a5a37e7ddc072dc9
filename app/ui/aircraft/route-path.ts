import { curveCatmullRom, line } from "d3-shape";

export interface Point {
  x: number;
  y: number;
}

/**
 * Smooth route through the stations, split after the first `walked` segments into done and ahead. Both parts share one geometry,
 * so they meet exactly.
 */
export function routePath(points: readonly Point[], walked: number): { done: string; ahead: string } {
  const whole = line<Point>()
    .x((p) => p.x)
    .y((p) => p.y)
    .curve(curveCatmullRom.alpha(0.5))([...points]);
  const [start = "", ...stretches] = (whole ?? "").split("C");
  if (stretches.length === 0) return { done: "", ahead: "" };
  const cut = Math.max(0, Math.min(walked, stretches.length));
  const end = cut === 0 ? start : `M${(stretches[cut - 1] ?? "").split(",").slice(-2).join(",")}`;
  const join = (from: string, parts: string[]) =>
    parts.length === 0 ? "" : `${from}${parts.map((part) => `C${part}`).join("")}`;
  return { done: join(start, stretches.slice(0, cut)), ahead: join(end, stretches.slice(cut)) };
}
