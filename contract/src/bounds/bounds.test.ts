import fc from "fast-check";
import { flattened } from "./flatten";
import { isDeeperThan } from "./json-depth";
import { boundsViolation, FILE_BOUNDS } from "./measure-value";
import { isMoment, isName, isPlainText } from "./plain-text";

/** True depth of a value, by recursion. */
const depthOf = (value: unknown): number =>
  typeof value === "object" && value !== null ? 1 + Math.max(0, ...Object.values(value).map(depthOf)) : 0;

test("the depth of a text is seen as it is once parsed, whatever its strings hold", () => {
  fc.assert(
    fc.property(fc.json({ maxDepth: 6 }), fc.integer({ min: 0, max: 7 }), (text, most) => {
      expect(isDeeperThan(text, most)).toBe(depthOf(JSON.parse(text)) > most);
    }),
    { numRuns: 500 },
  );
  expect(isDeeperThan(JSON.stringify({ a: '[[[[\\"[[["[[' }), 1)).toBe(false);
  expect(isDeeperThan("[".repeat(100), 64)).toBe(true);
  // Cut off inside a string: the parser reports it.
  expect(isDeeperThan('{"a":"[[[', 1)).toBe(false);
});

test("what is cut to depth is no deeper, and what was no deeper stays as it was", () => {
  fc.assert(
    fc.property(fc.jsonValue({ maxDepth: 6 }), fc.integer({ min: 0, max: 7 }), (value, most) => {
      const cut = flattened(value, most);
      expect(depthOf(cut)).toBeLessThanOrEqual(most);
      if (depthOf(value) <= most) expect(cut).toEqual(value);
    }),
  );
});

test("what is beyond a bound is reported without any of it", () => {
  const bounds = { depth: 3, values: 20, text: 10 };
  expect(boundsViolation({ a: [1, { b: 2 }] }, bounds)).toBeUndefined();
  expect(boundsViolation({ a: { b: { c: { d: 1 } } } }, bounds)).toContain("3 levels");
  expect(boundsViolation(Array(30).fill(0), bounds)).toContain("20 values");
  expect(boundsViolation({ a: "x".repeat(11) }, bounds)).toContain("10 characters");
  expect(boundsViolation({ ["k".repeat(11)]: 1 }, bounds)).toContain("10 characters");
  expect(boundsViolation({ a: Number.POSITIVE_INFINITY }, bounds)).toBeUndefined();
  expect(boundsViolation({ a: Number.POSITIVE_INFINITY }, FILE_BOUNDS)).toContain("finite numbers");
});

// Published: ISO 8601 and the Gregorian calendar: leap years are divisible by four but not by a hundred, or by four hundred.
test.each([
  ["2024-02-29T00:00:00.000Z", true],
  ["2026-02-29T00:00:00.000Z", false],
  ["2000-02-29T23:59:59.999Z", true],
  ["2100-02-29T00:00:00.000Z", false],
  ["2026-04-31T00:00:00.000Z", false],
  ["2026-12-31T23:59:59.999Z", true],
  ["2026-12-31T24:00:00.000Z", false],
  ["2026-12-31T23:60:00.000Z", false],
  ["2026-00-10T00:00:00.000Z", false],
  ["1999-12-31T23:59:59.999Z", false],
  ["2026-5-1T09:30:00.000Z", false],
  ["2026-05-01T09:30:00Z", false],
])("%s is a moment: %s", (text, is) => {
  expect(isMoment(text)).toBe(is);
});

test("every moment that a device makes is one", () => {
  fc.assert(
    fc.property(
      fc.date({ min: new Date("2000-01-01"), max: new Date("2999-12-31"), noInvalidDate: true }),
      (date) => {
        expect(isMoment(date.toISOString())).toBe(true);
      },
    ),
  );
});

test("names and texts that come back as they were sent are taken, others not", () => {
  for (const good of ["QX-TAR", "Inês Valadares", "left.wing 2", "東", "🛩"]) expect(isName(good)).toBe(true);
  for (const bad of [" a", "a ", "a\n", "a\u0000b", "\ud800", "a\u0085", "\ufeffa"])
    expect(isName(bad)).toBe(false);
  expect(isPlainText("two\nlines\tand a tab")).toBe(true);
  expect(isPlainText("half \udfff of one")).toBe(false);
  fc.assert(
    fc.property(fc.string({ unit: "binary" }), (text) => {
      // Accepted text survives UTF-8 encoding, as in a database.
      if (isPlainText(text)) expect(Buffer.from(text, "utf8").toString("utf8")).toBe(text);
    }),
  );
});
