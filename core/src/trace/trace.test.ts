import fc from "fast-check";
import { changePoints } from "./change-points";
import { cleanTrace, withoutFrozen } from "./clean-trace";
import { cutTrace, type Trace, traceOf } from "./trace";

/** A steady engine at ten samples per second; `change` alters single samples. */
function lines(seconds: number, change: (line: Record<string, number>, i: number) => void = () => {}) {
  return Array.from({ length: seconds * 10 }, (_, i) => {
    const line: Record<string, number> = {
      t: i / 10,
      rpm: (i > seconds * 5 ? 1800 : 1000) + ((i * 7) % 5),
      map: (i > seconds * 5 ? 18 : 12) + ((i * 3) % 4) / 50,
      fuelFlow: 5 + ((i * 3) % 7) / 50,
      oilPressure: 70 + ((i * 5) % 3) / 10,
    };
    change(line, i);
    return line as { t: number };
  });
}

const kinds = (trace: Trace) => cleanTrace(trace).problems.map((problem) => problem.kind);

describe("a trace is sorted", () => {
  it("a quiet one has nothing to be told", () => {
    expect(cleanTrace(traceOf(lines(30))).problems).toEqual([]);
  });

  it("lines out of order are sorted, and of two of one moment the later counts", () => {
    const made = lines(30);
    [made[40], made[41]] = [made[41] as { t: number }, made[40] as { t: number }];
    made.push({ ...(made[100] as { t: number }), rpm: 1234 } as never);
    const clean = cleanTrace(traceOf(made));
    expect(clean.problems.map((p) => p.kind).sort()).toEqual(["duplicates", "time disorder"]);
    expect(clean.trace.t.every((t, i) => i === 0 || t > (clean.trace.t[i - 1] as number))).toBe(true);
    expect(clean.trace.channels.rpm?.[100]).toBe(1234);
  });

  it("any shuffle of a trace comes out as the trace itself", () => {
    const made = lines(12);
    fc.assert(
      fc.property(fc.shuffledSubarray(made, { minLength: made.length }), (shuffled) => {
        expect(Array.from(cleanTrace(traceOf(shuffled)).trace.channels.rpm ?? [])).toEqual(
          Array.from(traceOf(made).channels.rpm ?? []),
        );
      }),
      { numRuns: 30 },
    );
  });

  it("a gap is reported with its length, and a channel that mostly did not come is named", () => {
    const clean = cleanTrace(traceOf(lines(30).filter(({ t }) => t < 10 || t > 14)));
    expect(clean.problems).toEqual([
      expect.objectContaining({ kind: "gap", sentence: "No data for 4.2 s." }),
    ]);
    expect(kinds(traceOf(lines(30, (line, i) => i % 3 && delete line.fuelFlow)))).toEqual(["missing"]);
  });

  it("a frozen channel is reported and not used where it stood still while the engine changed", () => {
    const clean = cleanTrace(traceOf(lines(30, (line) => Object.assign(line, { fuelFlow: 7 }))));
    expect(clean.problems).toEqual([expect.objectContaining({ kind: "frozen", channel: "fuelFlow" })]);
    expect(withoutFrozen(clean).channels.fuelFlow?.every(Number.isNaN)).toBe(true);
  });

  it("a few lines that are far apart and alike are no frozen probe", () => {
    const slow = (alike: number) =>
      kinds(
        traceOf(
          lines(
            30,
            (line, i) => i >= 100 && i < 100 + alike * 20 && Object.assign(line, { fuelFlow: 7 }),
          ).filter((_, i) => i % 20 === 0),
        ),
      );
    expect(slow(6)).not.toContain("frozen");
    expect(slow(10)).toContain("frozen");
  });

  it("zero rpm under oil pressure and fuel flow is the tachometer's fault, zero rpm of a stopped engine is not", () => {
    const dead = lines(30, (line, i) => i > 100 && Object.assign(line, { rpm: 0, map: 14 }));
    expect(kinds(traceOf(dead))).toContain("tachometer dead");
    const stopped = lines(
      30,
      (line, i) => i > 100 && Object.assign(line, { rpm: 0, map: 29.9, fuelFlow: 0, oilPressure: 0 }),
    );
    expect(kinds(traceOf(stopped))).not.toContain("tachometer dead");
  });

  it("what no probe can show is left out", () => {
    const clean = cleanTrace(
      traceOf(lines(30, (line, i) => i === 50 && Object.assign(line, { rpm: 65535 }))),
    );
    expect(clean.problems).toEqual([expect.objectContaining({ kind: "implausible", channel: "rpm" })]);
    expect(clean.trace.channels.rpm?.[50]).toBeNaN();
  });

  it("no rpm, and next to nothing, are reported", () => {
    expect(kinds(traceOf(lines(30, (line) => delete line.rpm)))).toContain("no rpm");
    expect(kinds(traceOf(lines(1)))).toContain("too short");
    expect(() => traceOf([])).toThrow("No data");
  });

  it("a piece is cut out with both its ends", () => {
    expect(Array.from(cutTrace(traceOf(lines(10)), 2, 2.3).t)).toEqual([2, 2.1, 2.2, 2.3]);
  });
});

describe("change points", () => {
  const options = { penalty: 6, least: 2, sigmaFloor: 1 };

  it("cut where the mean changes and where the scatter changes", () => {
    const calm = Array.from({ length: 20 }, (_, i) => (i % 3) - 1);
    const values = [...calm, ...calm.map((v) => v + 30), ...calm.map((v) => 30 + v * 25)];
    expect(changePoints(values, options)).toEqual([20, 40]);
  });

  it("are the best of all ways to cut: the same as trying every one (brute force by dynamic programming without pruning)", () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -40, max: 40 }), { minLength: 4, maxLength: 26 }), (values) => {
        expect(total(values, changePoints(values, options))).toBeCloseTo(bruteForce(values), 6);
      }),
      { numRuns: 200 },
    );
  });

  it("rejects anything that is not a number, and a piece of one", () => {
    expect(() => changePoints([1, Number.NaN], options)).toThrow("not a number");
    expect(() => changePoints([1, 2], { ...options, least: 1 })).toThrow("two values");
  });

  function cost(values: number[]): number {
    const mean = values.reduce((a, b) => a + b, 0) / values.length;
    const variance = values.reduce((sum, v) => sum + (v - mean) ** 2, 0) / values.length;
    return values.length * Math.log(variance + options.sigmaFloor ** 2);
  }
  function total(values: number[], cuts: number[]): number {
    return (
      [0, ...cuts].reduce((sum, start, i) => sum + cost(values.slice(start, cuts[i] ?? values.length)), 0) +
      cuts.length * options.penalty
    );
  }
  function bruteForce(values: number[]): number {
    const best = [-options.penalty];
    for (let to = 1; to <= values.length; to++) {
      best[to] = Number.POSITIVE_INFINITY;
      for (let from = 0; from <= to - options.least; from++)
        best[to] = Math.min(
          best[to] as number,
          (best[from] as number) + cost(values.slice(from, to)) + options.penalty,
        );
    }
    return best[values.length] as number;
  }
});
