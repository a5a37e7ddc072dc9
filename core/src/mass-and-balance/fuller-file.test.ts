import fc from "fast-check";
import { checkLoad } from "./check-load";
import type { MassMoment } from "./envelope";
import { armOf } from "./load-path";
import type { Burn, Load, LoadingProfile } from "./loading-profile";
import { faultText } from "./loading-text";
import { smallestChanges } from "./smallest-change";

const SOURCE = { kind: "handbook" as const, text: "example", example: true };

describe("a file that says more", () => {
  const glider: LoadingProfile = {
    format: "cravix.loading/1",
    registration: "QX-TST",
    datum: "the leading edge",
    weighing: { date: "2025-03-01", emptyKg: 250, armMm: 600, source: SOURCE },
    stations: [{ id: "seat", name: "seat", kind: "seat", armMm: -500, pilot: true }],
    tanks: [
      { tank: "wing", armMm: 200, water: "may stay" },
      { tank: "tail", armMm: 4000, water: "may stay" },
    ],
    envelope: {
      corners: [
        { kg: 300, armMm: 150 },
        { kg: 500, armMm: 150 },
        { kg: 500, armMm: 450 },
        { kg: 300, armMm: 450 },
      ],
      source: SOURCE,
    },
    maxTakeoffKg: { value: 500, source: SOURCE },
  };
  const load = (wing: number, tail: number): Load => ({
    stations: { seat: 80 },
    litres: { wing, tail },
    kgPerL: 0.72,
  });
  const none: Burn = { taxiL: 0, tripL: 0 };

  test("water ballast is judged with it, without it, and while one tank after the other is emptied", () => {
    // By hand: 250·600 − 80·500 = 110,000 over 330 kg: 333 mm empty. With 100 L in the wings 302 mm; with 6 L in the tail too 353 mm.
    expect(checkLoad(glider, load(0, 0), none).faults).toEqual([]);
    expect(checkLoad(glider, load(100, 6), none).faults).toEqual([]);
    // The wings emptied first leave 12 L in the tail: 158,000 over 342 kg are 462 mm, 12 mm aft of the limit; full or empty it fits.
    const full = checkLoad(glider, load(100, 12), none);
    expect(armOf(full.points[0] as MassMoment)).toBeCloseTo(178_000 / 442, 6);
    expect(full.faults).toMatchObject([{ kind: "aft", mm: expect.closeTo(158_000 / 342 - 450, 6) }]);
  });

  test("water is not fuel: it is not burnt, and less fuel is no way out", () => {
    const heavy = checkLoad(glider, load(200, 0), none);
    expect(heavy.points.map(({ kg }) => kg)).toEqual([530, 530, 530, 530]);
    expect(smallestChanges(glider, load(200, 0), none).some((change) => change.do === "less fuel")).toBe(
      false,
    );
  });

  test("water that has to be dumped before landing does not count at landing", () => {
    const landing = { ...glider, maxLandingKg: { value: 400, source: SOURCE } };
    expect(checkLoad(landing, load(100, 6), none).faults).toMatchObject([
      { kind: "too heavy", of: "landing" },
    ]);
    const dumped = {
      ...landing,
      tanks: landing.tanks.map((tank) => ({ ...tank, water: "dumped before landing" as const })),
    };
    expect(checkLoad(dumped, load(100, 6), none).faults).toEqual([]);
  });

  test("each tank has its density, the report its moment, and the ramp its limit", () => {
    const twin: LoadingProfile = {
      ...glider,
      weighing: { ...glider.weighing, momentKgMm: 150_100 },
      tanks: [
        { tank: "main", armMm: 300, kgPerL: 0.84 },
        { tank: "aux", armMm: 300 },
      ],
      maxRampKg: { value: 400, source: SOURCE },
      maxTakeoffKg: { value: 398, source: SOURCE },
    };
    const fuelled: Load = { stations: { seat: 80 }, litres: { main: 50, aux: 40 }, kgPerL: 0.72 };
    const { points, faults } = checkLoad(twin, fuelled, { taxiL: 10, tripL: 0 });
    // 250 + 80 + 50·0.84 + 40·0.72 = 400.8 kg; taxi uses 5 L of each: 7.8 kg less.
    expect(points[0]).toMatchObject({
      kg: expect.closeTo(400.8, 9),
      moment: expect.closeTo(150_100 - 40_000 + 21_240, 6),
    });
    expect(points.find(({ name }) => name === "take-off")?.kg).toBeCloseTo(393, 9);
    expect(faults.map(faultText)).toEqual(["0.8 kg over 400 kg at engine start."]);
  });

  test("an exact fit fits, whatever its decimals", () => {
    fc.assert(
      fc.property(fc.integer({ min: 500, max: 1200 }), fc.integer({ min: 1, max: 9 }), (tenths, parts) => {
        const seat = tenths / 10;
        const places = Array.from({ length: parts }, (_, i) => ({
          id: `p${i}`,
          name: `p${i}`,
          kind: "seat" as const,
          armMm: 0,
          ...(i === 0 && { pilot: true as const }),
        }));
        const each = seat / parts;
        const profile = {
          ...glider,
          stations: places,
          tanks: [],
          maxTakeoffKg: { value: 250 + seat, source: SOURCE },
        };
        const stations = Object.fromEntries(places.map(({ id }) => [id, each]));
        return !checkLoad(profile, { stations, litres: {}, kgPerL: 1 }, none).faults.some(
          ({ kind }) => kind === "too heavy",
        );
      }),
    );
  });
});
