import { useEffect, useMemo, useState } from "react";
import type { lapPath, Point } from "./route-path";

type Draw = typeof lapPath;
/** Fetched once: the first page draws aircraft and no thread, and does not wait for what draws curves. */
let fetched: Draw | undefined;
const fetchDraw = () => import("./route-path").then((module) => module.lapPath);
const NONE = { done: "", ahead: "" };

/** The thread through the stations; empty where there are none, and for the moment until the curve is here. */
export function useLapPath(points: readonly Point[], walked: number): { done: string; ahead: string } {
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
      // Without it the beads stand alone: they say where one is.
      () => undefined,
    );
    return () => {
      gone = true;
    };
  }, [draw, wanted]);
  return useMemo(() => (draw ? draw(points, walked) : NONE), [draw, points, walked]);
}
