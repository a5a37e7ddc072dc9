/** Last write: resolves when stored, rejects on failure. */
let last: Promise<unknown> = Promise.resolve();
let whenTaken: (() => void)[] = [];

/** Registers a write of answers; earlier failed writes are retried with it. */
export function trackWrite(work: Promise<unknown>): void {
  last = work;
  work.then(
    () => {
      const waiting = whenTaken;
      whenTaken = [];
      for (const go of waiting) go();
    },
    () => undefined,
  );
}

/** Resolves when every answer given so far is stored, after any retries. */
export async function whenWritesComplete(): Promise<void> {
  try {
    await last;
  } catch {
    await new Promise<void>((resolve) => whenTaken.push(resolve));
  }
}
