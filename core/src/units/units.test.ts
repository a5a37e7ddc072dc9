import Qty from "js-quantities";
import { convert, type Unit } from "./convert";
import { formatNumber, formatQuantity } from "./format";

// Library: js-quantities, an independent calculator (its factors are NIST's).
test.each<[Unit, Unit, string, string]>([
  ["US gal", "L", "gallon", "liter"],
  ["US qt", "L", "quart", "liter"],
  ["lb", "kg", "pound", "kilogram"],
  ["ft", "m", "foot", "meter"],
  ["in", "cm", "inch", "centimeter"],
  ["NM", "m", "nmi", "meter"],
  ["kt", "m/s", "kt", "m/s"],
  ["psi", "hPa", "psi", "hPa"],
  ["h", "min", "hour", "minute"],
])("%s to %s agrees with an independent library", (from, to, theirFrom, theirTo) => {
  for (const value of [0, 0.37, 1, 12, 4211.3]) {
    const theirs = Qty(value, theirFrom).to(theirTo).scalar;
    expect(Math.abs(convert(value, from, to) - theirs)).toBeLessThanOrEqual(Math.abs(theirs) * 1e-6);
  }
});

// Published: NIST SP 811, appendix B.8 (values written from memory).
test.each<[number, Unit, number, Unit]>([
  [1, "US gal", 3.785411784, "L"],
  [1, "imp gal", 4.54609, "L"],
  [1, "US qt", 0.946352946, "L"],
  [1, "lb", 0.45359237, "kg"],
  [1, "ft", 0.3048, "m"],
  [1, "NM", 1852, "m"],
  [1, "inHg", 33.8639, "hPa"],
  [212, "°F", 100, "°C"],
  [-40, "°C", -40, "°F"],
])("%d %s is %d %s (NIST SP 811)", (value, from, expected, to) => {
  expect(convert(value, from, to)).toBeCloseTo(expected, 9);
});

test("a unit of another quantity, and what is not a number, are rejected", () => {
  expect(() => convert(1, "L", "kg")).toThrow("L cannot be converted to kg.");
  expect(() => convert(Number.NaN, "L", "US gal")).toThrow("not a number");
  expect(() => convert(1, "rpm", "kt")).toThrow();
});

test("numbers are written as they are spoken", () => {
  expect(formatQuantity({ value: 1800, unit: "rpm" })).toBe("1,800 rpm");
  expect(formatQuantity({ value: -52, unit: "ft" })).toBe("−52 ft");
  expect(formatQuantity({ value: 6.25, unit: "US qt" })).toBe("6.3 US qt");
  expect(formatQuantity({ value: 95, unit: "min" })).toBe("1 h 35 min");
  expect(formatQuantity({ value: 59.7, unit: "min" })).toBe("1 h 00 min");
  expect(formatQuantity({ value: -95, unit: "min" })).toBe("−1 h 35 min");
  expect(formatNumber(-0.2)).toBe("0");
  expect(formatNumber(1234567)).toBe("1,234,567");
});
