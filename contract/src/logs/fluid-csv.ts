import {
  type AircraftType,
  convert,
  type FluidRow,
  FUEL_ENTRIES,
  FUEL_GRADES,
  OIL_ENTRIES,
  OIL_HEATS,
  readFuelUnit,
  type Unit,
} from "@cravix/core";
import Papa from "papaparse";
import type { CsvFault } from "../api/api-types";
import { CLOCK_TOLERANCE_MIN } from "../events/event-schema";

/** The columns of a fuel log, in their order. What each holds is in docs/formats/fluid-logs.md. */
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

/** What must be known of an aircraft to check its lines; undefined for one that is not in the group. */
export type KnownAircraft = (registration: string) => Pick<AircraftType, "fuel" | "engines"> | undefined;

export interface CsvReading {
  rows: FluidRow[];
  faults: CsvFault[];
}

/** More than this is no light aircraft's; litres and quarts. */
const MOST = { fuel: 5000, oil: 60 };
const NEEDED = {
  fuel: ["time", "registration", "entry", "amount", "unit"],
  oil: ["time", "registration", "entry", "amount", "unit"],
};

/**
 * Reads a fuel or oil log from comma-separated text. Never throws: good lines come back as rows, every bad one with its line, its column and
 * what was expected there. A line whose hour meter lies below that of an earlier time of the same aircraft is refused.
 */
export function readFluidCsv(
  fluid: FluidRow["fluid"],
  text: string,
  known: KnownAircraft,
  now: Date,
): CsvReading {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ""), {
    header: true,
    skipEmptyLines: "greedy",
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const faults: CsvFault[] = [];
  const columns = parsed.meta.fields ?? [];
  for (const column of NEEDED[fluid])
    if (!columns.includes(column))
      faults.push({
        row: 1,
        column,
        expected: `a column of this name; there are ${columns.join(", ") || "none"}`,
      });
  if (faults.length > 0) return { rows: [], faults };
  const read = parsed.data.flatMap((line, i) => {
    const broken = parsed.errors.find((e) => e.row === i);
    // The first line below the head is line 2 of the sheet.
    const row = i + 2;
    if (broken) {
      faults.push({ row, column: "", expected: `a whole line: ${broken.message.toLowerCase()}` });
      return [];
    }
    const before = faults.length;
    const made = readLine(fluid, line, known, now, (column, expected) =>
      faults.push({ row, column, expected }),
    );
    return faults.length === before ? [{ row, made }] : [];
  });
  return { rows: withoutFallingHours(read, faults), faults: faults.sort((a, b) => a.row - b.row) };
}

type Fault = (column: string, expected: string) => void;

function readLine(
  fluid: FluidRow["fluid"],
  line: Record<string, string>,
  known: KnownAircraft,
  now: Date,
  fault: Fault,
): FluidRow {
  const cell = (column: string) => (line[column] ?? "").trim();
  const oneOf = <T extends string>(column: string, options: readonly T[]): T | undefined => {
    const found = options.find((option) => option === cell(column).toLowerCase());
    if (!found) fault(column, `one of ${options.join(", ")}`);
    return found;
  };
  const at = readTime(cell("time"), now, fault);
  const registration = cell("registration").toUpperCase();
  const type = known(registration);
  if (!type) fault("registration", "an aircraft of the group");
  const entry = oneOf("entry", fluid === "fuel" ? FUEL_ENTRIES : OIL_ENTRIES) ?? "measured";
  const part = cell(fluid === "fuel" ? "tank" : "engine");
  checkPart(fluid, entry, part, type, fault);
  const amount = number(cell("amount"), "amount", fault) ?? 0;
  const unit = readUnit(fluid, entry, cell("unit"), fault);
  const hours = cell("hours") === "" ? undefined : number(cell("hours"), "hours", fault);
  const grade = cell("grade");
  if (fluid === "fuel") {
    if (grade && !FUEL_GRADES.some((g) => g.id === grade))
      fault("grade", `one of ${FUEL_GRADES.map((g) => g.id).join(", ")}`);
    if (!grade && (unit === "kg" || unit === "lb"))
      fault("grade", `the grade: without it ${unit} cannot be turned into litres`);
  }
  const heat = fluid === "oil" && cell("heat") !== "" ? oneOf("heat", OIL_HEATS) : undefined;
  if (unit) checkAmount({ fluid, entry, part, amount, unit, type, fault });
  const receipt = cell("receipt");
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

function readTime(text: string, now: Date, fault: Fault): string {
  const at = TIME.test(text)
    ? new Date(text.length === 10 ? `${text}T00:00:00Z` : text)
    : new Date(Number.NaN);
  if (Number.isNaN(at.getTime())) {
    fault("time", "a day or a time in UTC, like 2026-05-01 or 2026-05-01T09:30:00Z");
    return "";
  }
  if (at.getTime() > now.getTime() + CLOCK_TOLERANCE_MIN * 60_000)
    fault("time", "a time that is not in the future");
  return at.toISOString();
}

function number(text: string, column: string, fault: Fault): number | undefined {
  const value = text === "" ? Number.NaN : Number(text);
  if (!Number.isFinite(value)) fault(column, "a number with a point, like 41.5");
  else if (value < 0) fault(column, "not less than nothing");
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
        engines.length > 0 ? `one of ${engines.join(", ")}` : "nothing: this type has one engine",
      );
    return;
  }
  const tanks = type.fuel?.tanks.map((tank) => tank.id) ?? [];
  if (part ? !tanks.includes(part) : entry !== "uplift" && entry !== "burn")
    fault("tank", tanks.length > 0 ? `one of ${tanks.join(", ")}` : "nothing: this type has no tanks");
}

function readUnit(
  fluid: FluidRow["fluid"],
  entry: FluidRow["entry"],
  text: string,
  fault: Fault,
): Unit | undefined {
  if (entry === "dip" || entry === "sight") {
    const unit = entry === "dip" ? "cm" : "%";
    if (text !== unit) fault("unit", `${unit}, as the ${entry === "dip" ? "stick" : "glass"} is read`);
    return unit;
  }
  if (fluid === "fuel") {
    const unit = readFuelUnit(text);
    if (!unit) fault("unit", "one of L, US gal, imp gal, kg, lb; a gallon must say which");
    return unit;
  }
  const unit = { "us qt": "US qt", qt: "US qt", l: "L" }[text.toLowerCase()] as Unit | undefined;
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
      fault("entry", `measured: there is no ${entry === "dip" ? "stick" : "glass"} on file for ${part}`);
    else if (points && amount > Math.max(...points))
      fault("amount", `at most ${Math.max(...points)} ${unit}: it ends there`);
    return;
  }
  if (unit === "kg" || unit === "lb") {
    if (amount > 2 * MOST.fuel) fault("amount", "what a light aircraft carries");
    return;
  }
  const litres = convert(amount, unit, "L");
  if (litres > MOST.fuel) fault("amount", `at most ${MOST.fuel} L`);
  else if (tank && entry !== "burn" && litres > tank.capacityL + 0.5)
    fault("amount", `at most what the ${tank.name} holds, ${tank.capacityL} L`);
}

/** Meters do not go back: a line that lies below an earlier one of the same aircraft is named and left out. */
function withoutFallingHours(read: { row: number; made: FluidRow }[], faults: CsvFault[]): FluidRow[] {
  const most = new Map<string, number>();
  const bad = new Set<number>();
  for (const { row, made } of [...read].sort((a, b) =>
    a.made.at < b.made.at ? -1 : a.made.at > b.made.at ? 1 : a.row - b.row,
  )) {
    if (made.hours === undefined) continue;
    const before = most.get(made.registration) ?? 0;
    if (made.hours < before) {
      bad.add(row);
      faults.push({ row, column: "hours", expected: `${before} or more: the meter cannot go back` });
    } else most.set(made.registration, made.hours);
  }
  return read.filter(({ row }) => !bad.has(row)).map(({ made }) => made);
}

/** A log as comma-separated text, oldest first, with the columns above; what looks like a formula is defused. */
export function fluidCsv(fluid: FluidRow["fluid"], rows: readonly FluidRow[]): string {
  const columns = fluid === "fuel" ? FUEL_COLUMNS : OIL_COLUMNS;
  const data = rows.map(({ at, part = "", ...row }) => {
    const line: Record<string, unknown> = { ...row, time: at, tank: part, engine: part };
    return columns.map((column) => line[column] ?? "");
  });
  return `${Papa.unparse({ fields: [...columns], data }, { escapeFormulae: true, newline: "\n" }).trimEnd()}\n`;
}
