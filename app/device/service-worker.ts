import type { Workbox } from "workbox-window";

let workbox: Workbox | undefined;

/**
 * Caches the interface for offline use, and reports when a new version is available. The new version waits until the user loads
 * it or no window is open. Without service worker support (plain HTTP on a local network) the other pages are prefetched instead.
 */
export async function cacheInterface(onNewVersion: () => void): Promise<void> {
  if (typeof navigator === "undefined" || process.env.NODE_ENV !== "production") return;
  if (!navigator.serviceWorker) {
    fetchAhead();
    return;
  }
  try {
    const { Workbox } = await import("workbox-window");
    const hadOne = Boolean(navigator.serviceWorker.controller);
    workbox = new Workbox("/sw.js");
    workbox.addEventListener("waiting", onNewVersion);
    // Activated in another window: reload, because old files are gone.
    workbox.addEventListener("controlling", () => {
      if (hadOne) window.location.reload();
    });
    await workbox.register();
    // An installed page may stay open for days.
    document.addEventListener("visibilitychange", () => {
      if (document.visibilityState === "visible") void workbox?.update().catch(() => undefined);
    });
  } catch (error) {
    console.error("Cravix could not be saved for offline use.", error);
    fetchAhead();
  }
}

/** Activates the new version and reloads. */
export function loadNewVersion(): void {
  workbox?.messageSkipWaiting();
}

/** Prefetches the other pages' files, listed by the build in the page. */
function fetchAhead(): void {
  const later = document.getElementById("later")?.textContent;
  for (const href of later ? (JSON.parse(later) as string[]) : []) {
    const link = document.createElement("link");
    link.rel = "prefetch";
    link.href = href;
    document.head.append(link);
  }
}
