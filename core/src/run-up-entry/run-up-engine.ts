import type { Item } from "../aircraft/aircraft-type";
import type { ComposedList } from "../checklist/list/compose-list";
import type { PreflightState } from "../checklist/stream/preflight-state";
import type { DiagnosisContext } from "../diagnosis/evidence/observations";
import type { DropLimits } from "../engine/classify-drop";
import { READING, readingKey } from "../readings/reading-keys";
import { densityAltitudeFt, stationPressureHpa } from "../run-up/density-altitude";
import type { RunUpProfile } from "../run-up/run-up-profile";
import { convert, isConvertible } from "../units/convert";
import { carburettorIcing } from "../weather/air-today";

/** Engine of a run-up: its figures, limits and the items it answers. */
export interface RunUpEngine {
  name: string | undefined;
  profile: RunUpProfile;
  limits: DropLimits;
  /** Item of the base rpm, where the result is recorded. */
  baseItem: Item;
  densityAltitudeFt: number | undefined;
  /** Today's altimeter setting, hPa, if recorded; and the pressure at the field. */
  settingHpa: number | undefined;
  pressureHpa: number | undefined;
  /** True if the mixture is leaned before the magneto check today. */
  lean: boolean;
  context: DiagnosisContext;
}

/** Used if no setting is known. */
const STANDARD_HPA = 1013.25;

/** Temperatures between which carburettor icing is assumed possible without a dew point, °C: about the range of published charts. */
const ICING: readonly [number, number] = [-10, 22];

/**
 * Engine of a preflight with today's air: density altitude in ft from elevation, setting and temperature, and whether it is
 * leaned first. Without a setting the standard atmosphere is used. Source: the type's profile; `densityAltitudeFt`. Undefined if
 * the type has no run-up profile.
 */
export function runUpEngine(
  { list, state }: { list: ComposedList; state: PreflightState },
  name: string | undefined,
): RunUpEngine | undefined {
  const { runUp: profile, magnetos } = list.type;
  const key = readingKey(READING.magnetoBase, name);
  const baseItem = list.items.find((item) => item.reading?.key === key);
  if (!profile || !baseItem) return undefined;
  const { celsius } = state;
  const elevation = list.airfield?.elevationFt;
  const setting = state.readings[READING.altimeterSetting];
  const report = state.weather?.report;
  const settingHpa =
    setting && isConvertible(setting.unit, "hPa")
      ? convert(setting.value, setting.unit, "hPa")
      : report?.settingHpa;
  const pressureHpa =
    elevation === undefined ? undefined : stationPressureHpa(settingHpa ?? STANDARD_HPA, elevation);
  const high =
    celsius === undefined || pressureHpa === undefined
      ? undefined
      : Math.round(densityAltitudeFt(pressureHpa, celsius));
  const lean = high !== undefined && high >= profile.leanAboveFt;
  return {
    name,
    profile,
    limits: {
      ...(magnetos?.maxDropRpm !== undefined && { maxDropRpm: magnetos.maxDropRpm }),
      ...(magnetos?.maxDifferenceRpm !== undefined && { maxDifferenceRpm: magnetos.maxDifferenceRpm }),
      resolutionRpm: magnetos?.resolutionRpm ?? 10,
    },
    baseItem,
    densityAltitudeFt: high,
    settingHpa,
    pressureHpa,
    lean,
    context: {
      cylinders: profile.cylinders,
      fuelSystem: profile.fuelSystem,
      propeller: profile.propeller,
      suction: profile.suction,
      ...(high !== undefined && !lean && { highAndRich: false }),
      ...(celsius !== undefined && { icingLikely: iceCanCome(celsius, report?.dewPointC) }),
    },
  };
}

/** By the published bands with a dew point, by temperature alone without. */
function iceCanCome(celsius: number, dewPointC: number | undefined): boolean {
  if (dewPointC === undefined || dewPointC > celsius) return celsius >= ICING[0] && celsius <= ICING[1];
  const risk = carburettorIcing(celsius, dewPointC);
  return risk !== "unlikely" && risk !== "light";
}

/** This type's names of the sides. */
export function sideNames({ sideWords: words }: RunUpProfile): { right: string; left: string } {
  return words ?? { right: "right", left: "left" };
}
