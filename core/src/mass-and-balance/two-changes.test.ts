import fc from "fast-check";
import { checkLoad } from "./check-load";
import type { LoadChange } from "./load-adjustments";
import type { Load, LoadingProfile } from "./loading-profile";
import { changesText } from "./loading-text";
import { smallestChanges } from "./smallest-change";
import { changesWithinLimits, smallestPairs } from "./two-changes";

const source = { kind: "handbook" as const, text: "example", example: true };

/** Small enough to try every pair of half kilograms. */
const SMALL: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TST",
  datum: "firewall",
  weighing: { date: "2025-03-01", emptyKg: 345, armMm: 1000, source },
  stations: [
    { id: "front", name: "the front seat", kind: "seat", armMm: 940, maxKg: 110, pilot: true },
    { id: "rear", name: "the rear seat", kind: "seat", armMm: 1500, maxKg: 110 },
    { id: "bags", name: "the baggage", kind: "baggage", armMm: 2000, maxKg: 14 },
    { id: "nose", name: "the nose locker", kind: "baggage", armMm: 200, maxKg: 9 },
  ],
  tanks: [{ tank: "main", armMm: 1250 }],
  envelope: {
    corners: [
      { kg: 340, armMm: 930 },
      { kg: 420, armMm: 930 },
      { kg: 480, armMm: 980 },
      { kg: 480, armMm: 1080 },
      { kg: 340, armMm: 1040 },
    ],
    source,
  },
  maxTakeoffKg: { value: 480, source },
};
const BURN = { taxiL: 2, tripL: 10, reserveL: 8 };
const load = (stations: Record<string, number>, litres: number): Load => ({
  stations,
  litres: { main: litres },
  kgPerL: 0.72,
});

/** Independent second implementation of a change. */
function done(one: Load, change: LoadChange): Load {
  if (change.do === "less fuel")
    return { ...one, litres: { main: (one.litres.main as number) - change.kg / one.kgPerL } };
  const stations = { ...one.stations };
  if ("from" in change) stations[change.from] = (stations[change.from] ?? 0) - change.kg;
  if ("to" in change) stations[change.to] = (stations[change.to] ?? 0) + change.kg;
  return { ...one, stations };
}

/** Every change of the small aircraft in every amount; whole persons only. */
function everyChange({ stations, litres }: Load, most: number): LoadChange[][] {
  const amounts = (to: number) => {
    const all: number[] = [];
    for (let kg = 0.5; kg <= Math.min(to, most) + 1e-9; kg += 0.5) all.push(kg);
    return all;
  };
  const lockers = ["bags", "nose"];
  const spareKg = ((litres.main as number) - BURN.taxiL - BURN.tripL - BURN.reserveL) * 0.72;
  const there = (id: string) => stations[id] ?? 0;
  const room = (id: string) => (id === "bags" ? 14 : 9) - there(id);
  return [
    there("rear") > 0 ? [{ do: "take out", from: "rear", kg: there("rear") }] : [],
    ...lockers.map((from) => amounts(there(from)).map((kg): LoadChange => ({ do: "take out", from, kg }))),
    ...lockers.map((to) => amounts(room(to)).map((kg): LoadChange => ({ do: "put in ballast", to, kg }))),
    amounts(there("bags")).map((kg) => ({ do: "move", from: "bags", to: "nose", kg })),
    amounts(there("nose")).map((kg) => ({ do: "move", from: "nose", to: "bags", kg })),
    amounts(spareKg).map((kg) => ({ do: "less fuel", kg, litres: kg / 0.72 })),
  ];
}

const crosses = (a: LoadChange, b: LoadChange): boolean => {
  const touched = (c: LoadChange) => [
    ...("from" in c ? [`-${c.from}`] : []),
    ...("to" in c ? [`+${c.to}`] : []),
  ];
  const [one, two] = [touched(a), touched(b)];
  return one.some(
    (x) => (x.startsWith("-") && two.includes(x)) || two.includes(`${x[0] === "-" ? "+" : "-"}${x.slice(1)}`),
  );
};

describe("two changes together", () => {
  const cases = fc.record({
    front: fc.integer({ min: 55, max: 110 }),
    rear: fc.constantFrom(0, 0, 0, 20),
    bags: fc.integer({ min: 0, max: 14 }),
    nose: fc.integer({ min: 0, max: 9 }),
  });

  it("are inside, and nothing smaller of any two kinds is: every half kilogram tried", () => {
    let helped = 0;
    let nothing = 0;
    fc.assert(
      fc.property(cases, fc.integer({ min: 20, max: 60 }), (stations, litres) => {
        const one = load(stations, litres);
        if (checkLoad(SMALL, one, BURN).faults.length === 0) return;
        if (smallestChanges(SMALL, one, BURN).length > 0) return;
        const pairs = smallestPairs(SMALL, one, BURN);
        const [best] = pairs;
        for (const pair of pairs) {
          helped++;
          expect(checkLoad(SMALL, pair.reduce(done, one), BURN).faults).toEqual([]);
        }
        const totals = pairs.map(([a, b]) => a.kg + b.kg);
        expect([...totals].sort((a, b) => a - b)).toEqual(totals);
        if (!best) nothing++;
        const below = best ? (totals[0] as number) - 0.5 : Number.POSITIVE_INFINITY;
        const kinds = everyChange(one, below);
        for (const [i, as] of kinds.entries())
          for (const bs of kinds.slice(i + 1))
            for (const a of as)
              for (const b of bs)
                if (a.kg + b.kg < below + 1e-9 && !crosses(a, b))
                  if (checkLoad(SMALL, done(done(one, a), b), BURN).faults.length === 0)
                    throw new Error(`smaller: ${changesText([a, b], SMALL)}, not ${totals[0]} kg`);
      }),
      { numRuns: 150, seed: 7 },
    );
    expect(helped).toBeGreaterThan(10);
    expect(nothing).toBeGreaterThan(0);
  });

  it("are searched only where no single change helps", () => {
    const heavy = load({ front: 80, rear: 30, bags: 4 }, 40);
    const single = smallestChanges(SMALL, heavy, BURN);
    const ways = changesWithinLimits(SMALL, heavy, BURN, 3);
    if (single.length > 0) expect(ways).toEqual(single.slice(0, 3).map((change) => [change]));
    else expect(ways.every((way) => way.length === 2)).toBe(true);
    expect(changesWithinLimits(SMALL, load({ front: 75 }, 30), BURN, 3)).toEqual([]);
  });

  it("never take the fuel to be burnt, or the reserve, out of the tanks", () => {
    // 20 L are needed; without them it would be light enough.
    const ways = changesWithinLimits(SMALL, load({ front: 110, rear: 22 }, 24), BURN, 5);
    for (const change of ways.flat())
      if (change.do === "less fuel") expect(24 - change.litres).toBeGreaterThanOrEqual(20);
    expect(smallestChanges(SMALL, load({ front: 110, rear: 28 }, 30), BURN)).not.toContainEqual(
      expect.objectContaining({ do: "less fuel" }),
    );
  });

  it("are worded for people: nobody is removed by the kilogram", () => {
    expect(
      changesText(
        [
          { do: "take out", from: "rear", kg: 60, all: true },
          { do: "less fuel", kg: 7, litres: 10 },
        ],
        SMALL,
      ),
    ).toBe("Leave the rear seat empty (60 kg). Also: Take 10 L less fuel (7 kg).");
    expect(changesText([{ do: "take out", from: "rear", kg: 6.5 }], SMALL)).toBe(
      "6.5 kg less on the rear seat: seat a lighter person there.",
    );
  });
});
