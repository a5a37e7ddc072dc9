import { useSyncExternalStore } from "react";

/** What a browser hands over when this page can be installed; not in the standard's own types yet. */
interface InstallOffer extends Event {
  prompt(): Promise<unknown>;
}

let offer: InstallOffer | undefined;
let installed = false;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** Begins to listen: the browser offers it once, soon after the page has opened. */
export function hearInstallOffer(): void {
  if (typeof window === "undefined" || !window.addEventListener) return;
  installed = window.matchMedia?.("(display-mode: standalone)").matches ?? false;
  window.addEventListener("beforeinstallprompt", (event) => {
    // Asked at a time of ours, and where it is read, not over what is being done.
    event.preventDefault();
    offer = event as InstallOffer;
    tell();
  });
  window.addEventListener("appinstalled", () => {
    installed = true;
    offer = undefined;
    tell();
  });
}

const subscribe = (listener: () => void) => {
  listeners.add(listener);
  return () => void listeners.delete(listener);
};

export type Install = "installed" | "offered" | "by hand";
const stateNow = (): Install => (installed ? "installed" : offer ? "offered" : "by hand");

/** Whether Cravix is on the home screen, can be put there at a tap, or by the browser's own menu. */
export const useInstall = (): Install => useSyncExternalStore(subscribe, stateNow, stateNow);

/** Lets the browser ask. What is answered comes as an event of its own. */
export async function install(): Promise<void> {
  const asked = offer;
  offer = undefined;
  tell();
  await asked?.prompt().catch(() => undefined);
}
