import { rateOf } from "../testing/measure-unseen-cases";
import { runUnseenCase } from "../testing/run-unseen-case";
import { UNSEEN_CASE_PROBLEMS, type UnseenCase, unseenCase } from "../testing/unseen-cases";
import { normalNumbers, seededRandom } from "../units/seeded-random";

/**
 * Noise must not raise confidence. Cases occur at library rates: among faulty engines alone it would, since unreadable traces
 * default to the most frequent fault. A tachometer scattering by more than a hundred is broken, and reported.
 */
const EACH = 3;
const cases = UNSEEN_CASE_PROBLEMS.flatMap((trouble) =>
  Array.from({ length: trouble === "none" ? 6 * EACH : EACH }, (_, i) => ({
    one: unseenCase(trouble, 3000 + i),
    weight: rateOf(unseenCase(trouble, 3000 + i)) / (trouble === "none" ? 6 * EACH : EACH),
    seed: i,
  })),
);

function noisy(one: UnseenCase, rpm: number, seed: number): UnseenCase {
  const normal = normalNumbers(seededRandom(77 + seed));
  // A stopped engine shows zero.
  const lines = one.lines.map((line) => ({
    ...line,
    rpm: line.rpm < 60 ? line.rpm : Math.max(0, line.rpm + rpm * normal()),
  }));
  return { ...one, lines };
}

/** Mean stated probability of the top explanation, and how often it is right. */
function stated(rpm: number): { sure: number; right: number } {
  let sure = 0;
  let right = 0;
  let all = 0;
  for (const { one, weight, seed } of cases) {
    // At library rates: the limit on claims hides most of the difference.
    const { byRates, place } = runUnseenCase(noisy(one, rpm, seed));
    sure += weight * Math.max(...byRates.values());
    right += place === 0 ? weight : 0;
    all += weight;
  }
  return { sure: sure / all, right: right / all };
}

test("more noise never raises the stated certainty on average, and it stays close to the truth", () => {
  const levels = [0, 20, 100].map(stated);
  // A hundredth either way is the small sample.
  for (const [i, { sure }] of levels.entries())
    for (const less of levels.slice(0, i)) expect(sure).toBeLessThanOrEqual(less.sure + 0.012);
  for (const { sure, right } of levels) expect(sure - right).toBeLessThan(0.12);
});

test("a tachometer that jumps while it should be steady is reported, and no drop is read from it", () => {
  const one = unseenCase("none", 3001);
  const { reading } = runUnseenCase(noisy(one, 60, 1));
  expect(reading.notes.map(({ kind }) => kind)).toContain("unsteady");
  for (const made of reading.tries) expect(made.doubt).toBeDefined();
  // Not with steps of 25, where the scatter is the tachometer's own.
  const coarse = {
    ...one,
    lines: one.lines.map((line) => ({ ...line, rpm: 25 * Math.round(line.rpm / 25) })),
  };
  expect(runUnseenCase(coarse).reading.notes.map(({ kind }) => kind)).not.toContain("unsteady");
});
