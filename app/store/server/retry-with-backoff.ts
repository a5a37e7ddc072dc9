const FIRST_MS = 1000;
const LAST_MS = 20_000;
/** Randomised delay, so that a group returning online does not send all at once. */
const jitter = (ms: number) => ms * (0.75 + Math.random() / 2);

/** Retries with increasing delays, and immediately when online, until `ask` returns true. Ends with `signal`. */
export async function retryWithBackoff(ask: () => Promise<boolean>, signal?: AbortSignal): Promise<void> {
  for (let wait = FIRST_MS; !signal?.aborted; wait = Math.min(2 * wait, LAST_MS)) {
    if (await ask()) return;
    await whileOrOnline(jitter(wait), signal);
  }
}

/** Resolves after a delay, when the device comes online, or with `signal`. */
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
