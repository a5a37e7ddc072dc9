import type { Source } from "../../judgement/judgement";
import type { TankLook } from "../../readings/reading-keys";
import { QuantityError, type Unit, valueIn } from "../../units/convert";
import { onMonotoneCurve } from "../../units/monotone-curve";
import type { Uncertain } from "../../units/uncertain";
import { dipCorrectedForTilt, type TankGeometry, type Tilt } from "./dip-corrected-for-tilt";
import { type DipCalibration, litresPerCm, volumeFromDip } from "./volume-from-dip";

/** Calibration of a gauge or sight glass at its scale marks. */
export interface ScaleCalibration {
  /** Unit of the scale: "%" of the glass or of the pointer's travel, or an amount. */
  unit: Unit;
  points: { at: number; litres: number }[];
  source: Source;
}

/** A tab, slot or rib visible through the filler: fuel up to it is a known amount. */
export interface TankMark {
  name: string;
  litres: number;
}

export interface Tank {
  id: string;
  name: string;
  side?: "left" | "right";
  calibration?: DipCalibration;
  marks?: TankMark[];
  sight?: ScaleCalibration;
  gauge?: ScaleCalibration;
  geometry?: TankGeometry;
  unusableL: number;
  capacityL: number;
  /** Filling order; main tanks before tip tanks. Absent: first. */
  fillOrder?: number;
}

/** Rejects an impossible scale: fewer than two points, readings that do not increase, litres that decrease. Throws QuantityError. */
export function assertScale({ points }: ScaleCalibration): void {
  if (points.length < 2) throw new QuantityError("A scale needs at least two points.");
  points.forEach(({ at, litres }, i) => {
    const before = points[i - 1];
    if (before && (at <= before.at || litres < before.litres))
      throw new QuantityError(
        `Scale readings must increase and litres must not decrease: ${at} follows ${before.at}.`,
      );
  });
}

/** One reading of one tank. */
export interface TankReading {
  tankId: string;
  by: TankLook;
  value: number;
  /** Unit of the reading; default: that of the tank's scale. */
  unit?: Unit;
}

const LOOK_NAME: Record<TankReading["by"], string> = {
  dip: "dipstick",
  mark: "mark",
  sight: "sight glass",
  gauge: "fuel gauge",
};

/** Unit of a reading: centimetres for a dipstick, litres for a mark, and the scale's unit for a sight glass or gauge. */
export function readingUnit(tank: Pick<Tank, "sight" | "gauge">, by: TankReading["by"]): Unit {
  if (by === "dip") return "cm";
  if (by === "mark") return "L";
  return (by === "sight" ? tank.sight?.unit : tank.gauge?.unit) ?? "%";
}

/**
 * Reading precision: half a centimetre of dipstick; a share of the tank's capacity for the others (common practice, example
 * values).
 */
const DIP_SIGMA_CM = 0.5;
const PART_OF_CAPACITY = { dip: 0.01, mark: 0.04, sight: 0.05, gauge: 0.12, gaugeAtEmpty: 0.03 };
/** A gauge is only trusted at empty: below this share of the tank. */
const EMPTY_PART = 0.05;

/**
 * Litres in a tank from one reading, with uncertainty. A dip is corrected for slope if the tank's shape is known; a reading in
 * another unit of the same quantity is converted.
 * Valid range: the reading within its calibration; throws QuantityError beyond it, without a calibration, for an incompatible
 * unit, and for a slope that cannot be corrected.
 */
export function litresByReading(tank: Tank, reading: TankReading, tilt?: Tilt): Uncertain {
  const { by } = reading;
  const scaleUnit = readingUnit(tank, by);
  const value = reading.unit
    ? valueIn(
        `The ${LOOK_NAME[by]} of the ${tank.name}`,
        { value: reading.value, unit: reading.unit },
        scaleUnit,
      )
    : reading.value;
  const part = (of: number) => of * tank.capacityL;
  if (by === "dip") {
    const { calibration } = tank;
    if (!calibration)
      throw new QuantityError(
        `No dipstick calibration on file for the ${tank.name}: the dip cannot be converted to litres.`,
      );
    const tilted = tilt && (tilt.rightDownDeg !== 0 || tilt.noseUpDeg !== 0);
    if (tilted && !tank.geometry)
      throw new QuantityError(
        `The aircraft is not level and the shape of the ${tank.name} is not on file. Dip it on level ground.`,
      );
    volumeFromDip(calibration, value);
    const dip = tilted && tank.geometry ? dipCorrectedForTilt(value, tilt, tank.geometry) : value;
    const sigma = Math.hypot(litresPerCm(calibration, dip) * DIP_SIGMA_CM, part(PART_OF_CAPACITY.dip));
    // Uncertainty of the slope correction: half of it.
    const corrected = Math.abs(volumeFromDip(calibration, dip) - volumeFromDip(calibration, value));
    return { value: volumeFromDip(calibration, dip), sigma: Math.hypot(sigma, corrected / 2) };
  }
  if (by === "mark") {
    const mark = tank.marks?.find((m) => Math.abs(m.litres - value) < 1e-6);
    if (!mark) throw new QuantityError(`The ${tank.name} has no mark at ${value} L.`);
    return { value: mark.litres, sigma: part(PART_OF_CAPACITY.mark) };
  }
  const scale = by === "sight" ? tank.sight : tank.gauge;
  const name = by === "sight" ? "sight glass" : "fuel gauge";
  if (!scale)
    throw new QuantityError(`No calibration on file for the ${name} of the ${tank.name}: it is not used.`);
  const first = scale.points[0];
  const last = scale.points.at(-1);
  if (!first || !last || value < first.at || value > last.at)
    throw new QuantityError(
      `The ${name} of the ${tank.name} reads from ${first?.at} to ${last?.at}${scale.unit === "%" ? " %" : ` ${scale.unit}`}. Read it again.`,
    );
  const litres = onMonotoneCurve(
    scale.points.map((p) => ({ at: p.at, value: p.litres })),
    value,
  );
  if (by === "sight") return { value: litres, sigma: part(PART_OF_CAPACITY.sight) };
  const atEmpty = litres <= EMPTY_PART * tank.capacityL;
  return { value: litres, sigma: part(atEmpty ? PART_OF_CAPACITY.gaugeAtEmpty : PART_OF_CAPACITY.gauge) };
}
