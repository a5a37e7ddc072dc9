/** What the device was given to keep last: ends when it is on the disk, fails where the disk did not take it. */
let last: Promise<unknown> = Promise.resolve();
let whenTaken: (() => void)[] = [];

/** Answers are on their way to the disk; what did not come there earlier goes along. */
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

/** Resolves once every answer that was given so far is on the disk, however often it has to be tried. */
export async function whenWritesComplete(): Promise<void> {
  try {
    await last;
  } catch {
    await new Promise<void>((resolve) => whenTaken.push(resolve));
  }
}
