import psychrolib from "psychrolib";
import { dropsOfWater, overnightCondensationMl } from "../fuel/drain/overnight-condensation";
import { saturationPressurePa, vapourDensityGPerM3 } from "./water-vapour";

psychrolib.SetUnitSystem(psychrolib.SI);

describe("water in the air", () => {
  // Library: psychrolib (ASHRAE Handbook Fundamentals 2017, chapter 1).
  test.each([-40, -10, -0.5, 0.5, 10, 20, 35, 50])("saturates at %d °C as psychrolib says", (celsius) => {
    expect(saturationPressurePa(celsius) / psychrolib.GetSatVapPres(celsius)).toBeCloseTo(1, 6);
  });

  // Published: CRC Handbook, saturated vapour density in g/m³ (from memory).
  test.each([
    [0, 4.85],
    [10, 9.4],
    [15, 12.83],
    [20, 17.3],
    [30, 30.4],
  ])("at %d °C is at most %d g in a cubic metre", (celsius, grams) => {
    expect(Math.abs(vapourDensityGPerM3(celsius, celsius) / grams - 1)).toBeLessThan(0.005);
  });

  test("cannot have its dew point above its temperature", () => {
    expect(() => vapourDensityGPerM3(10, 12)).toThrow("cannot be above");
    expect(() => saturationPressurePa(120)).toThrow("−100 to 100");
  });
});

describe("water from the night", () => {
  test("is the vapour of the dew point less what the cold air holds, by psychrolib and the gas law", () => {
    // 60 L of air, dew point 14 °C, down to 4 °C: V·M/(R·T)·(e(14) − e(4)), M = 18.01527 g/mol, R = 8.31446 J/(mol·K).
    const mole = (psychrolib.GetSatVapPres(14) - psychrolib.GetSatVapPres(4)) * 0.06;
    const grams = (mole / (8.31446 * 277.15)) * 18.01527;
    expect(overnightCondensationMl(60, { lowC: 4, dewPointC: 14, nights: 1 })).toBeCloseTo(grams, 3);
    expect(overnightCondensationMl(60, { lowC: 4, dewPointC: 14, nights: 3 })).toBeCloseTo(3 * grams, 3);
  });

  test("is nothing above the dew point or in a full tank, and more the emptier the tank", () => {
    expect(overnightCondensationMl(60, { lowC: 15, dewPointC: 14, nights: 1 })).toBe(0);
    expect(overnightCondensationMl(0, { lowC: 4, dewPointC: 14, nights: 1 })).toBe(0);
    expect(overnightCondensationMl(90, { lowC: 4, dewPointC: 14, nights: 1 })).toBeGreaterThan(
      overnightCondensationMl(60, { lowC: 4, dewPointC: 14, nights: 1 }),
    );
  });

  test("is a matter of drops, not of sample", () => {
    expect(dropsOfWater(overnightCondensationMl(98, { lowC: 0, dewPointC: 18, nights: 1 }))).toBeLessThan(25);
    expect(dropsOfWater(0.5)).toBe(10);
  });

  test.each([
    [{ lowC: 4, dewPointC: 99, nights: 1 }, "must be from"],
    [{ lowC: 4, dewPointC: 14, nights: 1.5 }, "0 to 60 nights"],
    [{ lowC: Number.NaN, dewPointC: 14, nights: 1 }, "not a number"],
  ])("%j is rejected", (air, reason) => {
    expect(() => overnightCondensationMl(60, air)).toThrow(reason);
  });
  test("a tank emptier than empty is rejected", () => {
    expect(() => overnightCondensationMl(-1, { lowC: 4, dewPointC: 14, nights: 1 })).toThrow("negative");
  });
});
