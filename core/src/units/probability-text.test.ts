import fc from "fast-check";
import { QuantityError } from "./convert";
import { probabilityCases, probabilityText, probabilityWord } from "./probability-text";

describe("a probability in words", () => {
  /** IPCC guidance note on the consistent treatment of uncertainties, 2010, table 1 (from memory). */
  test.each([
    [0.95, "very likely"],
    [0.91, "very likely"],
    [0.9, "likely"],
    [0.67, "likely"],
    [0.6, "about as likely as not"],
    [0.34, "about as likely as not"],
    [0.3, "unlikely"],
    [0.05, "very unlikely"],
    [0, "very unlikely"],
    [1, "very likely"],
  ])("%d is %s", (chance, words) => expect(probabilityWord(chance)).toBe(words));

  test.each([
    [0.5, "1 of 2"],
    [0.34, "1 of 3"],
    [0.66, "2 of 3"],
    [0.71, "7 of 10"],
    [0.93, "19 of 20"],
    [0.999, "99 of 100"],
    [0.002, "1 of 100"],
  ])("%d is %s", (chance, cases) => expect(probabilityCases(chance)).toBe(cases));

  it("has the number behind it", () => {
    expect(probabilityText(0.71)).toBe("likely, 7 of 10 (71 %)");
    expect(probabilityText(0.997)).toBe("very likely, 99 of 100 (over 99 %)");
  });

  it("never says more cases for less of a chance, and is nowhere far from it", () => {
    const value = (chance: number) => {
      const [of = 0, all = 1] = probabilityCases(chance).split(" of ").map(Number);
      return of / all;
    };
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b) => {
          expect(value(Math.max(a, b))).toBeGreaterThanOrEqual(value(Math.min(a, b)));
          expect(Math.abs(value(a) - a)).toBeLessThanOrEqual(0.05);
        },
      ),
    );
  });

  it("rejects what is no probability", () => {
    expect(() => probabilityWord(1.2)).toThrow(QuantityError);
    expect(() => probabilityCases(Number.NaN)).toThrow();
  });
});
