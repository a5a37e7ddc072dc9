import type { AirworthinessOnFile } from "@cravix/core/logs/apply-airworthiness-events";
import { draftFrom, draftOf, type FlightDraft, faultsOf, lineOfDraft } from "./flight-draft";

const meters: AirworthinessOnFile["record"]["meters"] = [
  { id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1, reading: "hours" },
  { id: "landings", name: "Landings", kind: "landings", decimals: 0 },
];
const last = {
  id: "0",
  registration: "QX-TAR",
  from: "Marram Point",
  to: "Dunlin Strand",
  off: "2026-05-01T08:00:00.000Z",
  on: "2026-05-01T09:00:00.000Z",
  pilot: "ines",
  meters: { hours: { out: 4229.2, in: 4230.1 } },
  counts: { landings: 2 },
};
const papers = {
  record: { registration: "QX-TAR", meters, start: { at: "2025-01-01T00:00:00.000Z", totals: {} } },
  totals: { hours: 4230.1 },
  lastLine: last,
} as unknown as AirworthinessOnFile;
const draft: FlightDraft = {
  from: "Dunlin Strand",
  to: "Marram Point",
  day: "2026-05-01",
  off: "10:00",
  on: "11:00",
  out: { hours: "4230.1" },
  in: { hours: "4231.0" },
  counts: { landings: 1 },
  nightLandings: 0,
  remarks: "",
};
const made = (more: Partial<FlightDraft> = {}) =>
  lineOfDraft({ ...draft, ...more }, { registration: "QX-TAR", pilot: "ines", meters });

describe("a flight as it is logged", () => {
  it("begins where the last one ended, with the meter as it was left", () => {
    const proposed = draftOf(papers, {
      base: "Marram Point",
      pilot: "ines",
      now: "2026-05-01T12:00:00.000Z",
    });
    expect(proposed).toMatchObject({
      from: "Dunlin Strand",
      to: "Marram Point",
      out: { hours: "4230.1" },
      in: {},
    });
  });

  it("over midnight it ends on the next day", () => {
    const { line } = made({ off: "23:30", on: "00:20" });
    expect(Date.parse(line?.on ?? "") - Date.parse(line?.off ?? "")).toBe(50 * 60_000);
  });

  it.each<[string, Partial<FlightDraft>, string]>([
    ["no time", { on: "25:00" }, "on"],
    ["no day", { day: "tomorrow" }, "day"],
    ["no meter", { in: {} }, "meters.hours.in"],
    ["words for a meter", { in: { hours: "a lot" } }, "meters.hours.in"],
    ["no place", { to: " " }, "to"],
  ])("%s: told at its field, and no line is made", (_, more, at) => {
    const { line, faults } = made(more);
    expect(line).toBeUndefined();
    expect(faults.map((fault) => fault.at)).toContain(at);
  });

  it("a comma is a point, and what is nothing is left out", () => {
    expect(made({ in: { hours: "4231,0" }, counts: { landings: 0 } }).line).toMatchObject({
      meters: { hours: { out: 4230.1, in: 4231 } },
      counts: {},
    });
  });

  it("is held against the line before it, wherever that is in the log", () => {
    const { line } = made({ out: { hours: "4230.4" } });
    if (!line) throw new Error("no line");
    const faults = faultsOf(line, { papers, others: [last], now: "2026-05-02T00:00:00.000Z" });
    expect(faults).toMatchObject([{ at: "meters.hours.out", weight: "asked" }]);
  });

  it("offline, without the log, is held against its last entry", () => {
    const { line } = made({ out: { hours: "4230.4" } });
    if (!line) throw new Error("no line");
    const faults = faultsOf(line, { papers, others: [], now: "2026-05-02T00:00:00.000Z" });
    expect(faults).toMatchObject([{ at: "meters.hours.out", weight: "asked" }]);
  });

  it("is refused on a day before the aircraft was built, and without a day only the day is asked for", () => {
    const { line } = made({ day: "1950-01-01" });
    if (!line) throw new Error("no line");
    const faults = faultsOf(line, { papers, others: [], now: "2026-05-02T00:00:00.000Z", built: 2016 });
    expect(faults).toContainEqual(expect.objectContaining({ at: "day", weight: "refused" }));
    expect(made({ day: "" }).faults.map(({ at }) => at)).toEqual(["day"]);
  });

  it("a line that is corrected comes back as it stands", () => {
    const { line } = lineOfDraft(draftFrom(last), { registration: "QX-TAR", pilot: "ines", meters });
    const { id: _id, ...same } = last;
    expect(line).toEqual(same);
  });
});
