import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { flightCsv } from "./flight-csv";
import { readFlightCsv } from "./read-flight-csv";

const METERS: RecordMeter[] = [{ id: "hours", name: "Hour meter", kind: "hour meter", decimals: 1 }];
const FLIGHT: Omit<TechnicalLogEntry, "id"> = {
  registration: "QX-TAR",
  from: "Wendle",
  to: "Kelder Moor",
  off: "2026-05-01T19:30:00.000Z",
  on: "2026-05-01T20:40:00.000Z",
  pilot: "ines",
  meters: { hours: { out: 4211.3, in: 4212.4 } },
  counts: {},
  takeOffs: 3,
  fullStops: 2,
  night: { takeOffs: 1, landings: 2, fullStops: 1 },
  fuel: { addedL: 40, leftL: 71 },
  oilAddedQt: 1,
};
const context = { registration: "QX-TAR", meters: METERS, now: new Date("2026-06-01T00:00:00Z") };

test("an exported log is imported unchanged", () => {
  expect(readFlightCsv(flightCsv([FLIGHT], METERS), context)).toEqual({ lines: [FLIGHT], faults: [] });
});

test("a log exported with the former column names is imported with its night landings", () => {
  const former = flightCsv([FLIGHT], METERS)
    .replaceAll("-offs at night", "-offs by night")
    .replace("landings at night", "landings by night")
    .replace("fuel remaining L", "fuel left L")
    .replace("oil added US qt", "oil added qt");
  expect(former).toContain("landings by night");
  expect(readFlightCsv(former, context)).toEqual({ lines: [FLIGHT], faults: [] });
});

test("a ground run stays one, and anything but yes or no is reported", () => {
  const { night: _night, takeOffs: _takeOffs, fullStops: _fullStops, ...flight } = FLIGHT;
  const run = { ...flight, ground: true as const };
  const table = flightCsv([run], METERS);
  expect(readFlightCsv(table, context)).toEqual({ lines: [run], faults: [] });
  expect(readFlightCsv(table.replace("yes", "maybe"), context).faults).toEqual([
    { row: 2, column: "ground run", expected: "yes, no or nothing" },
  ]);
});

test("a missing column and a flight that ends before it begins are reported where they are", () => {
  const table = flightCsv([{ ...FLIGHT, on: "2026-05-01T19:00:00.000Z" }], METERS);
  expect(readFlightCsv(table, context).faults).toMatchObject([{ row: 2 }]);
  expect(readFlightCsv(table.replace("pilot", "captain"), context).faults).toEqual([
    { row: 1, column: "pilot", expected: "a column with this name" },
  ]);
});
