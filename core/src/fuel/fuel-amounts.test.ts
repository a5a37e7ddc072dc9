import fc from "fast-check";
import Qty from "js-quantities";
import { FUEL_UNITS, fuelFromLitres, litresOfFuel, readFuelUnit } from "./grade/fuel-amount";
import { fuelDensity, fuelGrade } from "./grade/fuel-grades";
import { fuelUnits } from "./grade/fuel-text";
import { reconcileUplift } from "./log/reconcile-uplift";
import { refuelPlan } from "./margin/refuel-plan";

describe("amounts of fuel", () => {
  // Published: NIST SP 811 (from memory); library: js-quantities.
  test.each([
    ["US gal", "gallon"],
    ["imp gal", "imperial gallon"],
  ] as const)("%s are so many litres", (unit, _words) => {
    const factor = unit === "US gal" ? Qty("1 gallon").to("liter").scalar : 4.54609;
    expect(litresOfFuel(10, unit, 0.72)).toBeCloseTo(10 * factor, 6);
  });

  test("pounds and kilograms use the density", () => {
    expect(litresOfFuel(1, "lb", 1)).toBeCloseTo(Qty("1 lb").to("kg").scalar, 9);
    // FAA-H-8083-1: aviation gasoline 6 lb a US gallon, kerosene 6.8 (from memory).
    expect(litresOfFuel(6, "lb", fuelDensity("100LL"))).toBeCloseTo(3.785, 2);
    expect(litresOfFuel(6.8, "lb", fuelDensity("kerosene"))).toBeCloseTo(3.785, 2);
  });

  test("convert back from every unit unchanged", () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 900, noNaN: true }),
        fc.constantFrom(...FUEL_UNITS),
        (litres, unit) => {
          expect(litresOfFuel(fuelFromLitres(litres, unit, 0.719), unit, 0.719)).toBeCloseTo(litres, 8);
        },
      ),
    );
  });

  test("weigh less when warm", () => {
    expect(fuelDensity("100LL", 30)).toBeLessThan(fuelDensity("100LL", 15));
    expect(fuelDensity("100LL", -15) / fuelDensity("100LL", 15)).toBeCloseTo(1.037, 3);
    expect(() => fuelDensity("100LL", 80)).toThrow("−40 to 50");
    expect(() => fuelDensity("rum")).toThrow("is not on the list");
  });

  test("are shown whole or to a tenth, required ones rounded up", () => {
    const gallons = fuelUnits("US gal", 0.72);
    expect(gallons.say(37.85411784)).toBe("10.0 US gal");
    expect(gallons.atLeast(37.9)).toBe("10.1 US gal");
    expect(fuelUnits("L", 0.72).atLeast(12.01)).toBe("13 L");
    expect(fuelUnits("lb", 0.72).quantity(-10).value).toBeCloseTo(-15.87, 2);
    expect(fuelUnits("kg", 0.72).number(100)).toBe("72");
  });

  test.each([
    ["L", "L"],
    ["Ltr.", "L"],
    ["USG", "US gal"],
    ["US  gallons", "US gal"],
    ["lbs", "lb"],
    ["gal", undefined],
    ["barrel", undefined],
  ])("a receipt's %s is read as %s", (text, unit) => {
    expect(readFuelUnit(text)).toBe(unit);
  });

  // Published: ASTM D910, D7547 (from memory).
  test("dyes are those of the standards", () => {
    expect(["100LL", "100", "80", "UL91"].map((id) => fuelGrade(id)?.colours[0])).toEqual([
      "blue",
      "green",
      "red",
      "colourless",
    ]);
  });
});

describe("a receipt against the dipstick", () => {
  const before = { value: 40, sigma: 2 };
  const after = (litres: number) => ({ value: 40 + litres, sigma: 2 });

  test("agrees when it says what was added", () => {
    expect(reconcileUplift(before, after(52), { amount: 50, unit: "L" }, 0.719)).toMatchObject({
      agrees: true,
      instead: [],
    });
    expect(reconcileUplift(before, after(50), { amount: 13.2, unit: "US gal" }, 0.719).agrees).toBe(true);
  });

  test("of 100 US gal that was 100 litres is recognised", () => {
    const found = reconcileUplift(before, after(100), { amount: 100, unit: "US gal" }, 0.719);
    expect(found.agrees).toBe(false);
    expect(found.receiptL).toBeCloseTo(378.5, 1);
    expect(found.instead[0]).toMatchObject({ uplift: { amount: 100, unit: "L" } });
    expect(found.instead[0]?.why).toContain("100 L would fit, not US gal");
  });

  test("of 100 litres that was 100 US gal is recognised as well", () => {
    const found = reconcileUplift(before, after(378), { amount: 100, unit: "L" }, 0.719);
    expect(found.instead.map((s) => s.uplift.unit)).toContain("US gal");
  });

  test("with a misplaced decimal point or swapped digits is recognised", () => {
    expect(reconcileUplift(before, after(52), { amount: 520, unit: "L" }, 0.719).instead[0]?.why).toContain(
      "point",
    );
    expect(reconcileUplift(before, after(83), { amount: 38, unit: "L" }, 0.719).instead[0]?.why).toContain(
      "digits",
    );
  });

  test("without an explanation offers none", () => {
    expect(reconcileUplift(before, after(22), { amount: 60, unit: "L" }, 0.719)).toMatchObject({
      agrees: false,
      instead: [],
    });
    expect(() => reconcileUplift(before, after(7), { amount: 0, unit: "L" }, 0.719)).toThrow(
      "amount on the receipt",
    );
  });
});

describe("how much to add", () => {
  const tank = (id: string, side: "left" | "right", volumeL: number, more: object = {}) => ({
    id,
    name: `${id} tank`,
    side,
    capacityL: 100,
    volumeL,
    ...more,
  });
  const filling = { kgPerL: 0.72, pump: { unit: "L", step: 1 } as const };

  test("fills the emptier tank first, then both evenly", () => {
    const plan = refuelPlan({
      ...filling,
      tanks: [tank("left", "left", 50), tank("right", "right", 30)],
      neededL: 40,
    });
    expect(plan.steps.map(({ tankId, litres }) => [tankId, Math.round(litres)])).toEqual([
      ["right", 30],
      ["left", 10],
    ]);
    expect(plan).toMatchObject({ litres: 40, missingL: 0, fullL: 120 });
  });

  test("fills mains before tips, and says what does not fit", () => {
    const tanks = [
      tank("left", "left", 90),
      tank("right", "right", 90),
      tank("left-tip", "left", 0, { capacityL: 20, fillOrder: 1 }),
      tank("right-tip", "right", 0, { capacityL: 20, fillOrder: 1 }),
    ];
    expect(new Set(refuelPlan({ ...filling, tanks, neededL: 16 }).steps.map((s) => s.tankId))).toEqual(
      new Set(["left", "right"]),
    );
    expect(refuelPlan({ ...filling, tanks, neededL: 70 })).toMatchObject({
      litres: 60,
      missingL: 10,
      limitedBy: "tanks",
    });
  });

  test("stops at the mass limit", () => {
    const tanks = [tank("left", "left", 10), tank("right", "right", 10)];
    const plan = refuelPlan({ ...filling, tanks, neededL: 100, massRoomKg: 36 });
    expect(plan).toMatchObject({ litres: 50, missingL: 50, limitedBy: "mass", fullL: 50 });
  });

  test("is in the pump's own unit, rounded up", () => {
    const plan = refuelPlan({
      ...filling,
      tanks: [tank("left", "left", 10)],
      neededL: 20,
      pump: { unit: "US gal", step: 0.1 },
    });
    expect(plan.steps[0]?.amount).toBe(5.3);
    expect(plan.litres).toBeGreaterThanOrEqual(20);
  });

  test("never exceeds a tank, the mass or the imbalance, for any fuel and any wish", () => {
    const level = fc.integer({ min: 0, max: 100 });
    fc.assert(
      fc.property(
        level,
        level,
        fc.integer({ min: 0, max: 200 }),
        fc.integer({ min: 0, max: 200 }),
        (a, b, neededL, massRoomKg) => {
          const imbalanceL = 30;
          const tanks = [tank("left", "left", a), tank("right", "right", b)];
          const plan = refuelPlan({ ...filling, tanks, neededL, imbalanceL, massRoomKg });
          const now: Record<string, number> = { left: a, right: b };
          let apart = Math.abs(a - b);
          for (const { tankId, litres } of plan.steps) {
            now[tankId] = (now[tankId] ?? 0) + litres;
            const next = Math.abs((now.left ?? 0) - (now.right ?? 0));
            // Never further apart than allowed, or than before.
            expect(next).toBeLessThanOrEqual(Math.max(imbalanceL, apart) + 1e-6);
            apart = next;
          }
          expect(Math.max(...Object.values(now))).toBeLessThanOrEqual(100 + 1e-6);
          expect(plan.litres * 0.72).toBeLessThanOrEqual(massRoomKg + 1e-6);
          expect(plan.litres + plan.missingL).toBeGreaterThanOrEqual(neededL - 1e-6);
          expect(plan.steps.reduce((sum, s) => sum + s.litres, 0)).toBeCloseTo(plan.litres, 6);
        },
      ),
    );
  });

  test("more in a tank than it holds is rejected", () => {
    expect(() => refuelPlan({ ...filling, tanks: [tank("left", "left", 101)], neededL: 1 })).toThrow(
      "is not possible",
    );
    expect(() => refuelPlan({ ...filling, tanks: [tank("left", "left", 1)], neededL: -1 })).toThrow(
      "negative",
    );
  });
});
