import type { AircraftType } from "@cravix/core/aircraft/aircraft-type";
import { readFuelUnit } from "@cravix/core/fuel/grade/fuel-amount";
import { FUEL_GRADES } from "@cravix/core/fuel/grade/fuel-grades";
import { type FluidRow, FUEL_ENTRIES, OIL_ENTRIES } from "@cravix/core/logs/fluid-rows";
import { OIL_HEATS } from "@cravix/core/oil/judge-oil";
import { convert, type Unit } from "@cravix/core/units/convert";
import Papa from "papaparse";
import type { CsvFault } from "../api/api-types";
import { CLOCK_TOLERANCE_MIN } from "../bounds/clock-tolerance";
import { isName } from "../bounds/plain-text";
import { longestRise } from "./longest-rise";
import { toCsv } from "./to-csv";

/** Columns of a fuel log, in order. See docs/formats/fluid-logs.md. */
export const FUEL_COLUMNS = [
  "time",
  "registration",
  "entry",
  "tank",
  "amount",
  "unit",
  "hours",
  "grade",
  "receipt",
] as const;
export const OIL_COLUMNS = [
  "time",
  "registration",
  "entry",
  "engine",
  "amount",
  "unit",
  "hours",
  "heat",
  "grade",
] as const;

/** Aircraft data needed to check entries; undefined for an aircraft outside the group. */
export type KnownAircraft = (registration: string) => Pick<AircraftType, "fuel" | "engines"> | undefined;

export interface CsvReading {
  rows: FluidRow[];
  faults: CsvFault[];
}

/** Maximum plausible amounts for a light aircraft; litres and quarts. */
const MOST = { fuel: 5000, oil: 60 };
const NEEDED = {
  fuel: ["time", "registration", "entry", "amount", "unit"],
  oil: ["time", "registration", "entry", "amount", "unit"],
};

/** Maximum lines: several lifetimes. */
export const MAX_CSV_LINES = 60_000;
/** Maximum number of reported faults. */
const MAX_CSV_FAULTS = 500;
const MAX_HOURS = 100_000;

/**
 * Reads a fuel or oil log from CSV. Never throws: valid lines are returned as rows, invalid ones with line, column and
 * expectation. A line whose hour meter is below an earlier one of the same aircraft is rejected.
 * Complexity: O(lines · log lines).
 */
export function readFluidCsv(
  fluid: FluidRow["fluid"],
  text: string,
  known: KnownAircraft,
  now: Date,
): CsvReading {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: "greedy",
    preview: MAX_CSV_LINES + 2,
  });
  const [head = [], ...lines] = parsed.data;
  const columns = new Map<string, number>();
  for (const [index, header] of head.entries()) {
    const column = header.trim().toLowerCase();
    if (!columns.has(column)) columns.set(column, index);
  }
  const faults: CsvFault[] = [];
  for (const column of NEEDED[fluid])
    if (!columns.has(column)) faults.push({ row: 1, column, expected: "a column with this name" });
  if (faults.length > 0) return { rows: [], faults };
  if (lines.length > MAX_CSV_LINES) {
    const expected = `at most ${MAX_CSV_LINES} lines; split the file`;
    return { rows: [], faults: [{ row: MAX_CSV_LINES + 2, column: "", expected }] };
  }
  const broken = new Map(parsed.errors.map((error) => [error.row, error.message.toLowerCase()]));
  const read = lines.flatMap((cells, i) => {
    // The first line below the header is line 2 of the sheet.
    const row = i + 2;
    const trouble =
      broken.get(i + 1) ??
      (cells.length > head.length
        ? "too many fields"
        : cells.length < head.length
          ? "too few fields"
          : undefined);
    if (trouble) {
      faults.push({ row, column: "", expected: `a complete line; this one has ${trouble}` });
      return [];
    }
    const before = faults.length;
    const cell = (column: string) => (cells[columns.get(column) ?? -1] ?? "").trim();
    const made = readLine(fluid, cell, known, now, (column, expected) =>
      faults.push({ row, column, expected }),
    );
    return faults.length === before ? [{ row, made }] : [];
  });
  const rows = withoutFallingHours(read, faults);
  faults.sort((a, b) => a.row - b.row);
  const more = faults.length - MAX_CSV_FAULTS;
  if (more <= 0) return { rows, faults };
  const last = faults[MAX_CSV_FAULTS];
  return {
    rows,
    faults: [
      ...faults.slice(0, MAX_CSV_FAULTS),
      {
        row: last?.row ?? 1,
        column: "",
        expected: `the remaining ${more} errors corrected; they are not shown`,
      },
    ],
  };
}

type Fault = (column: string, expected: string) => void;

function readLine(
  fluid: FluidRow["fluid"],
  cell: (column: string) => string,
  known: KnownAircraft,
  now: Date,
  fault: Fault,
): FluidRow {
  const oneOf = <T extends string>(column: string, options: readonly T[]): T | undefined => {
    const found = options.find((option) => option === cell(column).toLowerCase());
    if (!found) fault(column, `one of ${options.join(", ")}`);
    return found;
  };
  const at = readTime(cell("time"), now, fault);
  const registration = cell("registration").toUpperCase();
  const type = known(registration);
  if (!type) fault("registration", "one of your group's aircraft");
  const entry = oneOf("entry", fluid === "fuel" ? FUEL_ENTRIES : OIL_ENTRIES) ?? "measured";
  const part = cell(fluid === "fuel" ? "tank" : "engine");
  checkPart(fluid, entry, part, type, fault);
  const amount = number(cell("amount"), "amount", fault) ?? 0;
  const unit = readUnit(fluid, entry, cell("unit"), fault);
  const hours = cell("hours") === "" ? undefined : number(cell("hours"), "hours", fault);
  if (hours !== undefined && hours > MAX_HOURS) fault("hours", `at most ${MAX_HOURS}`);
  const grade = cell("grade");
  if (grade.length > 40 || !isName(grade)) fault("grade", "a grade of at most 40 characters");
  if (fluid === "fuel") {
    if (grade && !FUEL_GRADES.some((g) => g.id === grade))
      fault("grade", `one of ${FUEL_GRADES.map((g) => g.id).join(", ")}`);
    if (!grade && (unit === "kg" || unit === "lb"))
      fault("grade", `the fuel grade; without it ${unit} cannot be converted to litres`);
  }
  const heat = fluid === "oil" && cell("heat") !== "" ? oneOf("heat", OIL_HEATS) : undefined;
  if (unit) checkAmount({ fluid, entry, part, amount, unit, type, fault });
  const receipt = cell("receipt");
  if (!isName(receipt)) fault("receipt", "a receipt number without leading or trailing spaces");
  return {
    registration,
    fluid,
    entry,
    amount,
    unit: unit ?? "L",
    at,
    ...(part && { part }),
    ...(hours !== undefined && { hours }),
    ...(grade && { grade }),
    ...(heat && { heat }),
    ...(receipt && fluid === "fuel" && { receipt: receipt.slice(0, 40) }),
  };
}

const TIME = /^\d{4}-\d{2}-\d{2}(T\d{2}:\d{2}(:\d{2}(\.\d{1,3})?)?Z)?$/;
/** No logbook of an aircraft flying today goes back further. */
const EARLIEST = "1930-01-01";

function readTime(text: string, now: Date, fault: Fault): string {
  const at = TIME.test(text)
    ? new Date(text.length === 10 ? `${text}T00:00:00Z` : text)
    : new Date(Number.NaN);
  // Valid dates only: 30 February would become another day, and 24:00 the next.
  if (Number.isNaN(at.getTime()) || !at.toISOString().startsWith(text.slice(0, 10)) || text < EARLIEST) {
    fault("time", "a date, or a time in UTC, such as 2026-05-01 or 2026-05-01T09:30:00Z");
    return "";
  }
  if (at.getTime() > now.getTime() + CLOCK_TOLERANCE_MIN * 60_000)
    fault("time", "a time that is not in the future");
  return at.toISOString();
}

function number(text: string, column: string, fault: Fault): number | undefined {
  const value = /^-?\d{1,12}(\.\d{1,12})?$/.test(text) ? Number(text) : Number.NaN;
  if (!Number.isFinite(value)) fault(column, "a number with a decimal point, such as 41.5");
  else if (value < 0) fault(column, "zero or more");
  else return value;
  return undefined;
}

function checkPart(
  fluid: FluidRow["fluid"],
  entry: FluidRow["entry"],
  part: string,
  type: ReturnType<KnownAircraft>,
  fault: Fault,
): void {
  if (!type) return;
  if (fluid === "oil") {
    const engines = type.engines ?? [];
    if (engines.length > 0 ? !engines.includes(part) : part !== "")
      fault(
        "engine",
        engines.length > 0 ? `one of ${engines.join(", ")}` : "an empty cell: this type has one engine",
      );
    return;
  }
  const tanks = type.fuel?.tanks.map((tank) => tank.id) ?? [];
  if (part ? !tanks.includes(part) : entry !== "uplift" && entry !== "burn")
    fault("tank", tanks.length > 0 ? `one of ${tanks.join(", ")}` : "an empty cell: this type has no tanks");
}

const OIL_UNITS = new Map<string, Unit>([
  ["us qt", "US qt"],
  ["qt", "US qt"],
  ["l", "L"],
]);

function readUnit(
  fluid: FluidRow["fluid"],
  entry: FluidRow["entry"],
  text: string,
  fault: Fault,
): Unit | undefined {
  if (entry === "dip" || entry === "sight") {
    const unit = entry === "dip" ? "cm" : "%";
    if (text !== unit)
      fault("unit", `${unit}, the unit of the ${entry === "dip" ? "dipstick" : "sight glass"}`);
    return unit;
  }
  if (fluid === "fuel") {
    const unit = readFuelUnit(text);
    if (!unit) fault("unit", "one of L, US gal, imp gal, kg, lb; gallons must be US or imperial");
    return unit;
  }
  const unit = OIL_UNITS.get(text.toLowerCase());
  if (!unit) fault("unit", "one of US qt, L");
  return unit;
}

function checkAmount({
  fluid,
  entry,
  part,
  amount,
  unit,
  type,
  fault,
}: Pick<FluidRow, "fluid" | "entry" | "amount" | "unit"> & {
  part: string;
  type: ReturnType<KnownAircraft>;
  fault: Fault;
}): void {
  if (fluid === "oil") {
    if (convert(amount, unit, "US qt") > MOST.oil) fault("amount", `at most ${MOST.oil} US qt`);
    return;
  }
  const tank = type?.fuel?.tanks.find((t) => t.id === part);
  if (entry === "dip" || entry === "sight") {
    const points =
      entry === "dip" ? tank?.calibration?.points.map((p) => p.dipCm) : tank?.sight?.points.map((p) => p.at);
    if (tank && !points)
      fault(
        "entry",
        `"measured"; no ${entry === "dip" ? "dipstick calibration" : "sight glass scale"} is on file for ${part}`,
      );
    else if (points && amount > Math.max(...points))
      fault("amount", `at most ${Math.max(...points)} ${unit}, the end of the scale`);
    return;
  }
  if (unit === "kg" || unit === "lb") {
    if (amount > 2 * MOST.fuel) fault("amount", "an amount that a light aircraft can carry");
    return;
  }
  const litres = convert(amount, unit, "L");
  if (litres > MOST.fuel) fault("amount", `at most ${MOST.fuel} L`);
  else if (tank && entry !== "burn" && litres > tank.capacityL + 0.5)
    fault("amount", `at most ${tank.capacityL} L, the capacity of the ${tank.name}`);
}

/** Meters do not go back: a line below an earlier one of the same aircraft is reported and left out. */
function withoutFallingHours(read: { row: number; made: FluidRow }[], faults: CsvFault[]): FluidRow[] {
  const bad = new Set<number>();
  for (const registration of new Set(read.map(({ made }) => made.registration))) {
    const own = read
      .filter(({ made }) => made.registration === registration && made.hours !== undefined)
      .sort((a, b) => (a.made.at < b.made.at ? -1 : a.made.at > b.made.at ? 1 : a.row - b.row));
    const good = new Set(longestRise(own.map(({ made }) => made.hours ?? 0)));
    own.forEach(({ row }, i) => {
      if (good.has(i)) return;
      bad.add(row);
      const hours = (step: number) => {
        let at = i;
        do at += step;
        while (at in own && !good.has(at));
        return own[at]?.made.hours;
      };
      faults.push({ row, column: "hours", expected: betweenText(hours(-1), hours(1)) });
    });
  }
  return read.filter(({ row }) => !bad.has(row)).map(({ made }) => made);
}

/** The hour meter readings between which a line must lie. */
function betweenText(low: number | undefined, high: number | undefined): string {
  const words = (hours: number) => String(Math.round(hours * 100) / 100);
  const why = "the hour meter cannot go backwards";
  if (low !== undefined && high !== undefined) return `${words(low)} to ${words(high)}: ${why}`;
  return low !== undefined ? `${words(low)} or more: ${why}` : `${words(high ?? 0)} or less: ${why}`;
}

/** Log as CSV, oldest first, with the columns above; text that looks like a formula is escaped. */
export function fluidCsv(fluid: FluidRow["fluid"], rows: readonly FluidRow[]): string {
  const columns = fluid === "fuel" ? FUEL_COLUMNS : OIL_COLUMNS;
  const data = rows.map(({ at, part = "", ...row }) => {
    const line: Record<string, string | number> = { ...row, time: at, tank: part, engine: part };
    return columns.map((column) => line[column] ?? "");
  });
  return toCsv(columns, data);
}
