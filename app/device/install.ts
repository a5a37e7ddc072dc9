import { useSyncExternalStore } from "react";

/** The browser's install event, missing in the standard types. */
interface InstallOffer extends Event {
  prompt(): Promise<unknown>;
}

let offer: InstallOffer | undefined;
let installed = false;
const listeners = new Set<() => void>();
const tell = () => {
  for (const listener of listeners) listener();
};

/** Listens for the install event, which fires once soon after the page opens. */
export function hearInstallOffer(): void {
  if (typeof window === "undefined" || !window.addEventListener) return;
  installed = window.matchMedia?.("(display-mode: standalone)").matches ?? false;
  window.addEventListener("beforeinstallprompt", (event) => {
    // Show the prompt when asked for, not over the current task.
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

/** Install state: installed, can be installed with one tap, or through the browser's menu. */
export const useInstall = (): Install => useSyncExternalStore(subscribe, stateNow, stateNow);

/** Shows the browser's install prompt. The answer arrives as a separate event. */
export async function install(): Promise<void> {
  const asked = offer;
  offer = undefined;
  tell();
  await asked?.prompt().catch(() => undefined);
}
