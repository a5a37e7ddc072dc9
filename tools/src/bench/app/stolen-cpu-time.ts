import { readFileSync } from "node:fs";

interface Sample {
  from: number;
  to: number;
  /** Hundredths of a second that another machine had this one's processors while work was waiting. */
  stolen: number;
}

const EVERY_MS = 100;

/**
 * Watches what the machine beneath takes away ("steal" in /proc/stat): on a shared machine a page stands still through no work of its own. Where
 * there is no such file, nothing is taken.
 */
export function watchStolenTime() {
  const samples: Sample[] = [];
  let last = { at: Date.now(), stolen: stolenSoFar() };
  const timer = setInterval(() => {
    const now = { at: Date.now(), stolen: stolenSoFar() };
    samples.push({ from: last.at, to: now.at, stolen: now.stolen - last.stolen });
    last = now;
  }, EVERY_MS);
  return {
    /** Whether nothing was taken from a moment to another, and a tenth of a second before and after; milliseconds of the clock. */
    calm: (from: number, to: number) =>
      !samples.some(
        (sample) => sample.stolen > 0 && sample.to >= from - EVERY_MS && sample.from <= to + EVERY_MS,
      ),
    stop: () => clearInterval(timer),
  };
}

function stolenSoFar(): number {
  try {
    return Number(readFileSync("/proc/stat", "utf8").split("\n", 1)[0]?.trim().split(/\s+/)[8] ?? 0);
  } catch {
    return 0;
  }
}
