const FIRST_MS = 1000;
const LAST_MS = 20_000;
/** Every device waits a while of its own: a group that comes back into the network does not come all at once. */
const jitter = (ms: number) => ms * (0.75 + Math.random() / 2);

/** Asks, and again after a while that grows, or as soon as there is a network, until `ask` says that it was answered. Ends with `signal`. */
export async function retryWithBackoff(ask: () => Promise<boolean>, signal?: AbortSignal): Promise<void> {
  for (let wait = FIRST_MS; !signal?.aborted; wait = Math.min(2 * wait, LAST_MS)) {
    if (await ask()) return;
    await whileOrOnline(jitter(wait), signal);
  }
}

/** Resolves after so long, sooner when the device says that it is in a network again, and at once with `signal`. */
function whileOrOnline(ms: number, signal?: AbortSignal): Promise<void> {
  return new Promise((resolve) => {
    if (signal?.aborted) return resolve();
    const done = () => {
      clearTimeout(timer);
      globalThis.removeEventListener?.("online", done);
      signal?.removeEventListener("abort", done);
      resolve();
    };
    const timer = setTimeout(done, ms);
    globalThis.addEventListener?.("online", done);
    signal?.addEventListener("abort", done);
  });
}
