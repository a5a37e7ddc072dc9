import {
  differenceInCalendarDays,
  addDays as fnsAddDays,
  addMonths as fnsAddMonths,
  endOfMonth as fnsEndOfMonth,
} from "date-fns";
import fc from "fast-check";
import {
  addDays,
  addMonths,
  dateOfDay,
  dayNumber,
  daysBetween,
  endOfMonth,
  isLocalDate,
  localDate,
  spokenDate,
} from "./local-date";

const days = fc.integer({ min: dayNumber("1950-01-01"), max: dayNumber("2150-12-31") }).map(dateOfDay);
/** A day at noon, where no clock change falls. */
const asDate = (date: string) => new Date(`${date}T12:00:00`);
const asWords = (date: Date) =>
  `${date.getFullYear()}-${String(date.getMonth() + 1).padStart(2, "0")}-${String(date.getDate()).padStart(2, "0")}`;

describe("calendar days", () => {
  it("agree with date-fns on months, days and month ends", () => {
    fc.assert(
      fc.property(days, fc.integer({ min: -600, max: 600 }), (date, n) => {
        expect(addMonths(date, n)).toBe(asWords(fnsAddMonths(asDate(date), n)));
        expect(addDays(date, n)).toBe(asWords(fnsAddDays(asDate(date), n)));
        expect(endOfMonth(date)).toBe(asWords(fnsEndOfMonth(asDate(date))));
        expect(daysBetween(date, addDays(date, n))).toBe(
          differenceInCalendarDays(asDate(addDays(date, n)), asDate(date)),
        );
      }),
    );
  });

  it("by hand: leap days, short months, the turn of the year", () => {
    expect(addMonths("2028-02-29", 12)).toBe("2029-02-28");
    expect(addMonths("2027-02-28", 12)).toBe("2028-02-28");
    expect(endOfMonth(addMonths("2027-02-28", 12))).toBe("2028-02-29");
    expect(addMonths("2026-01-31", 1)).toBe("2026-02-28");
    expect(addMonths("2026-11-30", 3)).toBe("2027-02-28");
    expect(addMonths("2026-12-15", 1)).toBe("2027-01-15");
    // 2100 is not a leap year, 2000 was.
    expect(endOfMonth("2100-02-01")).toBe("2100-02-28");
    expect(endOfMonth("2000-02-01")).toBe("2000-02-29");
  });

  it("reject invalid dates", () => {
    for (const date of [
      "2026-02-30",
      "2027-02-29",
      "2026-13-01",
      "2026-00-10",
      "26-01-01",
      "",
      "2026-1-1",
      "0026-01-01",
    ]) {
      expect(isLocalDate(date)).toBe(false);
      expect(() => dayNumber(date)).toThrow();
    }
    expect(() => addMonths("2026-01-01", 1.5)).toThrow();
  });

  it("are those of the aircraft's base: beyond the date line it is another day", () => {
    const at = "2026-03-31T10:30:00Z";
    expect(localDate(at)).toBe("2026-03-31");
    expect(localDate(at, "Pacific/Kiritimati")).toBe("2026-04-01");
    expect(localDate(at, "Pacific/Pago_Pago")).toBe("2026-03-30");
    expect(localDate("2026-03-31T23:30:00Z", "Europe/Lisbon")).toBe("2026-04-01");
    // The same time, written in another zone.
    expect(localDate("2026-03-31T12:30:00+02:00", "Pacific/Pago_Pago")).toBe("2026-03-30");
    expect(() => localDate(at, "Nowhere/Atall")).toThrow(/time zone/);
    expect(() => localDate("yesterday")).toThrow(/not a valid date and time/);
  });

  it("are written as day, month, year", () => {
    expect(spokenDate("2027-03-31")).toBe("31 March 2027");
  });
});
