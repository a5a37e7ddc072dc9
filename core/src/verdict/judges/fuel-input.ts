import type { ComposedList } from "../../checklist/list/compose-list";
import type { PreflightState } from "../../checklist/stream/preflight-state";
import { litresOfFuel } from "../../fuel/grade/fuel-amount";
import { fuelDensity, fuelGrade } from "../../fuel/grade/fuel-grades";
import { type FuelUnits, fuelUnits } from "../../fuel/grade/fuel-text";
import type { FuelInput } from "../../fuel/judge-fuel";
import type { FuelEntry } from "../../fuel/log/fuel-log";
import type { TankReading } from "../../fuel/tanks/tank";
import type { FluidMemory } from "../../memory/fluid-memory";
import { READING, TANK_LOOKS, tankKey } from "../../readings/reading-keys";
import { reserveFor } from "../../rules/rule-set";
import { QuantityError, valueIn } from "../../units/convert";
import type { Quantity } from "../../units/format";

/** Assumed grade of a type without any on file (own choice: the most common one). */
const USUAL_GRADE = "100LL";

export function approvedGrades(list: Pick<ComposedList, "type">): string[] {
  return list.type.fuel?.grades ?? [USUAL_GRADE];
}

/** Density of the usual grade at today's temperature, kg per litre. Source: beside each grade. */
export function fuelKgPerL(list: Pick<ComposedList, "type">, state: PreflightState): number {
  return fuelDensity(
    approvedGrades(list)[0] ?? USUAL_GRADE,
    Math.min(50, Math.max(-40, state.celsius ?? 15)),
  );
}

/** Formatter of fuel amounts for this preflight. */
export function wordsOfWalk(list: Pick<ComposedList, "type">, state: PreflightState): FuelUnits {
  return fuelUnits(state.told.unit ?? "L", fuelKgPerL(list, state));
}

/** Input for judging fuel: tank readings, the log, and the pilot's inputs. */
export function fuelInput(
  list: ComposedList,
  state: PreflightState,
  usable: (key: string) => Quantity | undefined,
): FuelInput | undefined {
  const { fuel: profile } = list.type;
  if (!profile) return undefined;
  const readings = profile.tanks.flatMap((tank) =>
    TANK_LOOKS.flatMap((by): TankReading[] => {
      const seen = usable(tankKey(by, tank.id));
      return seen ? [{ tankId: tank.id, by, ...seen }] : [];
    }),
  );
  const meter = usable(READING.hours);
  const hoursNow = meter && valueIn("The hour meter", meter, "h");
  const uplifts = upliftEntries(list, state);
  const expected = list.memory?.fuel && withUplifts(list.memory.fuel, uplifts);
  const { tilt, setting, unit } = state.told;
  return {
    profile,
    readings,
    ...(tilt && { tilt }),
    ...(setting && { setting }),
    ...(unit && { unit }),
    kgPerL: fuelKgPerL(list, state),
    ...(expected && {
      log: {
        expected,
        uplifts: expected.uplifts,
        ...(hoursNow !== undefined && { hoursNow }),
      },
    }),
    reserve: reserveFor(list.rules, list.conditions),
    plannedFlightMin: state.plannedFlightMin,
  };
}

/** Density of a grade; of the usual one if unknown. */
export function densityOf(list: ComposedList, grade: string | undefined): number {
  return fuelDensity(grade && fuelGrade(grade) ? grade : (approvedGrades(list)[0] ?? USUAL_GRADE));
}

/** Uplifts of this preflight as log entries. */
export function upliftEntries(list: ComposedList, state: PreflightState): FuelEntry[] {
  return state.uplifts.map(({ at, tankId, amount, unit, grade, receipt }) => ({
    at,
    entry: "uplift",
    amount,
    unit,
    litres: litresOfFuel(amount, unit, densityOf(list, grade)),
    ...(tankId && { tankId }),
    ...(grade && { grade }),
    ...(receipt && { receipt }),
  }));
}

function withUplifts(
  expected: NonNullable<FluidMemory["fuel"]>,
  uplifts: readonly FuelEntry[],
): NonNullable<FluidMemory["fuel"]> {
  const ids = Object.keys(expected.tanks);
  const tanks = Object.fromEntries(
    Object.entries(expected.tanks).map(([id, { value, sigma }]) => [
      id,
      {
        value: uplifts.reduce(
          (sum, u) => sum + (u.tankId === id ? u.litres : u.tankId === undefined ? u.litres / ids.length : 0),
          value,
        ),
        sigma,
      },
    ]),
  );
  return { ...expected, tanks, uplifts: [...expected.uplifts, ...uplifts] };
}

/** Message of a QuantityError; other errors are rethrown as program faults. */
export function quantityError(make: () => unknown): string | undefined {
  try {
    make();
    return undefined;
  } catch (error) {
    if (error instanceof QuantityError) return error.message;
    throw error;
  }
}
