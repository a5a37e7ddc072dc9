/** First wait before trying again, ms. */
export const FIRST_WAIT_MS = 1000;
/** Longest wait, ms. */
export const LAST_WAIT_MS = 30_000;
/** The wait after this one, ms. */
export const nextWait = (wait: number): number => Math.min(2 * wait, LAST_WAIT_MS);
/** Randomised delay, so that a group returning online does not send all at once. */
export const jitter = (ms: number): number => ms * (0.75 + Math.random() / 2);

/** Retries with increasing delays, and immediately when online, until `ask` returns true. Ends with `signal`. */
export async function retryWithBackoff(ask: () => Promise<boolean>, signal?: AbortSignal): Promise<void> {
  for (let wait = FIRST_WAIT_MS; !signal?.aborted; wait = nextWait(wait)) {
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
