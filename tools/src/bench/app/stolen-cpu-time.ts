import { readFileSync } from "node:fs";

interface Sample {
  from: number;
  to: number;
  /** CPU time taken by the host while work was waiting, in hundredths of a second. */
  stolen: number;
}

const EVERY_MS = 100;

/** Measures CPU time the host takes away ("steal" in /proc/stat). Without that file it is zero. */
export function watchStolenTime() {
  const samples: Sample[] = [];
  let last = { at: Date.now(), stolen: stolenSoFar() };
  const timer = setInterval(() => {
    const now = { at: Date.now(), stolen: stolenSoFar() };
    samples.push({ from: last.at, to: now.at, stolen: now.stolen - last.stolen });
    last = now;
  }, EVERY_MS);
  return {
    /** True if no time was stolen in a period, with a margin of a tenth of a second; milliseconds. */
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
