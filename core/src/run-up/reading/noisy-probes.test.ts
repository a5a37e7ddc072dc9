import type { Trace } from "../../trace/trace";
import { normalNumbers, seededRandom } from "../../units/seeded-random";
import { noisyProbes } from "./noisy-probes";

/** Four probes following the engine; `add` changes single values. */
function trace(add: (cylinder: number, line: number) => number): Trace {
  const normal = normalNumbers(seededRandom(4));
  const lines = 120;
  const t = Float64Array.from({ length: lines }, (_, i) => i);
  const channels: Trace["channels"] = {};
  for (const cylinder of [1, 2, 3, 4])
    channels[`egt${cylinder}`] = Float64Array.from(
      { length: lines },
      // Up within seconds, and down again: forty degrees per sample.
      (_, i) =>
        1150 +
        Math.min(170, Math.max(0, (i - 40) * 40)) -
        Math.min(170, Math.max(0, (i - 90) * 40)) +
        2 * normal() +
        add(cylinder, i),
    );
  return { t, channels };
}

test("a probe that jumps on one line of four is reported, the others and real changes are not", () => {
  const random = seededRandom(9);
  expect(
    noisyProbes(
      trace((cylinder) => (cylinder === 3 && random() < 0.25 ? 160 * (random() - 0.5) * 2 : 0)),
      0,
      120,
    ),
  ).toEqual([3]);
  expect(
    noisyProbes(
      trace(() => 0),
      0,
      120,
    ),
  ).toEqual([]);
});

test("one broken line makes no faulty probe, nor does a change on all of them", () => {
  expect(
    noisyProbes(
      trace((cylinder, i) => (cylinder === 2 && i === 50 ? 400 : 0)),
      0,
      120,
    ),
  ).toEqual([]);
  expect(
    noisyProbes(
      trace((_, i) => (i % 12 === 0 ? -90 : 0)),
      0,
      120,
    ),
  ).toEqual([]);
});

test("missing lines are left out", () => {
  expect(
    noisyProbes(
      trace((cylinder, i) => (cylinder === 1 && i % 3 === 0 ? Number.NaN : 0)),
      0,
      120,
    ),
  ).toEqual([]);
});
