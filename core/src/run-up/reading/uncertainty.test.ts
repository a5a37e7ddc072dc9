import { drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine } from "../../testing/run-up-cases";
import { median } from "../../trend/median";
import { type RunUpReading, readRunUp } from "../index";

/** Readings of drawn run-ups compared with the truth: usually within twice the stated uncertainty, which must itself be small. */
const [FOUR, SIX] = CASE_ENGINES as readonly CaseEngine[] as [CaseEngine, CaseEngine];
const TAXI = { seconds: 25, rpm: 1000, egt: -170 };
const BOTH = { seconds: 10, rpm: 1800 };
const SIDE = { seconds: 9, rpm: 1730, egt: 60 };
const WARM = { seconds: 10, rpm: 1715, egt: -45 };
const IDLE = { seconds: 10, rpm: 680, egt: -300 };
const CYCLE = { seconds: 2, rpm: 1420, egt: 8, map: 19 };
const TRACES = 12;

const STRETCHES = {
  fixed: [TAXI, BOTH, SIDE, BOTH, { ...SIDE, rpm: 1725 }, BOTH, WARM, BOTH, IDLE],
  cycled: [TAXI, BOTH, CYCLE, BOTH, SIDE, BOTH, { ...SIDE, rpm: 1725 }, BOTH, IDLE],
};
/** Each trace is read once. */
const read = new Map<string, RunUpReading[]>();
function readings(kind: keyof typeof STRETCHES, every: number): RunUpReading[] {
  const key = `${kind} ${every}`;
  const made =
    read.get(key) ??
    Array.from({ length: TRACES }, (_, seed) =>
      readRunUp(
        drawnTrace(STRETCHES[kind], { every, noise: 6, seed: seed + 1, map: kind === "cycled" }),
        (kind === "cycled" ? SIX : FOUR).profile,
      ),
    );
  read.set(key, made);
  return made;
}

/** Share of truths within two sigma, and the median sigma. */
function asSaid(
  all: RunUpReading[],
  of: (reading: RunUpReading) => { value: number | undefined; sigma: number | undefined } | undefined,
  truth: number,
) {
  const said = all.flatMap((reading) => {
    const { value, sigma } = of(reading) ?? {};
    return value === undefined || sigma === undefined ? [] : [{ value, sigma }];
  });
  return {
    found: said.length,
    within: said.filter(({ value, sigma }) => Math.abs(value - truth) <= 2 * sigma).length,
    middle: median(said.map(({ sigma }) => sigma)),
  };
}

describe.each([0.5, 1])("with a line every %s s", (every) => {
  test.each<[string, Parameters<typeof asSaid>[1], number, number]>([
    ["the fall in warm air", ({ heat }) => heat && { value: heat.drop, sigma: heat.dropSigma }, 85, 12],
    ["what it gained behind it", ({ heat }) => heat && { value: heat.gain, sigma: heat.gainSigma }, 0, 12],
    ["the idle", ({ idle }) => idle && { value: idle.floor, sigma: idle.floorSigma }, 680, 8],
    ["where it came back to", ({ right }) => right && { value: right.back, sigma: right.backSigma }, 1800, 8],
    // A probe of 2.5 s has shown 58 of 60 °F over the last second and a half of nine, and ten seconds before it was still 1.6 too
    // high from the other side.
    [
      "the rise of an exhaust",
      ({ left }) => left && { value: left.egtChange[2], sigma: left.egtSigma[2] },
      56,
      8,
    ],
  ])("%s lies within what is stated", (_, of, truth, most) => {
    const { found, within, middle } = asSaid(readings("fixed", every), of, truth);
    expect(found).toBeGreaterThanOrEqual(TRACES - 3);
    expect(within).toBeGreaterThanOrEqual(0.7 * found);
    expect(middle).toBeLessThan(most);
    expect(middle).toBeGreaterThan(0.5);
  });

  test("the propeller drop is less certain the further apart the lines are", () => {
    const { found, within, middle } = asSaid(
      readings("cycled", every),
      ({ propeller }) => propeller && { value: propeller.drop, sigma: propeller.dropSigma },
      // Two seconds of a 0.6 s lag reach 96 %.
      0.964 * 380,
    );
    expect(found).toBeGreaterThanOrEqual(TRACES - 3);
    expect(within).toBeGreaterThanOrEqual(0.7 * found);
    expect(middle).toBeLessThan(180 * every);
  });
});

test("response times are no more certain than the line interval", () => {
  const cycled = (every: number) =>
    readRunUp(
      drawnTrace([TAXI, BOTH, CYCLE, BOTH, SIDE, BOTH, { ...SIDE, rpm: 1725 }, BOTH, IDLE], {
        every,
        map: true,
      }),
      SIX.profile,
    );
  const [close, far] = [cycled(0.2), cycled(1)];
  expect(far.propeller?.answeredInSigma).toBeGreaterThan(close.propeller?.answeredInSigma ?? 1);
  expect(far.right?.backAfterSigma).toBeGreaterThan(0.25);
});
