import type { AircraftType } from "../aircraft/aircraft-type";
import type { PreflightState } from "../checklist/stream/preflight-state";
import { litresOfFuel } from "../fuel/grade/fuel-amount";
import { fuelDensity, fuelGrade } from "../fuel/grade/fuel-grades";
import { isFuelUnit } from "../fuel/grade/fuel-text";
import { litresByReading } from "../fuel/tanks/tank";
import type { FluidLog } from "../memory/fluid-memory";
import type { OilHeat } from "../oil/judge-oil";
import { isReadingOf, READING, readingName, tankOfKey } from "../readings/reading-keys";
import { convert, isConvertible, QuantityError, type Unit } from "../units/convert";

export const FUEL_ENTRIES = ["dip", "sight", "measured", "uplift", "burn"] as const;
export const OIL_ENTRIES = ["level", "added"] as const;

/** One entry of an aircraft's fuel or oil log. */
export interface FluidRow {
  registration: string;
  fluid: "fuel" | "oil";
  entry: (typeof FUEL_ENTRIES)[number] | (typeof OIL_ENTRIES)[number];
  /** Tank, or engine of a twin. */
  part?: string;
  amount: number;
  unit: Unit;
  /** Hour meter at the time. */
  hours?: number;
  grade?: string;
  receipt?: string;
  heat?: OilHeat;
  /** ISO 8601, UTC. */
  at: string;
}

const BY_ENTRY: Record<string, FluidRow["entry"]> = { dip: "dip", mark: "measured", sight: "sight" };

/** Engine or tank of a reading key; empty if there is only one. */
function partOf(key: string): { part?: string } {
  const part = readingName(key)?.subject;
  return part === undefined ? {} : { part };
}

/**
 * Log entries from a preflight, or from a separate uplift. Litres, quarts and centimetres as read; hours in hours. Never throws:
 * a meter in another unit than time is left out.
 */
export function fluidRowsOf(state: PreflightState): FluidRow[] {
  const meter = state.readings[READING.hours];
  const hours = meter && isConvertible(meter.unit, "h") ? convert(meter.value, meter.unit, "h") : undefined;
  const at = (time: string) => ({ at: time, ...(hours !== undefined && { hours }) });
  const { registration } = state;
  const rows: FluidRow[] = [];
  for (const [key, { value, unit, at: time, heat }] of registration ? Object.entries(state.readings) : []) {
    const looked = tankOfKey(key);
    const entry = BY_ENTRY[looked?.by ?? ""];
    if (looked && entry)
      rows.push({
        registration: registration ?? "",
        fluid: "fuel",
        entry,
        part: looked.tankId,
        amount: value,
        unit,
        ...at(time),
      });
    else if (isReadingOf(key, READING.oilLevel))
      rows.push({
        registration: registration ?? "",
        fluid: "oil",
        entry: "level",
        ...partOf(key),
        amount: value,
        unit,
        ...(heat && { heat }),
        ...at(time),
      });
  }
  for (const { registration: own, tankId, amount, unit, grade, receipt, before, at: time } of state.uplifts) {
    // A dip before refuelling belongs in the log, although the later dip replaces it in the preflight.
    for (const [key, { value, unit: was }] of own === registration ? Object.entries(before) : []) {
      const looked = tankOfKey(key);
      const entry = BY_ENTRY[looked?.by ?? ""];
      if (looked && entry)
        rows.push({
          registration: own,
          fluid: "fuel",
          entry,
          part: looked.tankId,
          amount: value,
          unit: was,
          ...at(justBefore(time)),
        });
    }
    rows.push({
      registration: own,
      fluid: "fuel",
      entry: "uplift",
      ...(tankId && { part: tankId }),
      amount,
      unit,
      ...(grade && { grade }),
      ...(receipt && { receipt }),
      ...at(time),
    });
  }
  for (const { registration: own, engine, qt, grade, before, at: time } of state.oilAdded) {
    const where = { registration: own, fluid: "oil" as const, ...(engine && { part: engine }) };
    if (before && own === registration)
      rows.push({
        ...where,
        entry: "level",
        amount: before.value,
        unit: before.unit,
        ...at(justBefore(time)),
      });
    rows.push({ ...where, entry: "added", amount: qt, unit: "US qt", ...(grade && { grade }), ...at(time) });
  }
  return rows;
}

const justBefore = (time: string) => new Date(Date.parse(time) - 1).toISOString();

/**
 * Converts log entries to litres and quarts with this type's calibrations. An entry that cannot be converted (a dip beyond the
 * dipstick, an unknown tank) is left out and named. Never throws.
 */
export function fluidLogOf(
  type: Pick<AircraftType, "fuel">,
  rows: readonly FluidRow[],
): FluidLog & { faults: string[] } {
  const log: FluidLog & { faults: string[] } = { fuel: [], oil: [], faults: [] };
  for (const row of rows) {
    try {
      const { at, hours, grade, receipt, heat, part, amount, unit } = row;
      const more = { at, ...(hours !== undefined && { hours }), ...(grade && { grade }) };
      if (row.fluid === "oil")
        log.oil.push({
          ...more,
          entry: row.entry === "added" ? "added" : "level",
          qt: convert(amount, unit, "US qt"),
          ...(part && { engine: part }),
          ...(heat && { heat }),
        });
      else
        log.fuel.push({
          ...more,
          entry: row.entry === "uplift" || row.entry === "burn" ? row.entry : "measured",
          litres: litresOfRow(type, row),
          amount,
          unit: isFuelUnit(unit) ? unit : "L",
          ...(part && { tankId: part }),
          ...(receipt && { receipt }),
        });
    } catch (error) {
      if (!(error instanceof QuantityError)) throw error;
      log.faults.push(`${row.at.slice(0, 10)}: ${error.message}`);
    }
  }
  return log;
}

function litresOfRow(
  { fuel }: Pick<AircraftType, "fuel">,
  { entry, part, amount, unit, grade }: FluidRow,
): number {
  const tank = fuel?.tanks.find((t) => t.id === part);
  if (entry === "dip" || entry === "sight") {
    if (!tank) throw new QuantityError(`This type has no tank ${part ?? ""}.`);
    return litresByReading(tank, { tankId: tank.id, by: entry, value: amount, unit }).value;
  }
  if (!isFuelUnit(unit)) throw new QuantityError(`${unit} is not a fuel unit.`);
  const usual = fuel?.grades?.[0] ?? "100LL";
  return litresOfFuel(amount, unit, fuelDensity(grade && fuelGrade(grade) ? grade : usual));
}
