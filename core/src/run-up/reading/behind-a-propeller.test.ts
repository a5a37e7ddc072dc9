import { diagnose, limitToProbes, observe } from "../../diagnosis/index";
import { type DrawnStretch, drawnTrace } from "../../testing/drawn-trace";
import { CASE_ENGINES, type CaseEngine } from "../../testing/run-up-cases";
import { readRunUp } from "../index";

/**
 * Drawn run-ups in which a step was once mistaken for the one before it: after a propeller cycle, a high throttle setting, an
 * exhaust still warming up.
 */
const [FOUR, SIX, , RADIAL] = CASE_ENGINES as readonly CaseEngine[] as [
  CaseEngine,
  CaseEngine,
  CaseEngine,
  CaseEngine,
];

const TAXI = { seconds: 25, rpm: 1000, egt: -170 };
const BOTH = { seconds: 9, rpm: 1800 };
const SIDE = { seconds: 8, rpm: 1730, egt: 60 };
const IDLE = { seconds: 8, rpm: 680, egt: -300 };
const CYCLE = [
  { seconds: 2, rpm: 1420, egt: 8, map: 19 },
  { seconds: 6, rpm: 1800 },
];
const work = (engine: CaseEngine, stretches: readonly DrawnStretch[], every = 0.5) => {
  const { profile, maxDropRpm, shape } = engine;
  const constant = shape.propeller === "constant speed";
  const reading = readRunUp(drawnTrace(stretches, { every, map: constant }), profile);
  const seen = observe(reading, profile, { maxDropRpm, maxDifferenceRpm: 50, resolutionRpm: 10 });
  const context = {
    cylinders: 4,
    fuelSystem: shape.fuelSystem,
    propeller: shape.propeller,
    suction: shape.vacuumPump,
    icingLikely: true,
  };
  const { ranked } = diagnose(seen, limitToProbes(context, reading));
  return { reading, seen, first: ranked[0]?.fault?.id, chance: ranked[0]?.probability ?? 0 };
};

test("a side that cuts out is a dead magneto, even after a propeller check; the propeller alone is none", () => {
  const cut = { seconds: 1.6, rpm: 300, egt: -700, map: 17 };
  const dead = work(SIX, [TAXI, BOTH, ...CYCLE, ...CYCLE, cut, BOTH, SIDE, BOTH, IDLE]);
  expect(dead.first).toBe("dead magneto");
  const sides = dead.reading.steps.filter(({ cut: stopped }) => stopped);
  expect(sides).toHaveLength(1);
  expect(Math.abs((sides[0]?.at ?? 0) - 50)).toBeLessThan(1.5);
  const sound = work(SIX, [TAXI, BOTH, ...CYCLE, ...CYCLE, SIDE, BOTH, { ...SIDE, rpm: 1725 }, BOTH, IDLE]);
  expect(sound.reading.steps.some(({ cut: stopped }) => stopped)).toBe(false);
  expect(sound.first).toBeUndefined();
});

test("readings inside a cut are part of it: steps follow each other in time", () => {
  const cut = { seconds: 2, rpm: 250, egt: -700, map: 17 };
  const { reading } = work(SIX, [TAXI, BOTH, ...CYCLE, SIDE, BOTH, cut, BOTH, IDLE], 1);
  reading.steps.forEach((step, i) => {
    const next = reading.steps[i + 1];
    if (next) expect(next.at).toBeGreaterThanOrEqual(step.at);
    expect(step.until).toBeGreaterThan(step.at);
  });
});

test("carburettor heat after a propeller check is read, and the ice it melts is reported", () => {
  const at = (rpm: number) => (1700 / 1800) * rpm;
  const scaled = (stretches: readonly DrawnStretch[]) =>
    stretches.map((one) => ({ ...one, rpm: at(one.rpm), ...(one.to && { to: at(one.to) }) }));
  const iced = work(
    RADIAL,
    scaled([
      TAXI,
      { seconds: 12, rpm: 1730 },
      { seconds: 2, rpm: 1400, egt: 8, map: 19 },
      { seconds: 8, rpm: 1730 },
      { seconds: 4, rpm: 1665, egt: -30 },
      { seconds: 10, rpm: 1665, to: 1745, egt: -30 },
      { seconds: 9, rpm: 1815 },
      { ...SIDE, rpm: 1745 },
      { ...BOTH, rpm: 1815 },
      { ...SIDE, rpm: 1740 },
      { ...BOTH, rpm: 1815 },
      IDLE,
    ]),
  );
  expect(iced.reading.heat?.doubt).toBeUndefined();
  expect(iced.reading.heat?.gain).toBeGreaterThan(50);
  expect(iced.first).toBe("carburettor ice");
});

test("a throttle set slightly high and trimmed back is no side, even with a slowly rising EGT", () => {
  const reading = readRunUp(
    drawnTrace(
      [
        TAXI,
        { seconds: 5, rpm: 1825 },
        { seconds: 10, rpm: 1795 },
        // Directly from one side to the other, with the same drop.
        { ...SIDE, seconds: 15, rpm: 1725 },
        { ...BOTH, rpm: 1795 },
        IDLE,
      ],
      { every: 0.2, probe: 4.5 },
    ),
    FOUR.profile,
  );
  expect(reading.tries.map(({ drop }) => Math.abs(drop - 70) < 12)).toEqual([true]);
  expect(reading.tries[0]?.from).toBeGreaterThan(38);
  expect(reading.heat).toBeUndefined();
});

test("without prompts, no change is no evidence of carburettor heat: nobody knows whether it was applied", () => {
  const { reading } = work(FOUR, [TAXI, BOTH, SIDE, BOTH, SIDE, BOTH, IDLE]);
  const heat = {
    from: 60,
    to: 66,
    held: 6,
    base: 1800,
    hot: 1797,
    drop: 3,
    dropSigma: 2,
    seen: false,
    roseWhileHot: 0,
  };
  const of = (prompted: boolean) =>
    observe({ ...reading, prompted, heat }, FOUR.profile, {
      maxDropRpm: 125,
      maxDifferenceRpm: 50,
      resolutionRpm: 10,
    }).find(({ feature }) => feature === "heat")?.state;
  expect(of(true)).toBe("nothing");
  expect(of(false)).toBeUndefined();
});

test("a cut between two lines is visible in the EGT: all cylinders fall at once", () => {
  const moment = (seconds: number, egt: number) =>
    work(FOUR, [TAXI, BOTH, SIDE, { ...BOTH, seconds: 10 }, { seconds, rpm: 300, egt }, BOTH, IDLE], 2);
  const out = moment(0.6, -900);
  expect(out.first).toBe("dead magneto");
  // Closing and opening the throttle for a moment leaves EGT nearly unchanged.
  expect(moment(0.6, -80).reading.steps.some(({ cut }) => cut)).toBe(false);
});
