import fc from "fast-check";
import { checkLoad } from "./check-load";
import { marginsAlong, spanAt } from "./envelope";
import { armOf, loadPath, massMoment } from "./load-path";
import { loadingFaults } from "./loading-faults";
import type { Load, LoadingProfile } from "./loading-profile";
import { probabilityOutsideLimits } from "./loading-risk";
import { changeText, faultText } from "./loading-text";
import { weighingChange } from "./same-datum";
import { remainingCapacity, smallestChanges } from "./smallest-change";

const source = { kind: "handbook" as const, text: "example", example: true };
const limit = (value: number) => ({ value, source });

const AIRCRAFT: LoadingProfile = {
  format: "cravix.loading/1",
  registration: "QX-TST",
  datum: "firewall",
  weighing: { date: "2025-03-01", emptyKg: 740, armMm: 1000, source },
  stations: [
    { id: "front", name: "the front seats", kind: "seat", armMm: 940, maxKg: 240, pilot: true },
    { id: "rear", name: "the rear seats", kind: "seat", armMm: 1850, maxKg: 200 },
    { id: "bags", name: "the baggage", kind: "baggage", armMm: 2420, maxKg: 54 },
    { id: "shelf", name: "the aft shelf", kind: "baggage", armMm: 3120, maxKg: 22 },
  ],
  tanks: [
    { tank: "left", armMm: 1220 },
    { tank: "right", armMm: 1220 },
  ],
  groups: [{ name: "baggage and shelf", stations: ["bags", "shelf"], maxKg: 54 }],
  envelope: {
    corners: [
      { kg: 650, armMm: 890 },
      { kg: 885, armMm: 890 },
      { kg: 1110, armMm: 1000 },
      { kg: 1110, armMm: 1200 },
      { kg: 650, armMm: 1200 },
    ],
    source,
  },
  maxTakeoffKg: limit(1110),
};
const BURN = { taxiL: 4, tripL: 40 };
const load = (stations: Record<string, number>, litres = 120): Load => ({
  stations,
  litres: { left: litres / 2, right: litres / 2 },
  kgPerL: 0.72,
});
const check = (one: Load) => checkLoad(AIRCRAFT, one, BURN);

describe("mass and moment, by handbook examples", () => {
  /** Pounds and inches add up like kilograms and millimetres. FAA-H-8083-25, weight and balance (from memory; recomputed). */
  it("2,100 lb at 78.3, 340 at 85, 350 at 121, fuel 450 at 75, baggage 80 at 150: 3,320 lb, 281,430 lb·in, CG 84.8", () => {
    const sample: LoadingProfile = {
      ...AIRCRAFT,
      weighing: { date: "2025-01-01", emptyKg: 2100, armMm: 78.3, source },
      stations: [
        { id: "front", name: "front", kind: "seat", armMm: 85 },
        { id: "rear", name: "rear", kind: "seat", armMm: 121 },
        { id: "bags", name: "baggage", kind: "baggage", armMm: 150 },
      ],
      tanks: [{ tank: "fuel", armMm: 75 }],
    };
    const sum = massMoment(
      sample,
      { stations: { front: 340, rear: 350, bags: 80 }, kgPerL: 6 },
      { fuel: 75 },
    );
    expect(sum.kg).toBe(3320);
    expect(sum.moment).toBeCloseTo(281_430, 6);
    expect(armOf(sum)).toBeCloseTo(84.8, 1);
  });

  const bare = (kg: number, arm: number, aft: number): LoadingProfile => ({
    ...AIRCRAFT,
    groups: [],
    tanks: [],
    weighing: { date: "2025-01-01", emptyKg: kg, armMm: arm, source },
    stations: [
      { id: "fore", name: "fore", kind: "baggage", armMm: 30 },
      { id: "aft", name: "aft", kind: "baggage", armMm: 150 },
    ],
    envelope: {
      corners: [
        { kg: 1, armMm: 1 },
        { kg: 9000, armMm: 1 },
        { kg: 9000, armMm: aft },
        { kg: 1, armMm: aft },
      ],
      source,
    },
    maxTakeoffKg: limit(9000),
  });

  /** FAA-H-8083-25: 7,800 lb, CG 81.5, limit 80.5, from 150 to 30 in: 65 lb (from memory; 7,800 × 1 / 120). */
  it("the shift: 65 lb", () => {
    const there = 200;
    const without = (7800 * 81.5 - there * 150) / (7800 - there);
    const profile = bare(7800 - there, without, 80.5);
    const one: Load = { stations: { aft: there }, litres: {}, kgPerL: 1 };
    const [change] = smallestChanges(profile, one, { taxiL: 0, tripL: 0 }).filter((c) => c.do === "move");
    expect(change).toEqual({ do: "move", from: "aft", to: "fore", kg: 65 });
  });

  /** FAA-H-8083-25: 6,860 lb at 80.0, 140 lb at 150: CG 81.4 (from memory). */
  it("the addition: 81.4", () => {
    const sum = massMoment(bare(6860, 80, 99), { stations: { aft: 140 }, kgPerL: 1 }, {});
    expect(armOf(sum)).toBeCloseTo(81.4, 6);
  });
});

describe("the envelope", () => {
  it("has one range at each mass, straight between its corners", () => {
    const { corners } = AIRCRAFT.envelope;
    expect(spanAt(corners, 700)).toEqual({ forward: 890, aft: 1200 });
    expect(spanAt(corners, 997.5)?.forward).toBeCloseTo(945, 9);
    expect(spanAt(corners, 1110)).toEqual({ forward: 1000, aft: 1200 });
    expect([spanAt(corners, 649), spanAt(corners, 1111)]).toEqual([undefined, undefined]);
  });

  it("a flight inside at both ends and outside in the middle is outside", () => {
    // The forward limit has a corner between: at 1,000 kg it is at 1,000 mm, at both ends far less.
    const corners = [
      { kg: 900, armMm: 880 },
      { kg: 1000, armMm: 1000 },
      { kg: 1100, armMm: 880 },
      { kg: 1100, armMm: 1200 },
      { kg: 900, armMm: 1200 },
    ];
    const at = (kg: number, arm: number) => ({ kg, moment: kg * arm });
    const margin = marginsAlong(corners, at(1080, 950), at(920, 950));
    expect(margin.forwardMm).toBeLessThan(-49);
    expect(margin.forwardAt.kg).toBeCloseTo(1000, 6);
  });

  it("its margins equal those of a thousand points of the flight", () => {
    const inside = fc.record({
      kg: fc.integer({ min: 660, max: 1100 }),
      arm: fc.integer({ min: 850, max: 1250 }),
    });
    fc.assert(
      fc.property(inside, inside, (a, b) => {
        const { corners } = AIRCRAFT.envelope;
        const [from, to] = [a, b].map(({ kg, arm }) => ({ kg, moment: kg * arm })) as [
          { kg: number; moment: number },
          { kg: number; moment: number },
        ];
        const margin = marginsAlong(corners, from, to);
        let [forward, aft] = [Number.POSITIVE_INFINITY, Number.POSITIVE_INFINITY];
        for (let i = 0; i <= 1000; i++) {
          const kg = from.kg + ((to.kg - from.kg) * i) / 1000;
          const moment = from.moment + ((to.moment - from.moment) * i) / 1000;
          const span = spanAt(corners, kg);
          if (!span) continue;
          forward = Math.min(forward, moment / kg - span.forward);
          aft = Math.min(aft, span.aft - moment / kg);
        }
        expect(margin.forwardMm).toBeLessThanOrEqual(forward + 1e-6);
        expect(margin.aftMm).toBeLessThanOrEqual(aft + 1e-6);
        expect(forward - margin.forwardMm).toBeLessThan(1.5);
        expect(aft - margin.aftMm).toBeLessThan(1.5);
      }),
      { numRuns: 100 },
    );
  });
});

describe("the path of the fuel", () => {
  it("from start through take-off and landing to zero fuel; tanks in order, those together evenly", () => {
    const tips: LoadingProfile = {
      ...AIRCRAFT,
      tanks: [
        { tank: "main", armMm: 1200 },
        { tank: "tip-left", armMm: 1400 },
        { tank: "tip-right", armMm: 1400 },
      ],
      burn: [["tip-left", "tip-right"], ["main"]],
    };
    const path = loadPath(
      tips,
      { stations: {}, litres: { main: 50, "tip-left": 10, "tip-right": 20 }, kgPerL: 0.7 },
      { taxiL: 4, tripL: 40 },
    );
    expect(path.map(({ name, litres }) => [name, litres])).toEqual([
      ["start", 80],
      ["take-off", 76],
      [undefined, 60],
      [undefined, 50],
      ["landing", 36],
      ["zero fuel", 0],
    ]);
    const zero = path.at(-1);
    expect(zero && armOf(zero)).toBeCloseTo(1000, 9);
  });

  it("burning more than there is ends at zero", () => {
    const path = loadPath(AIRCRAFT, load({}, 10), { taxiL: 20, tripL: 100 });
    expect(path.map(({ name, litres }) => [name, litres])).toEqual([
      ["start", 10],
      ["take-off", 0],
      ["landing", 0],
      ["zero fuel", 0],
    ]);
  });
});

describe("a load", () => {
  it("inside is inside; sixteen kilograms over are reported to the kilogram, and where in flight it is aft", () => {
    expect(check(load({ front: 160, rear: 70, bags: 10 })).faults).toEqual([]);
    const heavy = check(load({ front: 170, rear: 110, bags: 22.48 }));
    expect(heavy.faults).toMatchObject([{ kind: "too heavy", of: "take-off", kg: expect.closeTo(16, 2) }]);
    expect(heavy.faults.map(faultText)).toEqual(["16 kg over 1,110 kg at take-off."]);
    const aft = check(load({ front: 70, rear: 190, bags: 30, shelf: 20 }, 60));
    expect(aft.faults.map(({ kind }) => kind)).toEqual(["aft"]);
    expect(aft.faults[0] && faultText(aft.faults[0])).toMatch(/^Aft of the limit by \d+ mm, at zero fuel\.$/);
  });

  it("each station, groups, a seat that is too light, and non-lifting parts have their own limits", () => {
    expect(check(load({ front: 150, shelf: 23 })).faults.map(faultText)).toEqual([
      "1.0 kg over 22 kg in the aft shelf.",
    ]);
    expect(check(load({ front: 150, bags: 40, shelf: 20 })).faults.map(faultText)).toContain(
      "6.0 kg over 54 kg in baggage and shelf.",
    );
    const glider: LoadingProfile = {
      ...AIRCRAFT,
      tanks: [],
      groups: [],
      stations: [
        { id: "seat", name: "the front seat", kind: "seat", armMm: 500, minKg: 70, maxKg: 110, pilot: true },
      ],
      weighing: { ...AIRCRAFT.weighing, emptyKg: 396, armMm: 1300 },
      envelope: {
        corners: [
          { kg: 300, armMm: 900 },
          { kg: 600, armMm: 900 },
          { kg: 600, armMm: 1250 },
          { kg: 300, armMm: 1250 },
        ],
        source,
      },
      maxTakeoffKg: limit(590),
      nonLifting: { emptyKg: 250, stations: ["seat"], max: limit(350) },
    };
    const sat = (kg: number) =>
      checkLoad(glider, { stations: { seat: kg }, litres: {}, kgPerL: 1 }, { taxiL: 0, tripL: 0 }).faults;
    expect(sat(62).map(faultText)).toContain(
      "8.0 kg too light on the front seat: at least 70 kg is required, ballast included.",
    );
    expect(sat(80)).toEqual([]);
    expect(sat(105).map(({ of }) => of)).toEqual(["the non-lifting parts"]);
    const [ballast] = smallestChanges(
      glider,
      { stations: { seat: 62 }, litres: {}, kgPerL: 1 },
      { taxiL: 0, tripL: 0 },
    );
    expect(ballast && changeText(ballast, glider)).toBe("Add 8 kg of ballast at the front seat.");
  });

  it("an invalid mass is rejected, not guessed", () => {
    expect(() => check(load({ front: Number.NaN }))).toThrow();
    expect(() => check(load({ front: -1 }))).toThrow();
    expect(() => check(load({}, -4))).toThrow();
  });
});

describe("the smallest change", () => {
  it("is inside, and half a kilogram less is not: every kind of change tried", () => {
    const loads = fc.record({
      front: fc.integer({ min: 60, max: 200 }),
      rear: fc.integer({ min: 0, max: 200 }),
      bags: fc.integer({ min: 0, max: 54 }),
      shelf: fc.integer({ min: 0, max: 22 }),
    });
    let changed = 0;
    fc.assert(
      fc.property(loads, fc.integer({ min: 20, max: 180 }), (stations, litres) => {
        const one = load(stations, litres);
        const bad = check(one).faults;
        const changes = smallestChanges(AIRCRAFT, one, BURN);
        if (bad.length === 0) {
          expect(changes).toEqual([]);
          return;
        }
        for (const change of changes) {
          changed++;
          const by = (kg: number): Load => {
            const s: Record<string, number> = { ...stations };
            if (change.do === "less fuel")
              return { ...one, litres: scaled(one, 1 - kg / one.kgPerL / litres) };
            if ("from" in change) s[change.from] = (s[change.from] ?? 0) - kg;
            if ("to" in change) s[change.to] = (s[change.to] ?? 0) + kg;
            return { ...one, stations: s };
          };
          expect(check(by(change.kg)).faults).toEqual([]);
          for (let kg = 0.5; kg < change.kg; kg += 0.5) expect(check(by(kg)).faults).not.toEqual([]);
        }
        expect([...changes].sort((a, b) => a.kg - b.kg)).toEqual(changes);
      }),
      { numRuns: 100 },
    );
    expect(changed).toBeGreaterThan(10);
  });
  const scaled = ({ litres }: Load, part: number) =>
    Object.fromEntries(Object.entries(litres).map(([tank, l]) => [tank, l * part]));

  it("never removes the pilot, and names its station", () => {
    const changes = smallestChanges(AIRCRAFT, load({ front: 200, rear: 130 }, 180), BURN);
    expect(changes.some((c) => "from" in c && c.from === "front")).toBe(false);
    expect(changes.map((c) => changeText(c, AIRCRAFT)).join(" ")).toContain("less fuel");
  });

  it("exactly so much more fits", () => {
    const one = load({ front: 160, rear: 20 });
    for (const { id, kg } of remainingCapacity(AIRCRAFT, one, BURN)) {
      const more = (x: number) =>
        check({ ...one, stations: { ...one.stations, [id]: (one.stations[id] ?? 0) + x } }).faults;
      expect(more(kg)).toEqual([]);
      expect(more(kg + 1)).not.toEqual([]);
    }
    expect(
      remainingCapacity(AIRCRAFT, load({ front: 240, rear: 200 }, 180), BURN).every(({ kg }) => kg === 0),
    ).toBe(true);
  });
});

test("the probability of being outside is zero far inside, a half at the limit, and grows with the uncertainty", () => {
  expect(probabilityOutsideLimits(AIRCRAFT, load({ front: 150 }, 60), BURN)).toBe(0);
  // Exactly at the mass limit: 740 + 240 of seats and bags + fuel, less taxi, makes 1,110.
  const edge = load({ front: 160, rear: 100, bags: 26.48 }, 120);
  expect(check(edge).margin.aftMm).toBeGreaterThan(10);
  const chance = probabilityOutsideLimits(AIRCRAFT, edge, BURN);
  expect(chance).toBeGreaterThan(0.4);
  expect(chance).toBeLessThan(0.6);
  const near = load({ front: 160, rear: 94, bags: 26.48 }, 120);
  const more = { stationKg: 8, fuelL: 10, emptyArmMm: 3 };
  expect(probabilityOutsideLimits(AIRCRAFT, near, BURN, more)).toBeGreaterThan(
    probabilityOutsideLimits(AIRCRAFT, near, BURN),
  );
});

test("an impossible file is rejected with its path", () => {
  expect(loadingFaults(AIRCRAFT)).toEqual([]);
  const faults = loadingFaults({
    ...AIRCRAFT,
    stations: [
      ...AIRCRAFT.stations,
      { id: "bags", name: "again", kind: "baggage", armMm: 1, minKg: 9, maxKg: 3 },
    ],
    groups: [{ name: "x", stations: ["bags", "wing"], maxKg: 9 }],
    burn: [["left"]],
    envelope: {
      corners: [
        { kg: 650, armMm: 890 },
        { kg: 1000, armMm: 900 },
        { kg: 700, armMm: 950 },
        { kg: 1050, armMm: 1200 },
        { kg: 640, armMm: 1200 },
      ],
      source,
    },
  });
  expect(faults.map(({ path }) => path)).toEqual([
    "stations[4].id",
    "stations[4].minKg",
    "groups[0].stations[1]",
    "burn",
    "envelope.corners",
    "maxTakeoffKg.value",
  ]);
});

describe("a person without a mass", () => {
  it("is asked for, and nothing is assumed in its place: the pilot's seat is never empty", () => {
    expect(check(load({ bags: 20 })).missing).toEqual(["Enter the pilot's mass at the front seats."]);
    expect(check(load({ front: 0, rear: 80 })).missing).toHaveLength(1);
    expect(check(load({ front: 55 })).missing).toEqual([]);
  });

  it("is missing if somebody comes along and the seats hold one, not if they hold two", () => {
    expect(check({ ...load({ front: 84 }), people: 2 }).missing[0]).toMatch(
      /only 84 kg is entered for the seats/,
    );
    expect(check({ ...load({ front: 84, rear: 60 }), people: 2 }).missing).toEqual([]);
    // Both on the front seats, entered as one number.
    expect(check({ ...load({ front: 150 }), people: 2 }).missing).toEqual([]);
    // Bags are not people.
    expect(check({ ...load({ front: 84, bags: 50 }), people: 2 }).missing).toHaveLength(1);
  });
});

describe("too heavy without a person", () => {
  it("is too heavy with them: reported whoever is missing, without remedies that need their mass", () => {
    const heavy = check(load({ front: 0, shelf: 30, rear: 200, bags: 54 }));
    expect(heavy.missing).toHaveLength(1);
    expect(heavy.faults.map(({ kind }) => kind)).toContain("place too heavy");
    expect(heavy.faults.every(({ kind }) => kind === "too heavy" || kind === "place too heavy")).toBe(true);
    expect(check(load({ front: 0, rear: 150 })).faults).toEqual([]);
  });
});

describe("arms from another datum", () => {
  const faults = (profile: Partial<LoadingProfile>) => loadingFaults({ ...AIRCRAFT, ...profile });

  it("are reported at their place: an empty arm from the nose among arms from the firewall", () => {
    expect(faults({})).toEqual([]);
    // The same aircraft weighed from a datum 1,650 mm ahead of the firewall, the rest of the file unchanged.
    const [fault] = faults({ weighing: { ...AIRCRAFT.weighing, armMm: 2650 } });
    expect(fault?.path).toBe("weighing.armMm");
    expect(fault?.expected).toMatch(/between \d+ and \d+ mm, but the envelope is 890 to 1200 mm/);
  });

  it("are reported at a station that would be outside the aircraft", () => {
    const [front, ...rest] = AIRCRAFT.stations;
    const stations = [{ ...front, armMm: 9400 } as (typeof AIRCRAFT.stations)[number], ...rest];
    expect(faults({ stations }).map(({ path }) => path)).toEqual(["stations[0].armMm"]);
  });

  it("are accepted if all are measured from another point", () => {
    fc.assert(
      fc.property(fc.integer({ min: -8000, max: 8000 }), (by) => {
        const moved = <T extends { armMm: number }>(one: T): T => ({ ...one, armMm: one.armMm + by });
        expect(
          faults({
            weighing: moved(AIRCRAFT.weighing),
            stations: AIRCRAFT.stations.map(moved),
            tanks: AIRCRAFT.tanks.map(moved),
            envelope: { ...AIRCRAFT.envelope, corners: AIRCRAFT.envelope.corners.map(moved) },
          }),
        ).toEqual([]);
      }),
    );
  });

  it("never reject a file that has some load inside", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -3000, max: 3000 }),
        fc.integer({ min: 50, max: 120 }),
        fc.integer({ min: 0, max: 200 }),
        (by, front, rear) => {
          const profile = { ...AIRCRAFT, weighing: { ...AIRCRAFT.weighing, armMm: 1000 + by } };
          fc.pre(checkLoad(profile, load({ front, rear }), BURN).faults.length === 0);
          expect(loadingFaults(profile)).toEqual([]);
        },
      ),
    );
  });
});

describe("a new weighing", () => {
  const before = { emptyKg: 740, armMm: 1000 };

  it("is accepted if a radio explains the change, by the handbook's addition", () => {
    // 6 kg added 1,400 mm behind the CG: (740 × 1000 + 6 × 2400) / 746 (FAA-H-8083-1, addition; recomputed).
    const armMm = (740 * 1000 + 6 * 2400) / 746;
    const change = weighingChange(before, { emptyKg: 746, armMm });
    expect(change.kg).toBe(6);
    expect(change.mm).toBeCloseTo(11.26, 2);
    expect(change.odd).toBe(false);
  });

  it("is queried if nothing added explains the change", () => {
    expect(weighingChange(before, { emptyKg: 741, armMm: 1300 }).odd).toBe(true);
    expect(weighingChange(before, { emptyKg: 740, armMm: 960 }).odd).toBe(true);
    expect(weighingChange(before, { emptyKg: 800, armMm: 1120 }).odd).toBe(false);
  });
});
