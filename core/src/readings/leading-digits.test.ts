import fc from "fast-check";
import { leadingDigits, typedNumber, typedText } from "./leading-digits";

const rpm = { unit: "rpm", decimals: 0 } as const;
const hours = { unit: "h", decimals: 1 } as const;
const hPa = { unit: "hPa", decimals: 0 } as const;
const volts = { unit: "V", decimals: 1 } as const;

test.each([
  // Common prefix of every number in range, worked out by hand from each unit's range.
  ["an hour meter within ten hours", hours, 4228.9, "42"],
  ["an hour meter over a hundred", hours, 4295.2, undefined, "4"],
  ["a pressure setting", hPa, 1013, "10"],
  ["a pressure setting across a thousand", hPa, 1004, undefined],
  ["a 28-V system", volts, 25.2, "2"],
  ["a run-up at 1,800", rpm, 1800, "1"],
  ["a run-up at 2,000, across a thousand", rpm, 2000, undefined],
  ["nothing known", rpm, undefined, undefined],
])("%s", (_name, reading, last, start, other = start) => {
  expect(leadingDigits(reading, last)?.start).toBe(other);
});

test("a short number is entered completely", () => {
  expect(leadingDigits({ unit: "V", decimals: 0 }, 25)).toBeUndefined();
  expect(leadingDigits({ unit: "rpm", decimals: 0 }, 650)).toBeUndefined();
});

test("with the leading digits or complete, the number is the same", () => {
  const expected = leadingDigits(rpm, 1800);
  expect(typedNumber("730", expected)).toBe(1730);
  expect(typedNumber("1730", expected)).toBe(1730);
  const meter = leadingDigits(hours, 612.3);
  expect(typedNumber("612.5", meter)).toBe(612.5);
  expect(typedNumber("12.5", meter)).toBe(612.5);
  // The last digit of the drum is a tenth: it is read without a point.
  expect(typedNumber("125", meter)).toBe(612.5);
  expect(typedNumber("301", leadingDigits(hours, 4228.9))).toBe(4230.1);
  expect(typedText("301", leadingDigits(hours, 4228.9))).toEqual({ start: "42", rest: "30.1" });
});

test("unexpected numbers are taken as entered: a dead magneto, a flat battery, a changed meter", () => {
  expect(typedNumber("0", leadingDigits(rpm, 1800))).toBe(0);
  expect(typedNumber("11.8", leadingDigits(volts, 25.2))).toBe(11.8);
  expect(typedNumber("3.4", leadingDigits(hours, 4228.9))).toBe(3.4);
  expect(typedNumber("", leadingDigits(rpm, 1800))).toBeUndefined();
});

test("a complete number is taken as entered, whatever its value", () => {
  fc.assert(
    fc.property(
      fc.constantFrom(rpm, hours, hPa, volts),
      fc.double({ min: 1, max: 9000, noNaN: true }),
      fc.double({ min: 0, max: 9000, noNaN: true }),
      (reading, last, read) => {
        const text = read.toFixed(reading.decimals);
        const expected = leadingDigits(reading, last);
        const behind = expected && Number(expected.start + text);
        // Only numbers expected with the leading digits, and not without them, are completed.
        const meant =
          expected && behind !== undefined && behind >= expected.from && behind <= expected.to
            ? [Number(text), behind]
            : [
                Number(text),
                ...(expected?.tenths
                  ? [Number(typedText(text, expected).start + typedText(text, expected).rest)]
                  : []),
              ];
        expect(meant).toContain(typedNumber(text, expected));
        if (expected && read >= expected.from && read <= expected.to)
          expect(typedNumber(read.toFixed(6), expected)).toBeCloseTo(read, 5);
      },
    ),
  );
});
