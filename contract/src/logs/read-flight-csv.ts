import type { RecordMeter } from "@cravix/core/airworthiness/aircraft-record";
import { checkLog } from "@cravix/core/airworthiness/flights/check-entry";
import type { TechnicalLogEntry } from "@cravix/core/airworthiness/flights/technical-log-entry";
import { isCounted } from "@cravix/core/airworthiness/meters/meter";
import Papa from "papaparse";
import type { CsvFault } from "../api/api-types";
import { CLOCK_TOLERANCE_MIN } from "../bounds/clock-tolerance";
import { isPlainText } from "../bounds/plain-text";
import { FLIGHT_COLUMNS, flightColumns } from "./flight-csv";

/** Maximum lines: several lifetimes. */
const MAX_LINES = 20_000;
const MAX_FAULTS = 300;
/** Column names of files exported earlier. */
const FORMER_COLUMNS: Readonly<Record<string, string>> = {
  "take-offs by night": "take-offs at night",
  "landings by night": "landings at night",
  "fuel left l": "fuel remaining l",
  "oil added qt": "oil added us qt",
};
const columnOf = (header: string): string => {
  const name = header.trim().toLowerCase();
  return FORMER_COLUMNS[name] ?? name;
};
const MOMENT = /^\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(:\d{2}(\.\d{1,3})?)?Z$/;

export interface FlightCsvReading {
  lines: Omit<TechnicalLogEntry, "id">[];
  faults: CsvFault[];
}

/**
 * Reads one aircraft's technical log from CSV. Never throws: valid lines are returned, invalid ones with line, column and
 * expectation. An impossible entry (meter or flight ends before it begins) is rejected; gaps and unusual values are reported as
 * questions. Complexity: O(lines · log lines).
 */
export function readFlightCsv(
  text: string,
  { registration, meters, now }: { registration: string; meters: readonly RecordMeter[]; now: Date },
): FlightCsvReading {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    preview: MAX_LINES + 2,
  });
  const [head = [], ...rows] = parsed.data;
  const at = new Map(head.map((header, i) => [columnOf(header), i]));
  const faults: CsvFault[] = [];
  for (const column of [...FLIGHT_COLUMNS.filter((c) => c !== "crew"), ...needed(meters)])
    if (!at.has(column.toLowerCase())) faults.push({ row: 1, column, expected: "a column with this name" });
  if (faults.length > 0) return { lines: [], faults };
  if (rows.length > MAX_LINES)
    return {
      lines: [],
      faults: [{ row: MAX_LINES + 2, column: "", expected: `at most ${MAX_LINES} lines; split the file` }],
    };
  const read = rows.flatMap((cells, i) => {
    const row = i + 2;
    if (cells.length !== head.length) {
      faults.push({ row, column: "", expected: `a complete line of ${head.length} fields` });
      return [];
    }
    const before = faults.length;
    const line = readLine(
      (column) => (cells[at.get(column.toLowerCase()) ?? -1] ?? "").trim(),
      { registration, meters, now },
      (column, expected) => faults.push({ row, column, expected }),
    );
    return faults.length === before ? [{ row, line: { ...line, id: String(row).padStart(8, "0") } }] : [];
  });
  const refused = new Set<string>();
  for (const { line, faults: own } of checkLog(
    read.map((one) => one.line),
    meters,
    now.toISOString(),
  ))
    for (const fault of own)
      if (fault.weight === "refused") {
        refused.add(line);
        faults.push({ row: Number(line), column: fault.at, expected: `a possible flight. ${fault.words}` });
      }
  faults.sort((a, b) => a.row - b.row);
  const lines = read
    .filter(({ line }) => !refused.has(line.id))
    .map(({ line: { id: _id, ...line } }) => line);
  if (faults.length <= MAX_FAULTS) return { lines, faults };
  const more = faults.length - MAX_FAULTS;
  const last = faults[MAX_FAULTS];
  return {
    lines,
    faults: [
      ...faults.slice(0, MAX_FAULTS),
      {
        row: last?.row ?? 1,
        column: "",
        expected: `the remaining ${more} errors corrected; they are not shown`,
      },
    ],
  };
}

/** Columns of meters that are read, which are required. */
const needed = (meters: readonly RecordMeter[]) =>
  flightColumns(meters.filter(({ kind }) => !isCounted(kind))).filter((column) => / (out|in)$/.test(column));

function readLine(
  cell: (column: string) => string,
  { registration, meters, now }: { registration: string; meters: readonly RecordMeter[]; now: Date },
  fault: (column: string, expected: string) => void,
): Omit<TechnicalLogEntry, "id"> {
  const moment = (column: string) => {
    const text = cell(column);
    const ms = MOMENT.test(text) ? Date.parse(text) : Number.NaN;
    // Valid dates only: 30 February would become another day.
    if (Number.isNaN(ms) || new Date(ms).toISOString().slice(0, 10) !== text.slice(0, 10)) {
      fault(column, "a time in UTC, such as 2026-05-01T09:30:00Z");
      return "1970-01-01T00:00:00.000Z";
    }
    if (ms > now.getTime() + CLOCK_TOLERANCE_MIN * 60_000) fault(column, "a time that is not in the future");
    return new Date(ms).toISOString();
  };
  const words = (column: string, max: number) => {
    const text = cell(column);
    if (text === "" || text.length > max || !isPlainText(text))
      fault(column, `text of 1 to ${max} characters`);
    return text;
  };
  const number = (column: string, whole: boolean): number | undefined => {
    const text = cell(column);
    if (text === "") return undefined;
    const value = /^\d{1,7}(\.\d{1,3})?$/.test(text) ? Number(text) : Number.NaN;
    if (!Number.isFinite(value) || (whole && !Number.isInteger(value))) {
      fault(column, whole ? "a whole number" : "a number with a decimal point, such as 4211.3");
      return undefined;
    }
    return value;
  };
  const yes = (column: string) => {
    const text = cell(column).toLowerCase();
    if (!["", "yes", "no"].includes(text)) fault(column, "yes, no or nothing");
    return text === "yes";
  };
  if (cell("registration").toUpperCase() !== registration) fault("registration", registration);
  const read: TechnicalLogEntry["meters"] = {};
  const counts: TechnicalLogEntry["counts"] = {};
  for (const { id, kind } of meters) {
    if (isCounted(kind)) {
      const n = number(id, true);
      if (n) counts[id] = n;
      continue;
    }
    const [out, back] = [number(`${id} out`, false), number(`${id} in`, false)];
    if (out !== undefined && back !== undefined) read[id] = { out, in: back };
    else if (cell(`${id} out`) === "" || cell(`${id} in`) === "")
      fault(`${id} in`, "the start and end reading of the meter");
  }
  const crew = cell("crew")
    .split(";")
    .map((name) => name.trim())
    .filter(Boolean)
    .slice(0, 12);
  const [takeOffs, fullStops] = [number("take-offs", true), number("full-stop landings", true)];
  const night = nightOf((column) => number(column, true));
  const ground = yes("ground run");
  const [addedL, leftL] = [number("fuel added L", false), number("fuel remaining L", false)];
  const oilAddedQt = number("oil added US qt", false);
  const remarks = cell("remarks");
  if (remarks.length > 2000 || !isPlainText(remarks)) fault("remarks", "text of at most 2000 characters");
  return {
    registration,
    from: words("from", 80),
    to: words("to", 80),
    off: moment("off"),
    on: moment("on"),
    pilot: words("pilot", 120),
    ...(crew.length > 0 && { crew }),
    meters: read,
    counts,
    ...(takeOffs !== undefined && { takeOffs }),
    ...(fullStops !== undefined && { fullStops }),
    ...(night && { night }),
    ...(ground && { ground: true as const }),
    ...((addedL !== undefined || leftL !== undefined) && {
      fuel: { ...(addedL !== undefined && { addedL }), ...(leftL !== undefined && { leftL }) },
    }),
    ...(oilAddedQt !== undefined && { oilAddedQt }),
    ...(remarks !== "" && { remarks }),
  };
}

/** Take-offs and landings at night; undefined if there were none. */
function nightOf(number: (column: string) => number | undefined): TechnicalLogEntry["night"] {
  const takeOffs = number("take-offs at night") ?? 0;
  const landings = number("landings at night") ?? 0;
  const fullStops = number("full-stop landings at night");
  if (takeOffs + landings === 0) return undefined;
  return { takeOffs, landings, ...(fullStops !== undefined && { fullStops }) };
}
