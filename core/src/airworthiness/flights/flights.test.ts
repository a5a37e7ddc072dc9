import fc from "fast-check";
import type { Meter } from "../meters/meter";
import { checkLine, checkLog, type LineFault } from "./check-entry";
import { proposeLine } from "./propose-entry";
import { addLine, foldTotals, type TechnicalLogEntry } from "./technical-log-entry";

const hours: Meter = { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 };
const landings: Meter = { id: "landings", name: "Landings", kind: "landings", decimals: 0 };
const meters = [hours, landings];
const line = (
  id: string,
  off: string,
  on: string,
  out: number,
  back: number,
  more: Partial<TechnicalLogEntry> = {},
): TechnicalLogEntry => ({
  id,
  registration: "QX-TAR",
  from: "Marram Point",
  to: "Marram Point",
  off,
  on,
  pilot: "ines",
  meters: { hours: { out, in: back } },
  counts: { landings: 1 },
  ...more,
});
const now = "2026-06-02T12:00:00Z";
const first = line("a", "2026-06-01T08:00:00Z", "2026-06-01T09:12:00Z", 4211.3, 4212.4);
const said = (faults: LineFault[]) => faults.map(({ at, kind, weight }) => `${at}: ${kind}, ${weight}`);
const check = (one: TechnicalLogEntry, more: Partial<Parameters<typeof checkLine>[1]> = {}) =>
  said(checkLine(one, { meters, now, ...more }));

describe("an entry of the technical log", () => {
  it("that continues the previous one raises no questions", () => {
    expect(check(first)).toEqual([]);
    expect(
      check(line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4213.3), { before: first }),
    ).toEqual([]);
  });

  describe("against the record of an aircraft", () => {
    const record = { totals: { hours: 4211.3, landings: 900 }, from: "2026-01-01T00:00:00Z", built: 2016 };
    const of = (off: string, out: number, back: number) =>
      line("b", `${off}T08:00:00Z`, `${off}T09:06:00Z`, out, back);

    it.each([
      ["continues from the starting totals", of("2026-06-01", 4211.3, 4212.4), []],
      ["before the aircraft was built", of("1950-06-01", 4211.3, 4212.4), ["day: too early, refused"]],
      ["before the record begins", of("2025-06-01", 4211.3, 4212.4), ["day: too early, asked"]],
      ["starts above the record", of("2026-06-01", 4212, 4213.1), ["meters.hours.out: unlogged, asked"]],
      ["starts below the record", of("2026-06-01", 4210, 4211.1), ["meters.hours.out: meter back, asked"]],
      ["a digit too many", of("2026-06-01", 42113, 42114.1), ["meters.hours.in: reading, refused"]],
    ])("%s", (_, one, faults) => expect(check(one, { record })).toEqual(faults));

    it("after other flights the previous one is what counts", () => {
      const next = line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4213.3);
      expect(check(next, { before: first, record })).toEqual([]);
    });
  });

  it("a ground run counts on its meters and lands nowhere", () => {
    const run = { ...first, counts: {}, ground: true as const };
    expect(check(run)).toEqual([]);
    expect(check({ ...run, counts: { landings: 1 } })).toEqual(["counts.landings: counts, refused"]);
    expect(addLine({ totals: { hours: 4211.3 }, lines: 0 }, run, meters).totals).toEqual({ hours: 4212.4 });
  });

  it("no more full stops at night than landings at night", () => {
    const night = (fullStops: number) =>
      check({ ...first, counts: { landings: 2 }, night: { takeOffs: 1, landings: 1, fullStops } });
    expect(night(1)).toEqual([]);
    expect(night(2)).toEqual(["night.fullStops: counts, refused"]);
  });

  it("a gap is an unlogged flight, a meter that went back is an error: both are asked, never guessed", () => {
    const gap = line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4213.0, 4213.9);
    const [fault] = checkLine(gap, { meters, now, before: first });
    expect(fault).toMatchObject({ at: "meters.hours.out", kind: "unlogged", weight: "asked" });
    expect(fault?.words).toContain("0.6 h not logged");
    expect(
      check(line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.3, 4213.2), { before: first }),
    ).toEqual(["meters.hours.out: meter back, asked"]);
    expect(
      check(line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4211.9), { before: first }),
    ).toEqual(["meters.hours.in: meter back, refused"]);
    // An entry inserted before another must also be consistent with that one.
    expect(
      check(first, { after: line("z", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.1, 4213) }),
    ).toEqual(["meters.hours.in: meter back, asked"]);
  });

  it("a misplaced decimal, more hours than the clock, no landing, tomorrow: each reported at its field", () => {
    expect(check(line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4213.35))).toEqual([
      "meters.hours.in: reading, asked",
    ]);
    expect(check(line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4215.4))).toEqual([
      "meters.hours.in: faster than the clock, asked",
    ]);
    expect(
      check(
        line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4213.3, {
          counts: { landings: 0 },
        }),
      ),
    ).toEqual(["counts.landings: no landing, asked"]);
    expect(check(line("b", "2026-06-02T11:30:00Z", "2026-06-02T13:00:00Z", 4212.4, 4213.9))).toEqual([
      "on: future, refused",
    ]);
    expect(check(line("b", "2026-06-01T10:00:00Z", "2026-06-01T10:00:00Z", 4212.4, 4212.4))).toEqual([
      "on: in before out, refused",
    ]);
    expect(check(line("b", "when?", "2026-06-01T10:00:00Z", 4212.4, 4212.4))).toEqual([
      "off: no time, refused",
    ]);
    expect(
      check(
        line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4213.3, {
          night: { takeOffs: 1, landings: 2 },
        }),
      ),
    ).toEqual(["night.landings: counts, refused"]);
  });

  it("two overlapping flights of one aircraft or one pilot are reported", () => {
    const other = line("b", "2026-06-01T09:00:00Z", "2026-06-01T10:00:00Z", 4212.4, 4213.3, {
      pilot: "maren",
    });
    expect(check(other, { others: [first] })).toEqual(["off: two at once, asked"]);
    const elsewhere = { ...first, id: "c", registration: "QX-HLD" };
    expect(check({ ...other, pilot: "ines" }, { others: [elsewhere] })).toEqual([
      "pilot: two at once, asked",
    ]);
    // One ends when the other begins: no overlap.
    expect(
      check(line("d", "2026-06-01T09:12:00Z", "2026-06-01T10:00:00Z", 4212.4, 4213.1), { others: [first] }),
    ).toEqual([]);
  });

  it("uses moments only: no time zone, no date line", () => {
    // Off on Tuesday morning in Kiribati, on on Monday evening in Samoa, 2.5 hours later.
    const across = line("b", "2026-06-02T10:00:00+14:00", "2026-06-01T11:30:00-11:00", 4212.4, 4214.8, {});
    expect(check(across, { now: "2026-06-03T00:00:00Z" })).toEqual([]);
  });

  it("a replaced meter continues: no error is reported, and the total is complete", () => {
    const changed: Meter = {
      ...hours,
      changes: [{ at: "2026-06-01T09:30:00Z", oldReading: 4212.4, newReading: 0 }],
    };
    const after = line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 0, 0.9);
    expect(said(checkLine(after, { meters: [changed, landings], now, before: first }))).toEqual([]);
    expect(foldTotals({ hours: 4211.3, landings: 9000 }, [first, after], [changed, landings]).totals).toEqual(
      {
        hours: 4213.3,
        landings: 9002,
      },
    );
  });

  it("a whole log reports its errors in order of time, each at its entry", () => {
    const lines = [
      line("c", "2026-06-01T12:00:00Z", "2026-06-01T13:00:00Z", 4213.9, 4214.8),
      first,
      line("b", "2026-06-01T10:00:00Z", "2026-06-01T11:00:00Z", 4212.4, 4213.3),
      line("d", "2026-06-01T12:30:00Z", "2026-06-01T13:30:00Z", 4214.8, 4215.7, { pilot: "maren" }),
    ];
    expect(checkLog(lines, meters, now).map(({ line: id, faults }) => [id, said(faults)])).toEqual([
      ["c", ["meters.hours.out: unlogged, asked"]],
      ["d", ["off: two at once, asked"]],
    ]);
  });
});

describe("totals", () => {
  const flights = fc.array(
    fc.record({ flown: fc.integer({ min: 1, max: 80 }), landed: fc.integer({ min: 1, max: 9 }) }),
    {
      minLength: 1,
      maxLength: 30,
    },
  );
  const logOf = (made: { flown: number; landed: number }[]) => {
    let at = 42113;
    return made.map(({ flown, landed }, i) => {
      const day = new Date(Date.UTC(2026, 0, 1 + i)).toISOString().slice(0, 10);
      const one = line(
        `${i}`.padStart(4, "0"),
        `${day}T08:00:00Z`,
        `${day}T17:00:00Z`,
        at / 10,
        (at + flown) / 10,
        {
          counts: { landings: landed },
        },
      );
      at += flown;
      return one;
    });
  };

  it("equal the sum of the entries in any order", () => {
    fc.assert(
      fc.property(flights, fc.integer(), (made, seed) => {
        const lines = logOf(made);
        const sum = made.reduce((all, { flown }) => all + flown, 42113) / 10;
        const landed = made.reduce((all, one) => all + one.landed, 0);
        const mixed = [...lines].sort(
          (a, b) => Math.sin(seed + Number(a.id)) - Math.sin(seed + Number(b.id)),
        );
        const start = { hours: 4211.3, landings: 0 };
        expect(foldTotals(start, mixed, meters).totals).toEqual({ hours: sum, landings: landed });
        expect(foldTotals(start, lines, meters)).toEqual(foldTotals(start, mixed, meters));
      }),
    );
  });

  it("with one more entry equal the sum of all", () => {
    const lines = logOf([
      { flown: 11, landed: 1 },
      { flown: 9, landed: 6 },
    ]);
    const start = { hours: 4211.3, landings: 0 };
    const cached = foldTotals(start, lines.slice(0, 1), meters);
    expect(addLine(cached, lines[1] as TechnicalLogEntry, meters)).toEqual(foldTotals(start, lines, meters));
  });
});

describe("the proposed entry", () => {
  it("uses known values, and asks for the rest", () => {
    const proposed = proposeLine(
      {
        registration: "QX-TAR",
        base: "Marram Point",
        pilot: "ines",
        acceptedAt: "2026-06-01T10:00:00Z",
        readOut: { hours: 4212.4 },
        before: { ...first, to: "Dunlin Strand" },
      },
      meters,
    );
    expect(proposed.line).toMatchObject({
      from: "Dunlin Strand",
      to: "Marram Point",
      off: "2026-06-01T10:00:00Z",
      meters: { hours: { out: 4212.4 } },
      counts: { landings: 1 },
    });
    expect(proposed.asks).toEqual(["meters.hours.in", "on"]);
  });
});
