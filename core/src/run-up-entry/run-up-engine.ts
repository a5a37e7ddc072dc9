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

/** The engine that is run up on this page: its figures, limits and the items that it answers. */
export interface RunUpEngine {
  name: string | undefined;
  profile: RunUpProfile;
  limits: DropLimits;
  /** Where what is read is written down: the item of the base rpm. */
  baseItem: Item;
  densityAltitudeFt: number | undefined;
  /** Today's altimeter setting, hPa, where it was written down; and the pressure at the field. */
  settingHpa: number | undefined;
  pressureHpa: number | undefined;
  /** Whether the mixture is leaned before the drops, today. */
  lean: boolean;
  context: DiagnosisContext;
}

/** Where no setting is known. */
const STANDARD_HPA = 1013.25;

/** Icing in a carburettor is taken to be possible between these, °C, whatever the dew point: the published charts reach about so far. */
const ICING: readonly [number, number] = [-10, 22];

/**
 * The engine of this name in this walk, with today's air: density altitude in ft from elevation, setting and temperature, and whether it is leaned
 * before the drops. Without a setting the standard atmosphere's is taken. Source: the type's profile; `densityAltitudeFt`. Undefined where the type has no run-up on file. */
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

/** With a dew point by the published bands, without one by the temperature alone. */
function iceCanCome(celsius: number, dewPointC: number | undefined): boolean {
  if (dewPointC === undefined || dewPointC > celsius) return celsius >= ICING[0] && celsius <= ICING[1];
  const risk = carburettorIcing(celsius, dewPointC);
  return risk !== "unlikely" && risk !== "light";
}

/** What the sides are called on this type. */
export function sideWords({ sideWords: words }: RunUpProfile): { right: string; left: string } {
  return words ?? { right: "right", left: "left" };
}
