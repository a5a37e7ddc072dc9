import type { Workbox } from "workbox-window";

let workbox: Workbox | undefined;

/**
 * Keeps the interface itself on the device, so that it opens on the apron without a network; and tells when a new version has been fetched. It stays
 * beside the old one until it is asked for, or until no window of Cravix is open. Where the browser has no service worker (a plain address in the
 * hangar's own network) the other pages are fetched ahead all the same.
 */
export async function keepInterface(onNewVersion: () => void): Promise<void> {
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
    // Asked for in another window: this one would go on with parts that are no longer there.
    workbox.addEventListener("controlling", () => {
      if (hadOne) window.location.reload();
    });
    await workbox.register();
    // An installed page may be open for days.
    document.addEventListener("visibilitychange", () => {
      if (document.visibilityState === "visible") void workbox?.update().catch(() => undefined);
    });
  } catch (error) {
    console.error("Cravix could not be saved for offline use.", error);
    fetchAhead();
  }
}

/** Puts the new version in place and opens it. */
export function loadNewVersion(): void {
  workbox?.messageSkipWaiting();
}

/** The parts of the other pages, named by the build in the page itself. */
function fetchAhead(): void {
  const later = document.getElementById("later")?.textContent;
  for (const href of later ? (JSON.parse(later) as string[]) : []) {
    const link = document.createElement("link");
    link.rel = "prefetch";
    link.href = href;
    document.head.append(link);
  }
}
