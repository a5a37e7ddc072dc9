import { AWAY_SECONDS, longGapSince } from "@cravix/core/pace/long-gap";
import { useEffect, useRef } from "react";
import type { Acts, LoadedPreflight } from "../../open-preflight";

const LOOK_MS = 10_000;

/** Detects and records interruptions: screen off, another app, a call, a long pause. */
export function useInterruptionGuard(preflight: LoadedPreflight, acts: Acts): void {
  const latest = useRef({ preflight, acts });
  latest.current = { preflight, acts };
  useEffect(() => {
    let hiddenAt: number | undefined;
    const open = () => latest.current.preflight.state.interruptions.some((i) => i.resumedAt === undefined);
    const gap = () => {
      const { list, state } = latest.current.preflight;
      const since = longGapSince(list, state, Date.now());
      if (since) latest.current.acts.interrupt("long gap", since);
    };
    const onVisibility = () => {
      if (document.visibilityState === "hidden") {
        hiddenAt = Date.now();
        return;
      }
      const since = hiddenAt;
      hiddenAt = undefined;
      const { state } = latest.current.preflight;
      if (since === undefined || Date.now() - since < AWAY_SECONDS * 1000 || state.signed || open()) return;
      latest.current.acts.interrupt("screen left", new Date(since).toISOString());
    };
    gap();
    const timer = setInterval(() => document.visibilityState === "visible" && gap(), LOOK_MS);
    document.addEventListener("visibilitychange", onVisibility);
    return () => {
      clearInterval(timer);
      document.removeEventListener("visibilitychange", onVisibility);
    };
  }, []);
}
