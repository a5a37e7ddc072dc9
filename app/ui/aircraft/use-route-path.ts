import { useEffect, useMemo, useState } from "react";
import type { Point, routePath } from "./route-path";

type Draw = typeof routePath;
/** Loaded on demand: the first page draws no route and does not need the curve library. */
let fetched: Draw | undefined;
const fetchDraw = () => import("./route-path").then((module) => module.routePath);
const NONE = { done: "", ahead: "" };

/** Route through the stations; empty without stations, and while loading. */
export function useRoutePath(points: readonly Point[], walked: number): { done: string; ahead: string } {
  const [draw, setDraw] = useState<Draw | undefined>(() => fetched);
  const wanted = points.length > 0;
  useEffect(() => {
    if (draw || !wanted) return;
    let gone = false;
    fetchDraw().then(
      (drawn) => {
        fetched = drawn;
        if (!gone) setDraw(() => drawn);
      },
      // Without the route, the beads still show the position.
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [draw, wanted]);
  return useMemo(() => (draw ? draw(points, walked) : NONE), [draw, points, walked]);
}
