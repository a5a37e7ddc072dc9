/** Keeps the interface itself on the device, so that it opens on the apron without a network. */
export function registerServiceWorker(): void {
  if (typeof navigator === "undefined" || !navigator.serviceWorker || process.env.NODE_ENV !== "production")
    return;
  navigator.serviceWorker
    .register("/sw.js")
    .catch((error) => console.error("The interface could not be kept for use without a network.", error));
}
