import { useLayoutEffect, useRef } from "react";

export type Shortcuts = Record<string, (() => void) | undefined>;

/** Keyboard shortcuts, for instructors and demonstrations. Inactive while typing or with modifier keys. */
export function useShortcuts(shortcuts: Shortcuts): void {
  const latest = useRef(shortcuts);
  latest.current = shortcuts;
  // Registered before painting, so that a key pressed immediately is not lost.
  useLayoutEffect(() => {
    if (typeof window === "undefined" || !window.addEventListener) return;
    const onKey = (event: KeyboardEvent) => {
      const target = event.target as HTMLElement | null;
      if (event.ctrlKey || event.metaKey || event.altKey) return;
      // One action per key: the action may bring up another item with the same shortcut.
      if (event.defaultPrevented) return;
      if (target && (target.tagName === "INPUT" || target.tagName === "TEXTAREA")) return;
      // A focused button handles Enter and space itself.
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
