import type { AircraftType, Item, ReadingSpec } from "../aircraft/aircraft-type";
import type { EngineFeel } from "../engine/classify-drop";
import { READING, type ReadingKind, readingKey } from "../readings/reading-keys";
import type { RunUpReading } from "../run-up/reading/run-up-reading";
import { convert, type Unit } from "../units/convert";

/** A reading from the trace for a checklist item, in the item's unit and precision. */
export interface TracedReading {
  item: Item;
  value: number;
  unit: Unit;
  feel?: EngineFeel;
}

/**
 * Items a trace answers: numbers in each item's unit and decimals, and items without a number whose step is in order. Doubtful
 * and unidentified sides answer nothing. Valid range: items of one checklist; `engine` if the type has more than one.
 */
export function tracedReadings(
  items: readonly Item[],
  reading: RunUpReading,
  engine?: string,
): { readings: TracedReading[]; answered: Item[] } {
  const numbers = new Map<string, { value: number; unit: Unit; feel?: EngineFeel }>();
  const set = (key: ReadingKind, value: number | undefined, unit: Unit, feel?: EngineFeel) => {
    if (value !== undefined && Number.isFinite(value))
      numbers.set(readingKey(key, engine), { value, unit, ...(feel && { feel }) });
  };
  const { right, left, heat } = reading;
  set(READING.magnetoBase, (right ?? left)?.base ?? reading.base?.value, "rpm");
  const base = (right ?? left)?.base;
  // Both drops use one base rpm, as in the checklist: the drop is what was measured.
  for (const [key, side] of [
    [READING.magnetoRight, right],
    [READING.magnetoLeft, left],
  ] as const)
    if (side && base !== undefined && !side.doubt && !reading.unnamed)
      set(key, side.feel === "quit" ? 0 : base - side.drop, "rpm", side.feel);
  if (heat && !heat.doubt && base !== undefined) {
    set(READING.carburettorHot, base - heat.drop, "rpm");
    if (heat.gain !== undefined) set(READING.carburettorColdAgain, base + heat.gain, "rpm");
  }
  set("suction", reading.suction?.value, "inHg");
  set("volts.charging", reading.volts?.value, "V");
  set("oil.pressure", reading.oilPressure?.value, "psi");
  set("oil.temperature", reading.oilTemperature?.value, "°F");
  set("cht.hottest", reading.head?.value, "°F");
  set("idle", reading.idle?.floor, "rpm");
  const found: TracedReading[] = [];
  const answered: Item[] = [];
  for (const item of items) {
    const number = item.reading && numbers.get(item.reading.key);
    if (item.reading && number) {
      const { unit, plausible } = item.reading;
      const value = convertTo(number.value, number.unit, item.reading);
      if (plausible && (value < plausible.min || value > plausible.max)) continue;
      found.push({ item, value, unit, ...(item.reading.feel && number.feel && { feel: number.feel }) });
    } else if (item.traced && stepIsSound(item.traced, reading)) answered.push(item);
  }
  return { readings: found, answered };
}

/**
 * The five rpm values of a manual run-up that a trace shows, for a pilot who enters the rest: on both, `firstSide`, both, the
 * other side, both; whole rpm. Undefined for values that are missing, doubtful, stopped, or of an unidentified side. Pure.
 */
export function manualValuesFromTrace(
  reading: RunUpReading,
  firstSide: "right" | "left",
): (number | undefined)[] {
  const { right, left, unnamed } = reading;
  const base = (right ?? left)?.base ?? reading.base?.value;
  const sure = (side: typeof right) => (unnamed || side?.doubt || side?.feel === "quit" ? undefined : side);
  const one = sure(firstSide === "right" ? right : left);
  const two = sure(firstSide === "right" ? left : right);
  // Both use one base rpm, as in the checklist: the drop is what was measured.
  const under = (side: typeof right) =>
    side && base !== undefined ? Math.round(base - side.drop) : undefined;
  const whole = (rpm: number | undefined) => (rpm === undefined ? undefined : Math.round(rpm));
  return [whole(base), under(one), whole(one?.back), under(two), whole(two?.back)];
}

/** Value in an item's unit and decimals. Throws QuantityError for incompatible units. */
export function convertTo(value: number, from: Unit, { unit, decimals }: ReadingSpec): number {
  return Number(convert(value, from, unit).toFixed(decimals));
}

function stepIsSound(traced: NonNullable<Item["traced"]>, reading: RunUpReading): boolean {
  const { right, left, heat, propeller, steps, notes } = reading;
  const lost = notes.some((note) => note.kind === "not back to both");
  switch (traced) {
    case "both":
      return Boolean(right?.back && left?.back) && !lost;
    case "end":
      return (
        Boolean(right && left) && !lost && steps.at(-1)?.step !== "right" && steps.at(-1)?.step !== "left"
      );
    case "heat":
      return Boolean(heat?.seen && !heat.doubt && heat.drop > 0);
    case "lean":
      // Ground leaning is a separate procedure.
      return false;
    case "propeller":
      return propeller !== undefined && propeller.drop > 0.1 * propeller.base && propeller.back !== undefined;
  }
}

/** True if a type's engine can be read from a monitor. */
export function hasRunUp(type: Pick<AircraftType, "runUp">): boolean {
  return type.runUp !== undefined;
}
