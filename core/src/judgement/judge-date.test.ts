import { endOfMonth } from "date-fns/endOfMonth";
import fc from "fast-check";
import { judgeDate } from "./judge-date";

const grade = (date: string, now: string) => judgeDate("d", "Battery", date, now)?.grade;

test("is valid to the end of its month (common practice)", () => {
  expect(grade("06/2028", "2026-11-26T10:00:00.000Z")).toBe("within limits");
  expect(grade("11/2026", "2026-11-30T23:00:00.000Z")).toBe("note");
  expect(grade("11/2026", "2026-12-01T00:00:00.000Z")).toBe("ask");
  expect(grade("12/2025", "2026-01-01T00:00:01.000Z")).toBe("ask");
});

test("is expired according to an independent calendar", () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 2020, max: 2040 }),
      fc.integer({ min: 1, max: 12 }),
      fc.date({
        min: new Date("2020-01-01T12:00:00Z"),
        max: new Date("2040-12-31T12:00:00Z"),
        noInvalidDate: true,
      }),
      (year, month, now) => {
        const date = `${String(month).padStart(2, "0")}/${year}`;
        const last = endOfMonth(new Date(year, month - 1, 1));
        const local = new Date(now.getUTCFullYear(), now.getUTCMonth(), now.getUTCDate(), 12);
        expect(grade(date, now.toISOString()) === "ask").toBe(local > last);
      },
    ),
  );
});

test("makes nothing of text that is not a date", () => {
  for (const words of ["", "13/2026", "2026", "4", "June 2028", "00/2026"])
    expect(grade(words, "2026-11-26T10:00:00.000Z")).toBeUndefined();
});
