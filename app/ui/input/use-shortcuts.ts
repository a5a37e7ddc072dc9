import { useLayoutEffect, useRef } from "react";

export type Shortcuts = Record<string, (() => void) | undefined>;

/** Keys of a real keyboard, for instructors and demonstrations. Never while words are being typed or a key is held with another. */
export function useShortcuts(shortcuts: Shortcuts): void {
  const latest = useRef(shortcuts);
  latest.current = shortcuts;
  // Before the paint: a key that follows at once what is seen must not be lost.
  useLayoutEffect(() => {
    if (typeof window === "undefined" || !window.addEventListener) return;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      // One key, one act: what it has just done may have brought up another item, whose keys are not meant.
      if (event.defaultPrevented) return;
      if (target && (target.tagName === "INPUT" || target.tagName === "TEXTAREA")) return;
      // A focused button keeps its own Enter and space.
      if ((event.key === "Enter" || event.key === " ") && target?.getAttribute("tabindex") === "0") return;
      const act = latest.current[event.key.length === 1 ? event.key.toLowerCase() : event.key];
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
